import { Button, Checkbox, UnstyledButton } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { turnIndex } from "@/drawings/views";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { otherFoldName } from "@/measures/words";
import { Assumptions } from "../Assumptions";
import { ClockReadout } from "../ClockReadout";
import { HowToRoll } from "../HowToRoll";
import { Readout } from "../Readout";
import { RestInput } from "../RestInput";
import { addTurn, removeTurn } from "../turns";
import { OwnMinutes } from "./OwnMinutes";
import classes from "./panels.module.css";
import type { PanelProps } from "./props";
import { UnevenInput } from "./UnevenInput";

const FOLDS: Schemas["Fold"][] = ["letter", "book", "offset_book", "half"];
const TIMES: Record<Schemas["Fold"], number> = {
  half: 2,
  letter: 3,
  book: 4,
  offset_book: 4,
};

/** One turn: the fold, the roll and the rest. */
export function TurnPanel({ stop, plan, worked, change, select, searchFolds, warmth }: PanelProps) {
  const { say, foldTitle, likes } = useSaying();
  const at = turnIndex(stop);
  const turn = plan.turns[at];
  const step = worked.steps[at];
  if (!turn || !step) return null;
  const here = `turns[${at}]`;
  const set = (part: Partial<Schemas["Turn"]>, path: string) =>
    change({ ...plan, turns: plan.turns.with(at, { ...turn, ...part }) }, path);
  const trim = turn.trim ?? { ends_mm: 0, sides_mm: 0, tucked: false };
  const setTrim = (part: Partial<typeof trim>, name: string) => {
    const next = { ...trim, ...part };
    set({ trim: next.ends_mm || next.sides_mm ? next : null }, `${here}.trim.${name}`);
  };
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
      <UnstyledButton className={classes.search} onClick={searchFolds}>
        Search all folds for this dough
      </UnstyledButton>
      <Checkbox
        label="Cut and stack, so that every edge stays open"
        checked={turn.stacked}
        onChange={(e) => set({ stacked: e.currentTarget.checked }, `${here}.stacked`)}
      />
      <MeasureInput
        label="Roll to"
        quantity="length"
        path={`${here}.roll_to_mm`}
        value={turn.roll_to_mm}
        onChange={(v) => v !== null && set({ roll_to_mm: v }, `${here}.roll_to_mm`)}
      />
      <HowToRoll how={step.rolling} />
      <RestInput
        window={warmth?.windows.find((w) => w.stop === stop.key)}
        label="Then rest"
        path={`${here}.rest`}
        rest={turn.rest}
        onChange={(rest) => set({ rest }, `${here}.rest`)}
      />
      <dl className={classes.readouts}>
        <ClockReadout worked={worked} clock={warmth?.clocks.find((c) => c.stop === stop.key)} />
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
      <Assumptions minutesKey="minutes.turn" title="Trim, width and what may go wrong">
        <div className={classes.pair}>
          <MeasureInput
            label="Trim off both ends"
            quantity="length"
            path={`${here}.trim.ends_mm`}
            value={trim.ends_mm}
            onChange={(v) => v !== null && setTrim({ ends_mm: v }, "ends_mm")}
          />
          <MeasureInput
            label="and off both sides"
            quantity="length"
            path={`${here}.trim.sides_mm`}
            value={trim.sides_mm}
            onChange={(v) => v !== null && setTrim({ sides_mm: v }, "sides_mm")}
          />
        </div>
        {(trim.ends_mm > 0 || trim.sides_mm > 0) && (
          <Checkbox
            label="Tuck it inside"
            checked={trim.tucked}
            onChange={(e) => setTrim({ tucked: e.currentTarget.checked }, "tucked")}
          />
        )}
        {step.trimmed_g > 0.5 && (
          <small className="quiet">{say("mass", Math.round(step.trimmed_g))} saved</small>
        )}
        <MeasureInput
          label="Width first"
          quantity="length"
          path={`${here}.width_mm`}
          value={turn.width_mm}
          emptyMeans="as it comes"
          onChange={(width_mm) => set({ width_mm }, `${here}.width_mm`)}
        />
        {turn.fold === "offset_book" && !turn.stacked && (
          <MeasureInput
            label="The ends meet at"
            quantity="share"
            path={`${here}.seam_pct`}
            value={turn.seam_pct}
            help="of the length"
            onChange={(v) => v !== null && set({ seam_pct: v }, `${here}.seam_pct`)}
          />
        )}
        <MeasureInput
          label="On purpose: flaps fall short by"
          quantity="length"
          path={`${here}.short_mm`}
          value={turn.short_mm}
          help="to see what it costs"
          onChange={(v) => v !== null && set({ short_mm: v }, `${here}.short_mm`)}
        />
        <UnevenInput
          path={`${here}.uneven_pct`}
          value={turn.uneven_pct}
          onChange={(uneven_pct) => set({ uneven_pct }, `${here}.uneven_pct`)}
        />
        <OwnMinutes
          path={`${here}.bench_min`}
          value={turn.bench_min}
          onChange={(bench_min) => set({ bench_min }, `${here}.bench_min`)}
        />
      </Assumptions>
    </>
  );
}
