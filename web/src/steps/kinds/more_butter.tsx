import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";

/** A part of the butter that goes in at the next fold. */
function MoreButterPanel(panel: PanelProps<"more_butter">) {
  const { step, made, set, stop, worked } = panel;
  const { options } = useTrade();
  const { say } = useSaying();
  return (
    <>
      <StepMeasure
        panel={panel}
        name="share_pct"
        label="Of all the butter"
        quantity="share"
        help="kept back from the lock-in"
      />
      <Choice
        label="State of the butter"
        value={step.state}
        options={options<Schemas["ButterState"]>("butter_state")}
        onChange={(state) => set({ state }, "state")}
      />
      {made && (
        <dl className={classes.readouts}>
          <Readout
            worked={worked}
            of={`${stop.key}.grams`}
            label="Goes in now"
            value={say("mass", made.grams)}
          />
          <Readout worked={worked} label="In it before" value={say("mass", made.before_g)} />
        </dl>
      )}
      <StepRest panel={panel} label="Then rest" />
      <StepAssumes panel={panel} />
    </>
  );
}

export default kind("more_butter", {
  Glyph: () => (
    <>
      <path d="M8,34 H64" stroke="var(--dough)" strokeWidth={8} />
      {[14, 26, 38, 50].map((x) => (
        <path
          key={x}
          d={`M${x},26 l9,-4 M${x + 2},17 l8,3`}
          stroke="var(--butter-edge)"
          strokeWidth={3.4}
          strokeLinecap="round"
        />
      ))}
    </>
  ),
  facts: ({ made }, { say }) => made && say("mass", made.grams),
  Panel: MoreButterPanel,
  views: ["sheet", "warmth"],
});
