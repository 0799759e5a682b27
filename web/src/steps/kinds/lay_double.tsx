import { made as madeIn } from "@/api/steps";
import { sizeSaid } from "@/drawings/views";
import { Choice } from "@/measures/Choice";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepRest } from "../parts/StepParts";

const MANY = ["2", "3", "4"];

/** How many lie on each other for the knife. */
function LayDoublePanel(panel: PanelProps<"lay_double">) {
  const { step, made, set, worked } = panel;
  return (
    <>
      <Choice
        label="How many in the stack"
        tight
        value={String(step.plies)}
        options={MANY.map((value) => ({ value, label: value }))}
        onChange={(v) => set({ plies: Number(v) }, "plies")}
      />
      <Choice
        label="The sheet is"
        value={step.cut ? "cut" : "folded"}
        options={[
          { value: "folded", label: "Folded to and fro" },
          { value: "cut", label: "Cut and laid on" },
        ]}
        onChange={(how) => set({ cut: how === "cut" }, "cut")}
      />
      {made && (
        <dl className={classes.readouts}>
          <Readout worked={worked} label="Size to cut" value="" size={made.ply} />
        </dl>
      )}
      <StepRest panel={panel} label="Then rest" />
      <StepAssumes panel={panel} />
    </>
  );
}

export default kind("lay_double", {
  Glyph: ({ step }) => {
    const rows = Array.from({ length: step.plies }, (_, i) => 34 - i * 9);
    return (
      <>
        {rows.map((y) => (
          <path key={y} d={`M14,${y} H58`} stroke="var(--dough)" strokeWidth={6} />
        ))}
        {!step.cut &&
          rows
            .slice(1)
            .map((y, i) => (
              <path
                key={y}
                d={i % 2 ? `M14,${y + 9} q-6,-4.5 0,-9` : `M58,${y + 9} q6,-4.5 0,-9`}
                fill="none"
                stroke="var(--dough)"
                strokeWidth={5}
              />
            ))}
      </>
    );
  },
  facts: ({ step }) => `${step.plies} at a time`,
  above: ({ made, worked, step, stop }) => {
    const sheet = madeIn(worked, "last_sheet");
    if (!made || !sheet) return null;
    const creases = Array.from({ length: step.plies - 1 }, (_, i) => (i + 1) * made.ply.length_mm);
    const { length_mm, width_mm, thickness_mm } = sheet;
    return {
      sheet: { length_mm, width_mm, thickness_mm },
      creases,
      describe: `${stop.name}: ${step.plies} layers of ${sizeSaid(made.ply)}.`,
      caption: step.cut ? "where it is cut, to be laid on each other" : "where it is folded",
      onBench: true,
    };
  },
  Panel: LayDoublePanel,
  views: ["sheet", "warmth"],
});
