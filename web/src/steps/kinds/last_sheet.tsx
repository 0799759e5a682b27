import { Button } from "@mantine/core";
import { stepOf } from "@/api/steps";
import { Ribbon } from "@/drawings/Ribbon";
import { useSaying } from "@/measures/likes";
import { ClockReadout } from "../parts/ClockReadout";
import { rolledGrips } from "../parts/grips";
import { HowToRoll } from "../parts/HowToRoll";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { RollToSize, RollToThickness } from "../parts/RollTo";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";

/** The last sheet. */
function LastSheetPanel(panel: PanelProps<"last_sheet">) {
  const { plan, worked, made, amend, warmth, stop, readOnly } = panel;
  const { say, leaf } = useSaying();
  return (
    <>
      <RollToThickness {...panel} to={panel.step} />
      <RollToSize {...panel} to={panel.step} />
      {made && <HowToRoll how={made.rolling} />}
      <StepRest panel={panel} label="Then let it shrink" />
      <dl className={classes.readouts}>
        <ClockReadout worked={worked} clock={warmth?.clocks.find((c) => c.stop === stop.key)} />
        {made && (
          <Readout
            worked={worked}
            of={`${stop.key}.length_mm`}
            label="Sheet length"
            value={say("length", Math.round(made.length_mm))}
          />
        )}
        <Readout
          worked={worked}
          of="layers.butter_um"
          label="Butter leaf, on average"
          value={leaf(worked.layers.butter_um)}
        />
        <Readout
          worked={worked}
          of="layers.butter_um"
          label="Dough leaf, on average"
          value={leaf(worked.layers.dough_um)}
        />
      </dl>
      {!stepOf(plan, "cut") && !readOnly && (
        <Button
          variant="default"
          onClick={() =>
            amend({ change: "add_step", ingredient: "cut", index: stop.n + 1 }, "steps")
          }
        >
          Plan the cut
        </Button>
      )}
      <StepAssumes panel={panel} title="Minutes, and what may go wrong">
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

export default kind("last_sheet", {
  Glyph: () => <Ribbon d="M0,24 H72" thick={6} />,
  facts: ({ stop }, { figure }) =>
    stop.lies &&
    `${figure("length", Math.round(stop.lies.length_mm))} × ${figure("length", Math.round(stop.lies.width_mm))}`,
  Panel: LastSheetPanel,
  terms: () => ["butter_layers", "relaxing"],
  grips: (panel, given) => (panel.made ? rolledGrips(panel, panel.made, 1, given) : {}),
  views: ["sheet", "leaves", "cut", "warmth"],
});
