import { expect, it } from "vitest";
import type { Schemas } from "@/api/client";
import { begin, edit, redo, undo } from "@/drafts/history";
import { addTurn, removeTurn } from "@/plans/turns";

const plan = (mass_g: number): Schemas["Plan"] => ({
  name: "Station croissant",
  family: "croissant",
  dough: { mass_g, density_kg_m3: 1120 },
  butter: { mass_g: 650, ingredient: "butter-table", flour_pct: 0, fold_back: 0 },
  lock_in: {
    method: "half",
    block_width_mm: 300,
    block_length_mm: 230,
    margin_mm: 0,
    overlap_mm: 0,
    off_centre_mm: 0,
    lump_mm: 20,
  },
  turns: [
    {
      fold: "letter",
      roll_to_mm: 8,
      stacked: false,
      seam_pct: 200 / 3,
      short_mm: 0,
      uneven_pct: 0,
    },
  ],
  final: { roll_to_mm: 4, uneven_pct: 0 },
  words: "",
  format: "eight-turn/plan",
  version: 2,
});

it("takes the keystrokes in one field as one step to undo", () => {
  let history = begin(plan(2400));
  for (const [i, mass] of [2, 26, 260, 2600].entries()) {
    history = edit(history, plan(mass), "dough.mass_g", i * 100);
  }
  expect(undo(history).present.dough.mass_g).toBe(2400);
});

it("keeps edits of other fields, and later edits of the same, apart", () => {
  let history = edit(begin(plan(2400)), plan(2500), "dough.mass_g", 0);
  history = edit(history, plan(2600), "dough.mass_g", 5000);
  history = edit(history, plan(2700), "butter.mass_g", 5100);
  expect(undo(history).present.dough.mass_g).toBe(2600);
  expect(undo(undo(history)).present.dough.mass_g).toBe(2500);
});

it("goes forth again what it went back, until something new is done", () => {
  const history = edit(begin(plan(2400)), plan(2500), "a", 0);
  expect(redo(undo(history)).present.dough.mass_g).toBe(2500);
  const other = edit(undo(history), plan(2200), "b", 1);
  expect(redo(other)).toBe(other);
});

it("does not count an edit that changes nothing", () => {
  const history = begin(plan(2400));
  expect(edit(history, plan(2400), "a", 0)).toBe(history);
  expect(undo(history)).toBe(history);
});

it("adds a turn like the one before, and takes one away", () => {
  const two = addTurn(
    { ...plan(1), turns: plan(1).turns.map((t) => ({ ...t, fold: "book" as const })) },
    1,
  );
  expect(two.turns.map((t) => t.fold)).toEqual(["book", "book"]);
  expect(removeTurn(two, 0).turns).toHaveLength(1);
  expect(addTurn({ ...plan(1), turns: [] }, 0).turns[0]?.fold).toBe("letter");
});
