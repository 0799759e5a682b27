import { CoilDrawn, spiral } from "@/drawings/CoilDrawn";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { said } from "@/measures/quantity";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";

/** From which side the sheet is rolled up; the cut slices the coil. */
function RollUpPanel(panel: PanelProps<"roll_up">) {
  const { step, made, set, worked, stop } = panel;
  const { say } = useSaying();
  return (
    <>
      <Choice
        label="Rolled up"
        value={step.across ? "across" : "along"}
        options={[
          { value: "along", label: "Along the sheet" },
          { value: "across", label: "Across the sheet" },
        ]}
        onChange={(v) => set({ across: v === "across" }, "across")}
      />
      {made && (
        <dl className={classes.readouts}>
          <Readout
            worked={worked}
            of={`${stop.key}.diameter_mm`}
            label="Through"
            value={say("length", Math.round(made.diameter_mm))}
          />
          <Readout worked={worked} label="Long" value={say("length", Math.round(made.length_mm))} />
          <Readout worked={worked} label="Times rolled round" value={said(made.rounds)} />
        </dl>
      )}
      <StepRest panel={panel} label="Then rest" />
      <StepAssumes panel={panel}>
        <StepMeasure
          panel={panel}
          name="core_mm"
          label="Rolled round a core of"
          quantity="length"
        />
      </StepAssumes>
    </>
  );
}

export default kind("roll_up", {
  Glyph: () => (
    <>
      <circle cx={36} cy={22} r={16} fill="var(--dough)" />
      <path d={spiral(36, 22, 1, 15, 3)} fill="none" stroke="var(--dough-edge)" strokeWidth={2} />
    </>
  ),
  facts: ({ made }, { say }) => made && `${say("length", Math.round(made.diameter_mm))} through`,
  Sheet: ({ made, step }) =>
    made && (
      <CoilDrawn
        length_mm={made.length_mm}
        diameter_mm={made.diameter_mm}
        rounds={made.rounds}
        core_mm={step.core_mm}
      />
    ),
  Panel: RollUpPanel,
  views: ["sheet", "warmth"],
});
