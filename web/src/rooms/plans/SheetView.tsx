/** The large drawing of a sheet: as it lies, where its leaves are, how it folds, or cut across. */
import { Checkbox, Slider } from "@mantine/core";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Suspense, useState } from "react";
import { api, got, type Schemas } from "@/api/client";
import { sentence } from "@/api/queries";
import { made, madeAt } from "@/api/steps";
import { FromAbove } from "@/drawings/FromAbove";
import { type Grip, linear } from "@/drawings/hands";
import { Choice } from "@/measures/Choice";
import { aboveOf } from "@/steps/above";
import { kindOf } from "@/steps/kinds";
import type { View } from "@/steps/parts/props";
import { lazily } from "@/wire/lazily";
import classes from "./PlanRoom.module.css";

// The sheet itself is there at once; the other ways to look at it when they are wanted.
const WarmthChart = lazily(async () => (await import("@/cold/WarmthChart")).WarmthChart);
const CutAcross = lazily(async () => (await import("@/drawings/CutAcross")).CutAcross);
const Folding = lazily(async () => (await import("@/drawings/Folding")).Folding);
const LeafMap = lazily(async () => (await import("@/drawings/LeafMap")).LeafMap);
const Marks = lazily(async () => (await import("@/finish/Marks")).Marks);

interface Props {
  stop: Schemas["Stop"];
  plan: Schemas["Plan"];
  planId: number;
  worked: Schemas["WorkedPlan"];
  bench?: { length_mm: number; width_mm: number };
  place: Place;
  setPlace: (place: Place) => void;
  warmth?: Schemas["WorkedWarmth"];
  /** The moment whose warmth is looked at, minutes from the start; none while it is not. */
  moment: number | null;
  setMoment: (minute: number | null) => void;
  /** What of the sheet can be taken hold of. */
  grips?: Grip[];
  /** Whether the thickness stays while an edge is moved; undefined where there is no choice. */
  keepThickness?: boolean;
  setKeepThickness: (keep: boolean) => void;
}

/** A place of the sheet, shares of its length and width, and how high in the stack one looks. */
export interface Place {
  x: number;
  y: number;
  up: number;
}

const NAMES: Record<View, string> = {
  sheet: "Sheet",
  leaves: "Leaves",
  warmth: "Warmth",
  folding: "Folding",
  cut: "Cut across",
  marks: "Marks",
};

const TITLES: Partial<Record<View, string>> = {
  cut: "Cut across",
  warmth: "Over time",
  marks: "Marks",
};
const SMALL: Partial<Record<View, string>> = { cut: "heights stretched", warmth: "today" };

/** The section of the sheet at a stop along a line. */
export function useSection(
  plan: Schemas["Plan"],
  stop: string,
  line: Schemas["Across"],
  enabled: boolean,
) {
  return useQuery({
    queryKey: ["section", plan, stop, line],
    queryFn: () => got(api.POST("/api/section", { body: { plan, stop, line } })),
    enabled,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 20_000,
  });
}

