import { TextInput } from "@mantine/core";
import { useContext } from "react";
import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { Choice } from "@/measures/Choice";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";

/** Something made of what the cut leaves. */
function OffcutsPanel(panel: PanelProps<"offcuts">) {
  const { step, made, at, set, worked, stop } = panel;
  const { options } = useTrade();
  const { say, words } = useSaying();
  const faults = useContext(FaultsContext);
  return (
    <>
      <TextInput
        label="What is made of them"
        maxLength={60}
        value={step.product}
        error={words(faults[`${at}.product`] ?? "")}
        onChange={(e) => set({ product: e.currentTarget.value }, "product")}
      />
      <div className={classes.pair}>
        <StepMeasure panel={panel} name="piece_g" label="One weighs" quantity="mass" />
        <StepMeasure
          panel={panel}
          name="pieces"
          label="How many"
          quantity="number"
          help="0: as many as there are"
        />
      </div>
      <Choice
        label="The strips are"
        value={step.gathered}
        options={options<Schemas["Gathered"]>("gathered")}
        onChange={(gathered) => set({ gathered }, "gathered")}
      />
      {made && (
        <dl className={classes.readouts}>
          <Readout
            worked={worked}
            of={`${stop.key}.pieces`}
            label="Pieces"
            value={String(made.pieces)}
          />
          <Readout
            worked={worked}
            label="Filling or topping in all"
            value={say("mass", made.used_g)}
          />
          <Readout worked={worked} label="Still left" value={say("mass", made.left_g)} />
        </dl>
      )}
      <StepRest panel={panel} label="Then rest" />
      <StepAssumes panel={panel} />
    </>
  );
}

export default kind("offcuts", {
  Glyph: () => (
    <>
      {[
        "M10,12 L28,9 L26,16 L11,18 Z",
        "M34,10 L58,13 L57,19 L36,16 Z",
        "M16,24 L40,22 L38,29 L18,31 Z",
        "M44,25 L64,23 L63,31 L46,33 Z",
      ].map((d) => (
        <path key={d} d={d} fill="var(--dough)" stroke="var(--dough-edge)" />
      ))}
    </>
  ),
  facts: ({ made }) => made && `${made.pieces} pieces`,
  Panel: OffcutsPanel,
});
