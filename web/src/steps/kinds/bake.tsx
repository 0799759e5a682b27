import { Button, Checkbox } from "@mantine/core";
import { IconPlus, IconX } from "@tabler/icons-react";
import type { Schemas } from "@/api/client";
import { stepOf } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { Choice } from "@/measures/Choice";
import { MeasureInput } from "@/measures/MeasureInput";
import { span } from "@/measures/quantity";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";

const MOST_STAGES = 6;

/** The bake in stages, for one kind of oven, and the signs it is done by. */
function BakePanel(panel: PanelProps<"bake">) {
  const { plan, step, at, set, amend, readOnly, stop } = panel;
  const { bake } = step;
  const { options } = useTrade();
  const setBake = (part: Partial<Schemas["Bake"]>, name: string) =>
    set({ bake: { ...bake, ...part } }, `bake.${name}`);
  return (
    <>
      <Choice
        label="Oven"
        tight
        value={bake.oven}
        options={options<Schemas["Oven"]>("oven")}
        onChange={(oven) => oven !== bake.oven && amend({ change: "oven" }, `${at}.bake.oven`)}
      />
      <Stages {...panel} setBake={setBake} />
      <MeasureInput
        label="Core temperature"
        quantity="temperature"
        path={`${at}.bake.core_c`}
        value={bake.core_c}
        emptyMeans="by colour"
        onChange={(core_c) => setBake({ core_c }, "core_c")}
      />
      <MeasureInput
        label="Oven heated before to"
        quantity="temperature"
        path={`${at}.bake.preheat_c`}
        value={bake.preheat_c}
        emptyMeans="as it bakes"
        onChange={(preheat_c) => setBake({ preheat_c }, "preheat_c")}
      />
      <Choice
        label="Colour wanted"
        tight
        value={bake.colour}
        options={options<Schemas["Colour"]>("colour")}
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
        checked={step.moulded}
        onChange={(e) => set({ moulded: e.currentTarget.checked }, "moulded")}
      />
      {step.moulded && !step.sugared && (
        <StepMeasure
          panel={panel}
          name="unmould_min"
          label="Unmould after"
          quantity="time"
          emptyMeans="5 min"
        />
      )}
      <Checkbox
        label="Sugar that melts"
        checked={step.sugared}
        onChange={(e) => set({ sugared: e.currentTarget.checked }, "sugared")}
      />
      <StepRest panel={panel} label="Then cool" />
      {!stepOf(plan, "wash") && !readOnly && (
        <Button
          variant="default"
          onClick={() => amend({ change: "add_step", ingredient: "wash", index: stop.n }, "steps")}
        >
          Add a wash before the bake
        </Button>
      )}
      <StepAssumes panel={panel} />
    </>
  );
}

interface StagesProps extends PanelProps<"bake"> {
  setBake: (part: Partial<Schemas["Bake"]>, name: string) => void;
}

/** The stages of the oven, one after another. */
function Stages({ step, at, readOnly, setBake }: StagesProps) {
  const { stages } = step.bake;
  const setStage = (n: number, part: Partial<Schemas["Stage"]>, field: string) =>
    setBake(
      { stages: stages.map((s, i) => (i === n ? { ...s, ...part } : s)) },
      `stages[${n}].${field}`,
    );
  return (
    <>
      {stages.map((stage, n) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: stages have no identity but their place
        <div key={n} className={classes.stage}>
          <MeasureInput
            label={n ? `Stage ${n + 1} for` : "First stage for"}
            quantity="time"
            path={`${at}.bake.stages[${n}].minutes`}
            value={stage.minutes}
            onChange={(v) => v !== null && setStage(n, { minutes: v }, "minutes")}
          />
          <MeasureInput
            label="Oven at"
            quantity="temperature"
            path={`${at}.bake.stages[${n}].oven_c`}
            value={stage.oven_c}
            onChange={(v) => v !== null && setStage(n, { oven_c: v }, "oven_c")}
          />
          <Checkbox
            label="Steam"
            aria-label={`Steam in stage ${n + 1}`}
            checked={stage.steam}
            onChange={(e) => setStage(n, { steam: e.currentTarget.checked }, "steam")}
          />
          {stage.steam && (
            <MeasureInput
              label="Seconds of it"
              quantity="number"
              path={`${at}.bake.stages[${n}].steam_s`}
              value={stage.steam_s || null}
              emptyMeans="all the time"
              onChange={(v) => setStage(n, { steam_s: v ?? 0 }, "steam_s")}
            />
          )}
          {stages.length > 1 && !readOnly && (
            <Button
              variant="default"
              size="xs"
              leftSection={<IconX size={14} />}
              aria-label={`Take stage ${n + 1} away`}
              onClick={() => setBake({ stages: stages.toSpliced(n, 1) }, "stages")}
            >
              Take away
            </Button>
          )}
        </div>
      ))}
      {stages.length < MOST_STAGES && !readOnly && (
        <Button
          variant="default"
          size="sm"
          leftSection={<IconPlus size={16} />}
          onClick={() =>
            setBake(
              {
                stages: [
                  ...stages,
                  { ...(stages.at(-1) ?? { minutes: 8, oven_c: 180, steam_s: 0 }), steam: false },
                ],
              },
              "stages",
            )
          }
        >
          Another stage
        </Button>
      )}
    </>
  );
}

export default kind("bake", {
  finished: true,
  Glyph: () => (
    <>
      <path
        d="M10,36 V18 C10,4 62,4 62,18 V36 Z"
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.8}
      />
      <path
        d="M22,32 C25,20 47,20 50,32 Z"
        fill="var(--crust)"
        stroke="var(--crust)"
        strokeWidth={1}
      />
    </>
  ),
  facts: ({ made }) => {
    const { bake_min = 0, loads = 1 } = made ?? {};
    return `${span(bake_min)}${loads > 1 ? ` · ${loads} loads` : ""}`;
  },
  Panel: BakePanel,
});
