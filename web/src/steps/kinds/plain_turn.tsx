import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { foldPath } from "@/drawings/Ribbon";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { rolledGrips } from "../parts/grips";
import { HowToRoll } from "../parts/HowToRoll";
import { kind, type PanelProps } from "../parts/props";
import { RollToSize, RollToThickness } from "../parts/RollTo";
import { StepAssumes, StepRest } from "../parts/StepParts";

/** A turn of the dough alone, before the butter. */
function PlainTurnPanel(panel: PanelProps<"plain_turn">) {
  const { step, made, set } = panel;
  const { foldTitle } = useSaying();
  const { words } = useTrade();
  return (
    <>
      <Choice
        label="Fold"
        value={step.fold}
        onChange={(fold) => set({ fold }, "fold")}
        options={(words.fold ?? []).map(({ value }) => ({
          value: value as Schemas["Fold"],
          label: foldTitle(value),
        }))}
      />
      <RollToThickness {...panel} made={made?.rolled} to={step} />
      {made && <HowToRoll how={made.rolling} />}
      <StepRest panel={panel} label="Then rest" />
      <StepAssumes panel={panel} title="Size, minutes, and what it is worked on">
        <RollToSize {...panel} made={made?.rolled} to={step} />
      </StepAssumes>
    </>
  );
}

export default kind("plain_turn", {
  Glyph: ({ step }) => {
    const d = foldPath(step.fold);
    return (
      <>
        <path d={d} fill="none" stroke="var(--dough-edge)" strokeWidth={7.6} />
        <path d={d} fill="none" stroke="var(--dough)" strokeWidth={6} />
      </>
    );
  },
  facts: ({ made }, { figure }) =>
    made &&
    [made.folded.length_mm, made.folded.width_mm]
      .map((mm) => figure("length", Math.round(mm)))
      .join(" × "),
  Panel: PlainTurnPanel,
  terms: ({ fold }) => [`fold.${fold}`, "relaxing"],
  // what lies on its side there is dough alone: only its edges are taken hold of
  grips: (panel, given) =>
    panel.made ? { above: rolledGrips(panel, panel.made.rolled, 1, given).above } : {},
  views: ["sheet", "warmth"],
});
