import { Button, Checkbox } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { type Plan, stepsOf } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";

const MOST_PREFERMENTS = 3;

/** The mixing day: water, programme, what is set the day before, and old dough fed back. */
function MixPanel(panel: PanelProps<"mix">) {
  const { plan, worked, made, amend, readOnly, step, set, stop } = panel;
  const { say } = useSaying();
  const { options } = useTrade();
  const water = made?.water;
  return (
    <>
      {plan.formula && !readOnly && stepsOf(plan, "preferment").length < MOST_PREFERMENTS && (
        <div className={classes.adds}>
          {(["poolish", "sponge", "sourdough"] as const).map((preferment) => (
            <Button
              key={preferment}
              variant="default"
              px={6}
              onClick={() => amend({ change: "add_preferment", preferment }, "steps")}
            >
              {`Add a ${preferment}`}
            </Button>
          ))}
        </div>
      )}
      <div className={classes.pair}>
        <StepMeasure panel={panel} name="wanted_c" label="Dough wanted at" quantity="temperature" />
        <StepMeasure
          panel={panel}
          name="flour_c"
          label="Flour is at"
          quantity="temperature"
          emptyMeans="as the room"
        />
        <StepMeasure panel={panel} name="tap_c" label="Tap runs at" quantity="temperature" />
        <dl className={classes.readouts}>
          {water && (
            <Readout
              worked={worked}
              of={`${stop.key}.water.water_c`}
              label={water.ice_g > 0 ? "Ice" : water.of === "milk" ? "Milk" : "Water"}
              value={
                water.ice_g > 0
                  ? say("mass", Math.round(water.ice_g))
                  : say("temperature", water.water_c)
              }
            />
          )}
        </dl>
        <StepMeasure panel={panel} name="slow_min" label="Slow" quantity="time" />
        <StepMeasure panel={panel} name="fast_min" label="Fast" quantity="time" />
      </div>
      {water && made.liquids.length > 1 && (
        <Choice
          label="The dough's temperature is set by"
          tight
          value={water.of}
          options={options<Schemas["Liquid"]>("liquid")}
          onChange={(sets) => set({ sets }, "sets")}
        />
      )}
      <Checkbox
        label="Mixed by hand"
        checked={step.by_hand}
        onChange={(e) => set({ by_hand: e.currentTarget.checked }, "by_hand")}
      />
      <Choice
        label="Developed"
        tight
        value={step.development}
        options={options<Schemas["Development"]>("development")}
        onChange={(development) => set({ development }, "development")}
      />
      <StepRest panel={panel} label="Then rest" />
      {plan.formula && <Fed {...panel} />}
      <StepAssumes panel={panel}>
        {plan.formula && !readOnly && (
          <Button variant="default" onClick={() => amend({ change: "drop_formula" }, "formula")}>
            Remove the formula
          </Button>
        )}
      </StepAssumes>
    </>
  );
}

/** What of an old dough is fed back, and whether only whole eggs are cracked. */
function Fed({ plan, change }: PanelProps<"mix">) {
  if (!plan.formula) return null;
  const { old_dough } = plan.formula;
  const put = (part: Partial<NonNullable<Plan["formula"]>>, path: string) =>
    plan.formula && change({ ...plan, formula: { ...plan.formula, ...part } }, `formula.${path}`);
  return (
    <>
      <MeasureInput
        label="Old dough fed back"
        quantity="share"
        path="formula.old_dough.share_pct"
        value={old_dough?.share_pct ?? null}
        emptyMeans="none"
        help="share of the new dough"
        onChange={(share_pct) =>
          put(
            { old_dough: share_pct ? { laminated: true, ...old_dough, share_pct } : null },
            "old_dough.share_pct",
          )
        }
      />
      {old_dough && (
        <Checkbox
          label="Trimmings, with their butter"
          checked={old_dough.laminated}
          onChange={(e) =>
            put(
              { old_dough: { ...old_dough, laminated: e.currentTarget.checked } },
              "old_dough.laminated",
            )
          }
        />
      )}
      <Checkbox
        label="Whole eggs only"
        checked={plan.formula.whole_eggs}
        onChange={(e) => put({ whole_eggs: e.currentTarget.checked }, "whole_eggs")}
      />
    </>
  );
}

export default kind("mix", {
  Glyph: () => (
    <>
      <path d="M14,16 H58 C58,30 50,38 36,38 S14,30 14,16 Z" fill="var(--dough)" />
      <path
        d="M12,16 H60 M14,16 C14,30 22,38 36,38 S58,30 58,16"
        fill="none"
        stroke="var(--dough-edge)"
        strokeWidth={2}
      />
      <path d="M36,4 V18 q0,9 9,7" fill="none" stroke="var(--dough-edge)" strokeWidth={3} />
    </>
  ),
  facts: ({ plan }, { say }) => say("mass", Math.round(plan.dough.mass_g)),
  Panel: MixPanel,
});
