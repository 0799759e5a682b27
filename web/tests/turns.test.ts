import { expect, it } from "vitest";
import { restIn } from "@/plans/rests";
import { addTurn, removeTurn } from "@/plans/turns";

const turn = (roll_to_mm: number) =>
  ({ fold: "letter", roll_to_mm, rest: restIn("fridge", 30) }) as never;
const plan = (...mm: number[]) => ({ turns: mm.map(turn) }) as never;
const rolls = (of: { turns: { roll_to_mm: number }[] }) => of.turns.map((t) => t.roll_to_mm);

it("adds a turn like the one before it, where it is wanted", () => {
  expect(rolls(addTurn(plan(8, 9), 2))).toEqual([8, 9, 9]);
  expect(rolls(addTurn(plan(8, 9), 1))).toEqual([8, 8, 9]);
});

it("adds a usual turn to a plan that has none", () => {
  const [fresh] = addTurn(plan(), 0).turns;
  expect(fresh?.fold).toBe("letter");
  expect(fresh?.rest).toEqual({ place: "fridge", minutes: 30, on: "usual", iced: false });
});

it("takes away the turn that is meant, and leaves the plan it was given", () => {
  const before = plan(8, 9, 10);
  expect(rolls(removeTurn(before, 1))).toEqual([8, 10]);
  expect(rolls(before as never)).toEqual([8, 9, 10]);
});
