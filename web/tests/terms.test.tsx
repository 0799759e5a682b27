// @vitest-environment happy-dom
import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { stepOf } from "@/api/steps";
import { kindOf } from "@/steps/kinds";
import { Terms } from "@/steps/Terms";
import { plan, serve, show } from "./screen";

const GLOSSARY = [
  { key: "step.turn", name: "Turn", says: "One roll and one fold.", also: [] },
  { key: "fold.letter", name: "letter fold", says: "In three.", also: ["three-fold"] },
];

it("opens a word in the person's own vocabulary, drawn, with its other names", async () => {
  serve({ "GET /api/glossary": () => GLOSSARY });
  const turn = stepOf(plan, "turn");
  if (!turn) throw new Error("no turn");
  const { hand } = show(<Terms of={{ ...turn, fold: "letter" }} />, { folds: "single" });
  await hand.click(await screen.findByRole("button", { name: "Single turn: what it means" }));
  expect(await screen.findByText("In three.")).toBeTruthy();
  expect(screen.getByText("also letter fold, three-fold")).toBeTruthy();
  expect(screen.getByRole("button", { name: "Turn: what it means" })).toBeTruthy();
});

it("says nothing while the words are not known", () => {
  const turn = stepOf(plan, "turn");
  if (!turn) throw new Error("no turn");
  show(<Terms of={turn} />);
  expect(screen.queryByRole("button")).toBeNull();
  expect(kindOf("turn").terms?.(turn)).toContain(`fold.${turn.fold}`);
});
