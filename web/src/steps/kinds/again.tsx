import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";
import { Thing } from "../parts/Thing";

/** What goes in or on each, and the second bake. */
function AgainPanel(panel: PanelProps<"again">) {
  const { step, made, at, set, worked } = panel;
  const { say } = useSaying();
  return (
    <>
      <Thing
        label="Filled or topped with"
        value={step.what}
        path={`${at}.what`}
        onChange={(what) => set({ what }, "what")}
      />
      <div className={classes.pair}>
        <StepMeasure panel={panel} name="grams" label="On each" quantity="mass" />
        <StepMeasure panel={panel} name="of_pct" label="Share of the pieces" quantity="share" />
        <StepMeasure panel={panel} name="minutes" label="Baked for" quantity="time" />
        <StepMeasure panel={panel} name="oven_c" label="at" quantity="temperature" />
      </div>
      {made && (
        <dl className={classes.readouts}>
          <Readout worked={worked} label="Pieces" value={String(made.pieces)} />
          <Readout
            worked={worked}
            label="Filling or topping in all"
            value={say("mass", made.takes_g)}
          />
        </dl>
      )}
      <StepRest panel={panel} label="Then cool" />
      <StepAssumes panel={panel} />
    </>
  );
}

export default kind("again", {
  Glyph: () => (
    <>
      <path d="M14,34 q22,-16 44,0 z" fill="var(--crust)" stroke="var(--ink)" />
      <path
        d="M24,18 q4,-6 0,-12 M36,18 q4,-6 0,-12 M48,18 q4,-6 0,-12"
        fill="none"
        stroke="var(--quiet)"
        strokeWidth={2}
      />
    </>
  ),
  facts: ({ step }) => span(step.minutes),
  Panel: AgainPanel,
});
