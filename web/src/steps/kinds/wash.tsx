import { Button, NativeSelect } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { stopOf, withoutStep } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { StepAssumes, StepRest } from "../parts/StepParts";
import { Thing } from "../parts/Thing";

/** What is brushed on, and how often. */
function WashPanel(panel: PanelProps<"wash">) {
  const { step, made, set, stop, plan, worked, change, select, readOnly, at } = panel;
  const { options } = useTrade();
  const { say } = useSaying();
  return (
    <>
      <NativeSelect
        label="Wash"
        value={step.wash}
        data={options("wash")}
        onChange={(e) => set({ wash: e.currentTarget.value as Schemas["Wash"] }, "wash")}
      />
      <Thing
        label="Made of, if it is your own"
        placeholder="as above"
        value={step.made_of ?? ""}
        path={`${at}.made_of`}
        onChange={(made_of) => set({ made_of: made_of || null }, "made_of")}
      />
      <Choice
        label="Coats"
        tight
        value={String(step.coats)}
        options={["1", "2", "3"].map((value) => ({ value, label: value }))}
        onChange={(v) => set({ coats: Number(v) }, "coats")}
      />
      <p className={classes.said}>
        {made?.says} {made?.takes_g ? `${say("mass", made.takes_g)} for all pieces.` : ""}
      </p>
      <StepRest panel={panel} label="Then" proofer />
      {!readOnly && (
        <Button
          variant="default"
          onClick={() => {
            select(stopOf(worked, "shape")?.key ?? "");
            change(withoutStep(plan, stop.n), "steps");
          }}
        >
          Remove the wash
        </Button>
      )}
      <StepAssumes panel={panel} />
    </>
  );
}

export default kind("wash", {
  finished: true,
  Glyph: () => (
    <>
      <path d="M14,32 H58" stroke="var(--dough-edge)" strokeWidth={6} strokeLinecap="round" />
      <path d="M30,26 l4,-8 h8 l4,8 z" fill="var(--surface)" stroke="var(--ink)" />
      <path d="M38,18 V6" stroke="var(--ink)" strokeWidth={3} strokeLinecap="round" />
    </>
  ),
  facts: ({ step, made }) => `${made?.name ?? ""}${step.coats > 1 ? ` × ${step.coats}` : ""}`,
  Panel: WashPanel,
});
