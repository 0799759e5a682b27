import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";

/** What a preferment takes of the formula, and how long it ripens. */
function PrefermentPanel(panel: PanelProps<"preferment">) {
  const { stop, step, made, worked, set } = panel;
  const { say } = useSaying();
  const { options } = useTrade();
  const share = (
    label: string,
    name: "flour_pct" | "hydration_pct" | "yeast_pct",
    help: string | undefined,
  ) => <StepMeasure panel={panel} name={name} label={label} quantity="percent" help={help} />;
  return (
    <>
      <Choice
        label="Kind"
        tight
        value={step.kind}
        options={options<Schemas["PrefermentKind"]>("preferment")}
        onChange={(kind) => set({ kind }, "kind")}
      />
      {share("Flour in it", "flour_pct", "of all flour")}
      {share(
        "Its hydration",
        "hydration_pct",
        made && `${made.liquid_share_pct.toFixed(0)} % of the liquid`,
      )}
      {share("Yeast in it", "yeast_pct", "of all yeast")}
      {made && (
        <dl className={classes.readouts}>
          <Readout
            worked={worked}
            of={`${stop.key}.tub_l`}
            label="Tub, at least"
            value={`${made.tub_l.toFixed(1)} l`}
          />
          <Readout worked={worked} label="In all" value={say("mass", Math.round(made.total_g))} />
        </dl>
      )}
      <StepRest panel={panel} label="Ripens" />
      <StepAssumes panel={panel} />
    </>
  );
}

export default kind("preferment", {
  Glyph: () => (
    <>
      <path d="M22,20 H50 V36 H22 Z" fill="var(--dough)" />
      <path d="M18,8 H22 V36 H50 V8 H54" fill="none" stroke="var(--dough-edge)" strokeWidth={2} />
      <path d="M22,20 q7,-7 14,0 t14,0" fill="var(--dough)" stroke="var(--dough-edge)" />
    </>
  ),
  facts: ({ made }, { say }) => made && say("mass", Math.round(made.total_g)),
  Panel: PrefermentPanel,
});
