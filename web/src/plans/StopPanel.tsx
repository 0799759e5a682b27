/** The few inputs of the chosen stop. */
import { Button } from "@mantine/core";
import type { ReactNode } from "react";
import type { Schemas } from "@/api/client";
import { turnIndex } from "@/drawings/views";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { leaf, span } from "@/measures/quantity";
import { otherFoldName } from "@/measures/words";
import { Assumptions } from "./Assumptions";
import { Readout } from "./Readout";
import { RestInput } from "./RestInput";
import classes from "./StopPanel.module.css";
import { addTurn, removeTurn } from "./turns";

type Plan = Schemas["Plan"];

export interface PanelProps {
  stop: Schemas["Stop"];
  plan: Plan;
  worked: Schemas["WorkedPlan"];
  readOnly: boolean;
  change: (plan: Plan, path: string) => void;
  select: (key: string) => void;
}

const PANELS: Record<Schemas["StopKind"], (props: PanelProps) => ReactNode> = {
  dough: DoughPanel,
  lock_in: LockInPanel,
  turn: TurnPanel,
  final: FinalPanel,
  cut: CutPanel,
};

export function StopPanel(props: PanelProps) {
  const Panel = PANELS[props.stop.kind];
  return (
    <form
      className={classes.panel}
      aria-label={`${props.stop.name}: inputs`}
      onSubmit={(e) => e.preventDefault()}
    >
      <h2>{props.stop.name}</h2>
      <p className={classes.when}>
        {props.stop.starts_min > 0
          ? `${span(props.stop.starts_min)} after the start, `
          : "at the start, "}
        {span(props.stop.bench_min)} at the bench
      </p>
      <fieldset disabled={props.readOnly} className={classes.fields} key={props.stop.key}>
        <Panel {...props} />
      </fieldset>
    </form>
  );
}

function DoughPanel({ plan, worked, change }: PanelProps) {
  const { dough, butter } = plan;
  const setDough = (part: Partial<Plan["dough"]>, path: string) =>
    change({ ...plan, dough: { ...dough, ...part } }, path);
  const setButter = (mass_g: number, path: string) =>
    change({ ...plan, butter: { ...butter, mass_g } }, path);
  const sharePct = (100 * butter.mass_g) / dough.mass_g;
  return (
    <>
      <MeasureInput
        label="Dough"
        quantity="mass"
        path="dough.mass_g"
        value={dough.mass_g}
        onChange={(v) => v !== null && setDough({ mass_g: v }, "dough.mass_g")}
      />
      <MeasureInput
        label="Butter"
        quantity="mass"
        path="butter.mass_g"
        value={butter.mass_g}
        onChange={(v) => v !== null && setButter(v, "butter.mass_g")}
      />
      <MeasureInput
        label="Butter share of the dough"
        quantity="share"
        path="butter.share"
        value={sharePct}
        help={`${worked.butter_share.of_whole_pct.toFixed(1)} % of the whole`}
        onChange={(v) =>
          v !== null && setButter(Math.round(dough.mass_g * v) / 100, "butter.share")
        }
      />
      <RestInput
        label="Then chill"
        path="dough.rest"
        rest={dough.rest}
        onChange={(rest) => setDough({ rest }, "dough.rest")}
      />
      <Assumptions minutesKey="minutes.dough">
        <MeasureInput
          label="Density of the dough"
          quantity="density"
          path="dough.density_kg_m3"
          value={dough.density_kg_m3}
          help="1120: cold, degassed yeasted dough"
          onChange={(v) => v !== null && setDough({ density_kg_m3: v }, "dough.density_kg_m3")}
        />
        <MeasureInput
          label="Density of the butter"
          quantity="density"
          path="butter.density_kg_m3"
          value={butter.density_kg_m3}
          help="940: 82 % fat, little air"
          onChange={(v) =>
            v !== null &&
            change({ ...plan, butter: { ...butter, density_kg_m3: v } }, "butter.density_kg_m3")
          }
        />
        <OwnMinutes
          path="dough.bench_min"
          value={dough.bench_min}
          onChange={(bench_min) => setDough({ bench_min }, "dough.bench_min")}
        />
      </Assumptions>
    </>
  );
}

const METHODS: { value: Schemas["Method"]; label: string }[] = [
  { value: "half", label: "Half" },
  { value: "two_thirds", label: "Two-thirds" },
  { value: "envelope", label: "Envelope" },
];

