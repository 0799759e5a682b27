import { Button, Checkbox, NativeSelect } from "@mantine/core";
import { IconPlus, IconX } from "@tabler/icons-react";
import type { Schemas } from "@/api/client";
import { Choice } from "@/measures/Choice";
import { MeasureInput } from "@/measures/MeasureInput";
import { restIn } from "../rests";
import classes from "./panels.module.css";
import type { PanelProps } from "./props";
import { WASHES } from "./WashPanel";

const COLOURS: { value: Schemas["Colour"]; label: string }[] = [
  { value: "pale", label: "Pale" },
  { value: "golden", label: "Golden" },
  { value: "deep", label: "Deep" },
];

/** The bake in stages, for one kind of oven, and the signs it is done by. */
export function BakePanel({ plan, change, amend, readOnly }: PanelProps) {
  const { finish } = plan;
  if (!finish) return null;
  const { bake } = finish;
  const set = (part: Partial<Schemas["Finish"]>, path: string) =>
    change({ ...plan, finish: { ...finish, ...part } }, path);
  const setBake = (part: Partial<Schemas["Bake"]>, path: string) =>
    set({ bake: { ...bake, ...part } }, `finish.bake.${path}`);
  const setStage = (n: number, part: Partial<Schemas["Stage"]>, field: string) =>
    setBake(
      { stages: bake.stages.map((s, i) => (i === n ? { ...s, ...part } : s)) },
      `stages[${n}].${field}`,
    );
  return (
    <>
      <Choice
        label="Oven"
        tight
        value={bake.oven}
        options={[
          { value: "deck", label: "Deck" },
          { value: "fan", label: "Fan" },
        ]}
        onChange={(oven) => oven !== bake.oven && amend({ change: "oven" }, "finish.bake.oven")}
      />
      {bake.stages.map((stage, n) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: stages have no identity but their place
        <div key={n} className={classes.stage}>
          <MeasureInput
            label={n ? "then" : "First"}
            quantity="time"
            path={`finish.bake.stages[${n}].minutes`}
            value={stage.minutes}
            onChange={(v) => v !== null && setStage(n, { minutes: v }, "minutes")}
          />
          <MeasureInput
            label="at"
            quantity="temperature"
            path={`finish.bake.stages[${n}].oven_c`}
            value={stage.oven_c}
            onChange={(v) => v !== null && setStage(n, { oven_c: v }, "oven_c")}
          />
          <Checkbox
            label="Steam"
            aria-label={`Steam in stage ${n + 1}`}
            checked={stage.steam}
            onChange={(e) => setStage(n, { steam: e.currentTarget.checked }, "steam")}
          />
          {bake.stages.length > 1 && !readOnly && (
            <Button
              variant="default"
              size="xs"
              leftSection={<IconX size={14} />}
              aria-label={`Take stage ${n + 1} away`}
              onClick={() => setBake({ stages: bake.stages.toSpliced(n, 1) }, "stages")}
            >
              Take away
            </Button>
          )}
        </div>
      ))}
      {bake.stages.length < 6 && !readOnly && (
        <Button
          variant="default"
          size="sm"
          leftSection={<IconPlus size={16} />}
          onClick={() =>
            setBake(
              {
                stages: [
                  ...bake.stages,
                  { ...(bake.stages.at(-1) ?? { minutes: 8, oven_c: 180 }), steam: false },
                ],
              },
              "stages",
            )
          }
        >
          Another stage
        </Button>
      )}
      <div className={classes.pair}>
        <MeasureInput
          label="Middle of a piece"
          quantity="temperature"
          path="finish.bake.core_c"
          value={bake.core_c}
          emptyMeans="by colour"
          onChange={(core_c) => setBake({ core_c }, "core_c")}
        />
        <MeasureInput
          label="Cools for"
          quantity="time"
          path="finish.cool.minutes"
          value={finish.cool?.minutes}
          emptyMeans="not timed"
          onChange={(m) => set({ cool: m ? restIn("bench", m) : null }, "finish.cool")}
        />
      </div>
      <Choice
        label="Colour wanted"
        tight
        value={bake.colour}
        options={COLOURS}
        onChange={(colour) => setBake({ colour }, "colour")}
      />
      <Checkbox
        label="Turn the tray half-way"
        checked={bake.turn_tray}
        onChange={(e) => setBake({ turn_tray: e.currentTarget.checked }, "turn_tray")}
      />
      <Checkbox
        label="Dock it"
        checked={bake.docked}
        onChange={(e) => setBake({ docked: e.currentTarget.checked }, "docked")}
      />
      <Checkbox
        label="In moulds or rings"
        checked={finish.moulded}
        onChange={(e) => set({ moulded: e.currentTarget.checked }, "finish.moulded")}
      />
      <Checkbox
        label="Sugar that melts"
        checked={finish.sugared}
        onChange={(e) => set({ sugared: e.currentTarget.checked }, "finish.sugared")}
      />
      {finish.wash === "none" && (
        <NativeSelect
          label="Wash before it"
          value="none"
          data={WASHES}
          onChange={(e) => set({ wash: e.currentTarget.value as Schemas["Wash"] }, "finish.wash")}
        />
      )}
    </>
  );
}
