import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { said } from "@/measures/quantity";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";
import { Thing } from "../parts/Thing";

/** What is strewn or spread on it, how much, and on which side. */
function StrewPanel(panel: PanelProps<"strew">) {
  const { step, made, at, set } = panel;
  const { options } = useTrade();
  const { say } = useSaying();
  return (
    <>
      <Thing
        label="What"
        value={step.what}
        path={`${at}.what`}
        onChange={(what) => set({ what }, "what")}
      />
      <StepMeasure panel={panel} name="grams" label="How much" quantity="mass" />
      <Choice
        label="Laid"
        value={step.side}
        options={options<Schemas["Strewn"]>("strewn")}
        onChange={(side) => set({ side }, "side")}
      />
      <Choice
        label="How"
        tight
        value={step.spread ? "spread" : "strewn"}
        options={[
          { value: "strewn", label: "Strewn" },
          { value: "spread", label: "Spread" },
        ]}
        onChange={(how) => set({ spread: how === "spread" }, "spread")}
      />
      {made && (
        <p className={classes.said}>
          {say("mass", made.grams)} on the whole dough, {said(made.of_dough_pct)} % of it. It is on
          the label and on the weighing sheet.
        </p>
      )}
      <StepRest panel={panel} label="Then rest" />
      <StepAssumes panel={panel} />
    </>
  );
}

const GRAINS = [12, 19, 25, 33, 38, 46, 52, 59].map((x, i) => ({ x, y: 12 + ((i * 7) % 13) }));

export default kind("strew", {
  Glyph: ({ step }) => (
    <>
      <path d="M8,34 H64" stroke="var(--dough)" strokeWidth={8} />
      {step.spread ? (
        <path
          d="M10,27 q7,-7 14,-1 t14,-1 t14,0 t10,0"
          fill="none"
          stroke="var(--crust)"
          strokeWidth={4}
        />
      ) : (
        GRAINS.map(({ x, y }) => <circle key={x} cx={x} cy={y} r={1.7} fill="var(--ink)" />)
      )}
    </>
  ),
  facts: ({ made }, { say }) => made && say("mass", made.grams),
  Panel: StrewPanel,
  views: ["sheet", "warmth"],
});
