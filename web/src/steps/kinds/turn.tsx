import { Button, Checkbox, UnstyledButton } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { stepsOf } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { type Grip, linear } from "@/drawings/hands";
import { foldPath, Ribbon } from "@/drawings/Ribbon";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { otherFoldName } from "@/measures/words";
import { ClockReadout } from "../parts/ClockReadout";
import { rolledGrips } from "../parts/grips";
import { HowToRoll } from "../parts/HowToRoll";
import classes from "../parts/panels.module.css";
import { type Given, kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { RollToSize, RollToThickness } from "../parts/RollTo";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";

/** One turn: the fold, the roll and the rest. */
function TurnPanel(panel: PanelProps<"turn">) {
  const { stop, step, made, set, worked, searchFolds, warmth } = panel;
  const { say, foldTitle, likes } = useSaying();
  const { words, multiplies } = useTrade();
  return (
    <>
      <Choice
        label="Fold"
        value={step.fold}
        onChange={(fold) => set({ fold }, "fold")}
        options={(words.fold ?? []).map(({ value }) => ({
          value: value as Schemas["Fold"],
          label: `${foldTitle(value)} ×${multiplies[value]}`,
          hint: `also ${otherFoldName(value, likes.folds)}`,
        }))}
      />
      <UnstyledButton className={classes.search} onClick={searchFolds}>
        Search all folds for this dough
      </UnstyledButton>
      <Checkbox
        label="Cut and stack, so that every edge stays open"
        checked={step.stacked}
        onChange={(e) => set({ stacked: e.currentTarget.checked }, "stacked")}
      />
      <Checkbox
        label="Fold it as it lies, without a roll"
        checked={step.as_it_lies}
        onChange={(e) => set({ as_it_lies: e.currentTarget.checked }, "as_it_lies")}
      />
      {!step.as_it_lies && (
        <>
          <RollToThickness {...panel} made={made?.rolled} to={step} />
          {made && <HowToRoll how={made.rolling} />}
        </>
      )}
      <StepRest panel={panel} label="Then rest" />
      {made && (
        <dl className={classes.readouts}>
          <ClockReadout worked={worked} clock={warmth?.clocks.find((c) => c.stop === stop.key)} />
          <Readout
            worked={worked}
            of={`${stop.key}.rolled.length_mm`}
            label="Sheet length"
            value={say("length", Math.round(made.rolled.length_mm))}
          />
          <Readout
            worked={worked}
            of={`${stop.key}.butter_layers`}
            label="Butter layers"
            value={String(made.butter_layers)}
          />
          <Readout
            worked={worked}
            label="All leaves"
            value={`${made.layers.total} (multiplying alone gives ${made.layers.naive})`}
          />
        </dl>
      )}
      <AddAnother {...panel} />
      <StepAssumes panel={panel} title="Trim, size and what may go wrong">
        <Trimming {...panel} />
        <RollToSize {...panel} made={made?.rolled} to={step} />
        {step.fold === "offset_book" && !step.stacked && (
          <StepMeasure
            panel={panel}
            name="seam_pct"
            label="The ends meet at"
            quantity="share"
            help="of the length"
          />
        )}
        <StepMeasure
          panel={panel}
          name="short_mm"
          label="On purpose: flaps fall short by"
          quantity="length"
          help="to see what it costs"
        />
        <StepMeasure
          panel={panel}
          name="uneven_pct"
          label="Try a fault: one side thicker by"
          quantity="share"
          help="than the average, to see the effect"
        />
      </StepAssumes>
    </>
  );
}

function AddAnother({ stop, plan, amend, select, readOnly }: PanelProps<"turn">) {
  const most = useTrade().steps.find((k) => k.do === "turn")?.most ?? 0;
  if (readOnly) return null;
  return (
    <Button
      variant="default"
      disabled={stepsOf(plan, "turn").length >= most}
      onClick={() =>
        amend({ change: "add_step", ingredient: "turn", index: stop.n + 1 }, "steps", (made) =>
          select(made.steps[stop.n + 1]?.id ?? ""),
        )
      }
    >
      Add a turn after this
    </Button>
  );
}

/** What is cut off before the fold: kept, or tucked inside. */
function Trimming({ step, made, at, set }: PanelProps<"turn">) {
  const { say } = useSaying();
  const trim = step.trim ?? { ends_mm: 0, sides_mm: 0, tucked: false };
  const put = (part: Partial<typeof trim>, name: string) => {
    const next = { ...trim, ...part };
    set({ trim: next.ends_mm || next.sides_mm ? next : null }, `trim.${name}`);
  };
  const measure = (label: string, name: "ends_mm" | "sides_mm") => (
    <MeasureInput
      label={label}
      quantity="length"
      path={`${at}.trim.${name}`}
      value={trim[name]}
      onChange={(v) => v !== null && put({ [name]: v }, name)}
    />
  );
  return (
    <>
      <div className={classes.pair}>
        {measure("Trim off both ends", "ends_mm")}
        {measure("and off both sides", "sides_mm")}
      </div>
      {(trim.ends_mm > 0 || trim.sides_mm > 0) && (
        <Checkbox
          label="Tuck it inside"
          checked={trim.tucked}
          onChange={(e) => put({ tucked: e.currentTarget.checked }, "tucked")}
        />
      )}
      {made && made.trimmed_g > 0.5 && (
        <small className="quiet">{say("mass", Math.round(made.trimmed_g))} saved</small>
      )}
    </>
  );
}

/** The edges of the sheet, what is trimmed off, the seam, and the crease that falls short. */
function turnGrips(panel: PanelProps<"turn">, given: Given) {
  const { step, made, at, set } = panel;
  if (!made) return {};
  const limits = given.trade.limits.turn ?? {};
  const { length_mm, width_mm, thickness_mm } = made.rolled;
  const trim = step.trim ?? { ends_mm: 0, sides_mm: 0, tucked: false };
  const across = { dir: "x" as const, from: 0, to: width_mm };
  const { above, side } = rolledGrips(
    panel,
    made.rolled,
    made.folded.thickness_mm / thickness_mm,
    given,
  );
  const cuts: Grip[] = [
    {
      ...across,
      path: `${at}.trim.ends_mm`,
      label: "Trim off both ends",
      quantity: "length",
      value: trim.ends_mm,
      limits: limits["trim.ends_mm"],
      ...linear(length_mm, -1),
      drawn: true,
      knob: 0.8,
      put: (v) => set({ trim: { ...trim, ends_mm: v } }, "trim.ends_mm"),
    },
    {
      path: `${at}.trim.sides_mm`,
      label: "Trim off both sides",
      quantity: "length",
      value: trim.sides_mm,
      limits: limits["trim.sides_mm"],
      dir: "y",
      from: 0,
      to: length_mm,
      ...linear(width_mm, -1),
      drawn: true,
      knob: 0.2,
      put: (v) => set({ trim: { ...trim, sides_mm: v } }, "trim.sides_mm"),
    },
  ];
  const ready = length_mm - 2 * trim.ends_mm;
  const seam: Grip = {
    ...across,
    path: `${at}.seam_pct`,
    label: "The ends meet at",
    quantity: "share",
    value: step.seam_pct,
    limits: limits.seam_pct,
    ...linear(trim.ends_mm, ready / 100),
    drawn: true,
    knob: 0.2,
    put: (v) => set({ seam_pct: v }, "seam_pct"),
  };
  const last = made.creases_mm.at(-1) ?? 0;
  const short: Grip = {
    ...across,
    path: `${at}.short_mm`,
    label: "Flaps fall short by",
    quantity: "length",
    value: step.short_mm,
    limits: limits.short_mm,
    // a flap that falls short was creased nearer its end, by half of what is missing
    ...linear(last - step.short_mm / 2, 0.5),
    knob: 0.86,
    put: (v) => set({ short_mm: v }, "short_mm"),
  };
  return {
    above: [
      ...(step.stacked ? [] : [short]),
      ...(step.fold === "offset_book" && !step.stacked ? [seam] : []),
      ...(trim.ends_mm || trim.sides_mm ? cuts : []),
      ...above,
    ],
    side,
  };
}

export default kind("turn", {
  Glyph: ({ step }) => <Ribbon d={foldPath(step.fold)} />,
  Panel: TurnPanel,
  terms: ({ fold }) => [`fold.${fold}`, "butter_layers", "relaxing"],
  grips: turnGrips,
  views: ["sheet", "folding", "cut", "warmth"],
});
