// @vitest-environment happy-dom
import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { stepOf } from "@/api/steps";
import { kindOf } from "@/steps/kinds";
import { Terms, Told } from "@/steps/Terms";
import { plan, serve, show } from "./screen";

const GLOSSARY = [
  { key: "step.turn", name: "Turn", says: "One roll and one fold.", also: [], forms: [] },
  { key: "fold.letter", name: "letter fold", says: "In three.", also: ["three-fold"], forms: [] },
  { key: "leaf", name: "Leaf", says: "One layer.", also: [], forms: ["leaves"] },
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

it("opens the words of a sentence, each once, and leaves everyday ones alone", async () => {
  serve({ "GET /api/glossary": () => GLOSSARY });
  const turn = stepOf(plan, "turn");
  if (!turn) throw new Error("no turn");
  const text = "After a letter fold turn it. A second letter fold, no letter folding.";
  const { hand, container } = show(<Told text={text} step={turn} />);
  const word = await screen.findByRole("button", { name: "letter fold: what it means" });
  expect(container.textContent).toContain(text);
  expect(screen.getAllByRole("button")).toHaveLength(1);
  await hand.click(word);
  expect(await screen.findByText("In three.")).toBeTruthy();
});

it("knows a word in the form it has there", async () => {
  serve({ "GET /api/glossary": () => GLOSSARY });
  const turn = stepOf(plan, "turn");
  if (!turn) throw new Error("no turn");
  show(<Told text="Fewer leaves than before." step={turn} />);
  expect(await screen.findByRole("button", { name: "leaves: what it means" })).toBeTruthy();
});

it("a name within another word is no word of the trade", async () => {
  serve({ "GET /api/glossary": () => GLOSSARY });
  const turn = stepOf(plan, "turn");
  if (!turn) throw new Error("no turn");
  const { container } = show(<Told text="A letter folder." step={turn} />);
  await new Promise((r) => setTimeout(r, 50));
  expect(container.textContent).toContain("A letter folder.");
  expect(screen.queryByRole("button")).toBeNull();
});
