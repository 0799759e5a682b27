import { Button } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { turnIndex } from "@/drawings/views";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { otherFoldName } from "@/measures/words";
import { Assumptions } from "../Assumptions";
import { Readout } from "../Readout";
import { RestInput } from "../RestInput";
import { addTurn, removeTurn } from "../turns";
import { OwnMinutes } from "./OwnMinutes";
import classes from "./panels.module.css";
import type { PanelProps } from "./props";

const FOLDS: Schemas["Fold"][] = ["letter", "book", "half"];
const TIMES: Record<Schemas["Fold"], number> = { half: 2, letter: 3, book: 4 };

/** One turn: the fold, the roll and the rest. */
export function TurnPanel({ stop, plan, worked, change, select }: PanelProps) {
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
