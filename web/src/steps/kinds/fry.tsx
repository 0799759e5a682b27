import { span } from "@/measures/quantity";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";
import { Thing } from "../parts/Thing";

/** The fat, how hot, how long, and how many at a time. */
function FryPanel(panel: PanelProps<"fry">) {
  const { step, made, at, set, worked } = panel;
  return (
    <>
      <Thing
        label="Fried in"
        value={step.fat}
        path={`${at}.fat`}
        onChange={(fat) => set({ fat }, "fat")}
      />
      <div className={classes.pair}>
        <StepMeasure panel={panel} name="fat_c" label="Fat at" quantity="temperature" />
        <StepMeasure panel={panel} name="side_s" label="Seconds a side" quantity="number" />
        <StepMeasure panel={panel} name="at_once" label="At a time" quantity="count" />
        <dl className={classes.readouts}>
          {made && <Readout worked={worked} label="Goes" value={String(made.goes)} />}
        </dl>
      </div>
      <StepRest panel={panel} label="Then drain and cool" />
      <StepAssumes panel={panel} />
    </>
  );
}

export default kind("fry", {
  finished: true,
  Glyph: () => (
    <>
      <path d="M10,14 H62 L57,36 H15 Z" fill="none" stroke="var(--ink)" strokeWidth={2} />
      <path d="M13,22 H59 L57,34 H16 Z" fill="var(--butter)" />
      <ellipse cx={29} cy={22} rx={9} ry={5} fill="var(--crust)" />
      <ellipse cx={47} cy={23} rx={8} ry={4.5} fill="var(--crust)" />
    </>
  ),
  facts: ({ step, made }) => `${made?.goes ?? 1} × ${span(step.side_s / 30)}`,
  Panel: FryPanel,
});
