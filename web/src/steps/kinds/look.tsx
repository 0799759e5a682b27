import { Button } from "@mantine/core";
import { made, type Plan, stopOf, type Worked } from "@/api/steps";
import { useSaying } from "@/measures/likes";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes } from "../parts/StepParts";

/** The plan as far as its cut: without its proof, its oven and all that follows. */
export const endedAtCut = (plan: Plan, worked: Worked): Plan => ({
  ...plan,
  steps: plan.steps.filter((_, n) => worked.strip[n]?.chapter !== "oven"),
});

/** What is looked at when it is cool, and the way out of a plan that ends with the cut. */
function LookPanel(panel: PanelProps<"look">) {
  const { plan, worked, change, select, readOnly } = panel;
  const { say } = useSaying();
  return (
    <>
      <p className={classes.said}>
        Write the verdict in the book, with weights before and after the oven, and pictures.
      </p>
      <dl className={classes.readouts}>
        {made(worked, "cut")?.products.map((p, n) => (
          <Readout
            // biome-ignore lint/suspicious/noArrayIndexKey: products have no identity but their place
            key={n}
            worked={worked}
            label={`${p.name}, raw`}
            value={say("mass", p.filled_g)}
          />
        ))}
      </dl>
      {!readOnly && (
        <Button
          variant="default"
          onClick={() => {
            select(stopOf(worked, "cut")?.key ?? "");
            change(endedAtCut(plan, worked), "steps");
          }}
        >
          End this plan with the cut
        </Button>
      )}
      <StepAssumes panel={panel} />
    </>
  );
}

export default kind("look", {
  finished: true,
  Glyph: () => (
    <>
      <path
        d="M10,32 C14,10 58,10 62,32 Z"
        fill="var(--dough)"
        stroke="var(--crust)"
        strokeWidth={2.4}
      />
      <path
        d="M20,29 q4,-8 9,-1 M32,28 q4,-12 9,0 M45,29 q4,-7 8,0"
        fill="none"
        stroke="var(--crust)"
        strokeWidth={1.4}
      />
    </>
  ),
  facts: () => "and write it down",
  Panel: LookPanel,
});