export function SheetView({
  stop,
  plan,
  planId,
  worked,
  bench,
  place,
  setPlace,
  grips = [],
  keepThickness,
  setKeepThickness,
  ...warm
}: Props) {
  const [wanted, setView] = useState<View>("sheet");
  const { Sheet, ...drawn } = kindOf(stop.do);
  const views: View[] = drawn.views ?? ["sheet"];
  const view = views.includes(wanted) ? wanted : "sheet";
  const above = aboveOf(stop, plan, worked);
  const final = made(worked, "last_sheet");
  const turn = madeAt(stop, "turn");
  const cut = madeAt(stop, "cut");
  const { warmth, moment, setMoment } = warm;
  const starts = worked.strip.find((s) => s.key === stop.key)?.starts_min ?? 0;
  const names = new Map(worked.strip.map((s) => [s.key, s.name]));
  const here = plan.steps.find((s) => s.id === stop.key);
  const stacked = here?.do === "turn" && here.stacked;
  const { length_mm, width_mm } = above.sheet;
  const lookAcross: Grip = {
    path: "look",
    label: "Where it is looked at from the side",
    quantity: "share",
    value: Math.round(100 * place.y),
    limits: [0, 100],
    dir: "y",
    ...linear(0, width_mm / 100),
    from: 0,
    to: length_mm,
    knob: 1,
    off: 24,
    drawn: true,
    put: (v) => setPlace({ ...place, y: v / 100 }),
  };
  const choose = (next: View) => {
    setView(next);
    setMoment(next === "warmth" ? starts : null);
  };
  return (
    <section className={classes.above}>
      <div className={classes.viewHead}>
        <h2>
          {TITLES[view] ?? (Sheet ? stop.name : "From above")}{" "}
          <small>{SMALL[view] ?? (Sheet || views.length > 3 ? "" : above.caption)}</small>
        </h2>
        {views.length > 1 && (
          <Choice
            label="Show"
            tight
            value={view}
            options={views.map((value) => ({ value, label: NAMES[value] }))}
            onChange={choose}
          />
        )}
      </div>
      <Suspense fallback={<div className="drawing" />}>
        {view === "leaves" && final && (
          <LeafMap
            sheet={final}
            map={final.map}
            layers={worked.layers}
            cut={cut}
            place={place}
            look={(x, y) => setPlace({ ...place, x, y })}
          />
        )}
        {view === "folding" && turn && (
          <Folding key={`${stop.key} ${turn.fold}`} step={turn} stacked={stacked} />
        )}
        {view === "marks" && cut && <Marks plan={plan} planId={planId} cut={cut} />}
        {view === "cut" && <Across {...{ plan, stop: stop.key, place, setPlace }} />}
        {view === "warmth" &&
          (warmth ? (
            <WarmthChart warmth={warmth} names={names} moment={moment ?? starts} look={setMoment} />
          ) : (
            <div className="drawing" />
          ))}
      </Suspense>
      {view === "sheet" &&
        (Sheet && here ? (
          <Sheet
            stop={stop}
            plan={plan}
            worked={worked}
            step={here as never}
            made={stop.made as never}
          />
        ) : (
          <FromAbove
            {...above}
            minHeight={140}
            bench={above.onBench ? bench : undefined}
            grips={views.includes("cut") ? [lookAcross, ...grips] : grips}
          />
        ))}
      {view === "sheet" && keepThickness !== undefined && (
        <Checkbox
          className={classes.keep}
          size="sm"
          label="Moving an edge keeps the thickness"
          checked={keepThickness}
          onChange={(e) => setKeepThickness(e.currentTarget.checked)}
        />
      )}
    </section>
  );
}

function Across({
  plan,
  stop,
  place,
  setPlace,
}: Pick<Props, "plan" | "place" | "setPlace"> & { stop: string }) {
  const [crosswise, setCrosswise] = useState(false);
  const line = {
    at_pct: Math.round(100 * (crosswise ? place.x : place.y)),
    crosswise,
    low_pct: 0,
    high_pct: 100,
  };
  const whole = useSection(plan, stop, line, true);
  // Too many leaves to list: look again through a window round the loupe.
  const most = Math.max(...(whole.data?.stacks ?? []).map((s) => s.butter + s.dough), 0);
  const listed = whole.data?.stacks.every((s) => s.leaves_um.length > 0) ?? true;
  const reach = Math.min(100, (100 * 120) / Math.max(most, 1));
  const step = Math.round((100 * place.up) / reach) * reach;
  const near = useSection(
    plan,
    stop,
    { ...line, low_pct: Math.max(0, step - reach), high_pct: Math.min(100, step + reach) },
    !listed,
  );
  const at = { x: crosswise ? place.y : place.x, y: place.up };
  if (whole.isError) return <p role="alert">{sentence(whole.error)}</p>;
  if (!whole.data) return <div className="drawing" />;
  return (
    <CutAcross
      section={whole.data}
      near={near.data}
      at={at}
      move={({ x, y }) => setPlace(crosswise ? { ...place, y: x, up: y } : { ...place, x, up: y })}
    >
      <Choice
        label="The cut runs"
        tight
        value={crosswise ? "across" : "along"}
        options={[
          { value: "along", label: "Along" },
          { value: "across", label: "Across" },
        ]}
        onChange={(v) => setCrosswise(v === "across")}
      />
      <span id="lineAt">
        at {line.at_pct} % of the {crosswise ? "length" : "width"}
      </span>
      <Slider
        size="lg"
        value={line.at_pct}
        label={null}
        thumbProps={{ "aria-labelledby": "lineAt" }}
        onChange={(v) => setPlace(crosswise ? { ...place, x: v / 100 } : { ...place, y: v / 100 })}
      />
    </CutAcross>
  );
}