function LockInPanel({ plan, worked, change }: PanelProps) {
  const { say } = useSaying();
  const chosen = plan.lock_in;
  const set = (part: Partial<Plan["lock_in"]>, path: string) =>
    change({ ...plan, lock_in: { ...chosen, ...part } }, path);
  const choose = (method: Schemas["Method"]) => {
    // An envelope wants a square: the same butter, the same thickness.
    const square = Math.round(Math.sqrt(chosen.block_width_mm * chosen.block_length_mm));
    set(
      method === "envelope"
        ? { method, block_width_mm: square, block_length_mm: square, margin_mm: 0 }
        : { method, overlap_mm: 0 },
      "lock_in.method",
    );
  };
  const envelope = chosen.method === "envelope";
  const { block, dough_sheet } = worked.lock_in;
  return (
    <>
      <Choice label="School" tight options={METHODS} value={chosen.method} onChange={choose} />
      <div className={classes.pair}>
        <MeasureInput
          label={envelope ? "Block side" : "Block width"}
          quantity="length"
          path="lock_in.block_width_mm"
          value={chosen.block_width_mm}
          onChange={(v) =>
            v !== null &&
            set(
              envelope ? { block_width_mm: v, block_length_mm: v } : { block_width_mm: v },
              "lock_in.block_width_mm",
            )
          }
        />
        {envelope ? (
          <MeasureInput
            label="Overlap"
            quantity="length"
            path="lock_in.overlap_mm"
            value={chosen.overlap_mm}
            onChange={(v) => v !== null && set({ overlap_mm: v }, "lock_in.overlap_mm")}
          />
        ) : (
          <MeasureInput
            label="Block length"
            quantity="length"
            path="lock_in.block_length_mm"
            value={chosen.block_length_mm}
            onChange={(v) => v !== null && set({ block_length_mm: v }, "lock_in.block_length_mm")}
          />
        )}
      </div>
      {!envelope && (
        <MeasureInput
          label="Bare margin round the block"
          quantity="length"
          path="lock_in.margin_mm"
          value={chosen.margin_mm}
          onChange={(v) => v !== null && set({ margin_mm: v }, "lock_in.margin_mm")}
        />
      )}
      <dl className={classes.readouts}>
        <Readout
          worked={worked}
          of="lock_in.block.thickness_mm"
          label="Block thickness"
          value={say("length", block.thickness_mm)}
        />
        <Readout
          worked={worked}
          of="lock_in.dough_sheet.length_mm"
          label="Dough sheet"
          value={`${Math.round(dough_sheet.length_mm)} × ${say("length", Math.round(dough_sheet.width_mm))}`}
          size={dough_sheet}
        />
        <Readout
          worked={worked}
          of="lock_in.dough_sheet.thickness_mm"
          label="Dough thickness"
          value={say("length", dough_sheet.thickness_mm)}
        />
      </dl>
      <RestInput
        label="Then rest"
        path="lock_in.rest"
        rest={chosen.rest}
        onChange={(rest) => set({ rest }, "lock_in.rest")}
      />
      <Assumptions minutesKey="minutes.lock_in">
        <OwnMinutes
          path="lock_in.bench_min"
          value={chosen.bench_min}
          onChange={(bench_min) => set({ bench_min }, "lock_in.bench_min")}
        />
      </Assumptions>
    </>
  );
}

const FOLDS: Schemas["Fold"][] = ["letter", "book", "half"];
const TIMES: Record<Schemas["Fold"], number> = { half: 2, letter: 3, book: 4 };

function TurnPanel({ stop, plan, worked, change, select }: PanelProps) {
  const { say, foldTitle, likes } = useSaying();
  const at = turnIndex(stop);
  const turn = plan.turns[at];
  const step = worked.steps[at];
  if (!turn || !step) return null;
  const here = `turns[${at}]`;
  const set = (part: Partial<Schemas["Turn"]>, path: string) =>
    change({ ...plan, turns: plan.turns.with(at, { ...turn, ...part }) }, path);
  return (
    <>
      <Choice
        label="Fold"
        value={turn.fold}
        onChange={(fold) => set({ fold }, `${here}.fold`)}
        options={FOLDS.map((fold) => ({
          value: fold,
          label: `${foldTitle(fold)} ×${TIMES[fold]}`,
          hint: `also ${otherFoldName(fold, likes.folds)}`,
        }))}
      />
      <MeasureInput
        label="Roll to"
        quantity="length"
        path={`${here}.roll_to_mm`}
        value={turn.roll_to_mm}
        onChange={(v) => v !== null && set({ roll_to_mm: v }, `${here}.roll_to_mm`)}
      />
      <RestInput
        label="Then rest"
        path={`${here}.rest`}
        rest={turn.rest}
        onChange={(rest) => set({ rest }, `${here}.rest`)}
      />
      <dl className={classes.readouts}>
        <Readout
          worked={worked}
          of={`steps[${at}].rolled.length_mm`}
          label="Sheet length"
          value={say("length", Math.round(step.rolled.length_mm))}
        />
        <Readout
          worked={worked}
          of={`steps[${at}].butter_layers`}
          label="Butter layers"
          value={String(step.butter_layers)}
        />
        <Readout
          worked={worked}
          label="All leaves, or by product"
          value={`${step.layers.total} or ${step.layers.naive}`}
        />
      </dl>
      <div className={classes.pair}>
        <Button
          variant="default"
          disabled={plan.turns.length >= 12}
          onClick={() => {
            change(addTurn(plan, at + 1), "turns");
            select(`turn-${at + 2}`);
          }}
        >
          Add one after
        </Button>
        <Button
          variant="default"
          onClick={() => {
            change(removeTurn(plan, at), "turns");
            select(at > 0 ? `turn-${at}` : "lock_in");
          }}
        >
          Take it away
        </Button>
      </div>
      <Assumptions minutesKey="minutes.turn">
        <OwnMinutes
          path={`${here}.bench_min`}
          value={turn.bench_min}
          onChange={(bench_min) => set({ bench_min }, `${here}.bench_min`)}
        />
      </Assumptions>
    </>
  );
}

