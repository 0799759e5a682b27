import { expect, it } from "vitest";
import type { Schemas } from "@/api/client";
import { back, begin, edit, redo, undo } from "@/drafts/history";

const plan = (mass_g: number) =>
  ({ name: "Station croissant", dough: { mass_g }, butter: { mass_g: 650 } }) as Schemas["Plan"];

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

it("takes all that is done in one hold as one step, whatever it touches and however long it takes", () => {
  let history = edit(begin(plan(2400)), plan(2500), "dough.mass_g", 0);
  history = edit(history, plan(2600), "dough.mass_g", 10, 1);
  history = edit(history, plan(2700), "butter.mass_g", 90_000, 1);
  expect(undo(history).present.dough.mass_g).toBe(2500);
  expect(back(history, 1)).toMatchObject({ present: plan(2500), future: [] });
  expect(back(history, 2)).toBe(history);
  // the next one, in the same field at once, is its own
  history = edit(history, plan(2800), "butter.mass_g", 90_010, 2);
  expect(undo(history).present.dough.mass_g).toBe(2700);
});
