import { TextInput } from "@mantine/core";
import { useContext } from "react";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { kind, type PanelProps } from "../parts/props";
import { StepAssumes, StepRest, StepWords } from "../parts/StepParts";

/** The baker's own step: what it is called, what to do, how long, and its rest. */
function OwnPanel(panel: PanelProps<"own">) {
  const { step, at, set } = panel;
  const { words } = useSaying();
  const faults = useContext(FaultsContext);
  return (
    <>
      <TextInput
        label="What it is called"
        maxLength={60}
        value={step.title}
        error={words(faults[`${at}.title`] ?? "")}
        onChange={(e) => set({ title: e.currentTarget.value }, "title")}
      />
      <StepWords panel={panel} />
      <StepRest panel={panel} label="Then rest" />
      <StepAssumes panel={panel} title="Minutes, and what it is worked on" wordsHere={false} />
    </>
  );
}

export default kind("own", {
  Glyph: () => (
    <path
      d="M20,10 H52 V34 H20 Z M27,18 H45 M27,25 H40"
      fill="var(--surface)"
      stroke="var(--dough-edge)"
      strokeWidth={2}
    />
  ),
  facts: ({ stop }) => span(stop.bench_min),
  Panel: OwnPanel,
  views: ["sheet", "warmth"],
});