function FinalPanel({ plan, worked, change }: PanelProps) {
  const { say } = useSaying();
  const { final } = plan;
  const set = (part: Partial<Plan["final"]>, path: string) =>
    change({ ...plan, final: { ...final, ...part } }, path);
  return (
    <>
      <MeasureInput
        label="Roll to"
        quantity="length"
        path="final.roll_to_mm"
        value={final.roll_to_mm}
        onChange={(v) => v !== null && set({ roll_to_mm: v }, "final.roll_to_mm")}
      />
      <MeasureInput
        label="Width"
        quantity="length"
        path="final.width_mm"
        value={final.width_mm}
        emptyMeans="as it comes"
        onChange={(width_mm) => set({ width_mm }, "final.width_mm")}
      />
      <RestInput
        label="Then let it shrink"
        path="final.rest"
        rest={final.rest}
        onChange={(rest) => set({ rest }, "final.rest")}
      />
      <dl className={classes.readouts}>
        <Readout
          worked={worked}
          of="final.length_mm"
          label="Sheet length"
          value={say("length", Math.round(worked.final.length_mm))}
        />
        <Readout
          worked={worked}
          of="layers.butter_um"
          label="Butter leaf"
          value={leaf(worked.layers.butter_um)}
        />
        <Readout
          worked={worked}
          of="layers.butter_um"
          label="Dough leaf"
          value={leaf(worked.layers.dough_um)}
        />
      </dl>
      {!plan.cut && (
        <Button
          variant="default"
          onClick={() =>
            change(
              { ...plan, cut: { shape: "triangle", base_mm: 90, height_mm: 280, kerf_mm: 0 } },
              "cut",
            )
          }
        >
          Plan the cut
        </Button>
      )}
      <Assumptions minutesKey="minutes.final">
        <OwnMinutes
          path="final.bench_min"
          value={final.bench_min}
          onChange={(bench_min) => set({ bench_min }, "final.bench_min")}
        />
      </Assumptions>
    </>
  );
}

function CutPanel({ plan, worked, change, select }: PanelProps) {
  const { say } = useSaying();
  const { cut } = plan;
  if (!cut || !worked.cut) return null;
  const set = (part: Partial<Schemas["Cut"]>, path: string) =>
    change({ ...plan, cut: { ...cut, ...part } }, path);
  return (
    <>
      <Choice
        label="Shape"
        value={cut.shape}
        options={[
          { value: "triangle", label: "Triangles" },
          { value: "rectangle", label: "Rectangles" },
        ]}
        onChange={(shape) => set({ shape }, "cut.shape")}
      />
      <div className={classes.pair}>
        <MeasureInput
          label="Base"
          quantity="length"
          path="cut.base_mm"
          value={cut.base_mm}
          onChange={(v) => v !== null && set({ base_mm: v }, "cut.base_mm")}
        />
        <MeasureInput
          label="Height"
          quantity="length"
          path="cut.height_mm"
          value={cut.height_mm}
          onChange={(v) => v !== null && set({ height_mm: v }, "cut.height_mm")}
        />
      </div>
      <MeasureInput
        label="The blade eats"
        quantity="length"
        path="cut.kerf_mm"
        value={cut.kerf_mm}
        onChange={(v) => v !== null && set({ kerf_mm: v }, "cut.kerf_mm")}
      />
      <dl className={classes.readouts}>
        <Readout worked={worked} of="cut.pieces" label="Pieces" value={String(worked.cut.pieces)} />
        <Readout
          worked={worked}
          of="cut.piece_g"
          label="Each"
          value={say("mass", worked.cut.piece_g)}
        />
        <Readout
          worked={worked}
          label="Trimmings"
          value={say("mass", Math.round(worked.cut.trimmings_g))}
        />
      </dl>
      <Button
        variant="default"
        onClick={() => {
          select("final");
          change({ ...plan, cut: null }, "cut");
        }}
      >
        No cut in this plan
      </Button>
      <Assumptions minutesKey="minutes.cut">
        <OwnMinutes
          path="cut.bench_min"
          value={cut.bench_min}
          onChange={(bench_min) => set({ bench_min }, "cut.bench_min")}
        />
      </Assumptions>
    </>
  );
}

interface OwnMinutesProps {
  path: string;
  value: number | null | undefined;
  onChange: (minutes: number | null) => void;
}

function OwnMinutes({ path, value, onChange }: OwnMinutesProps) {
  return (
    <MeasureInput
      label="Minutes at the bench"
      quantity="time"
      path={path}
      value={value}
      emptyMeans="as in the kitchen"
      onChange={onChange}
    />
  );
}
