import { expect, it } from "vitest";
import { put } from "@/rooms/plans/paths";

const plan = { name: "A", turns: [{ roll: 8 }, { roll: 9 }], final: { width: null, roll: 4 } };

it("puts a value in its place and leaves the rest alone", () => {
  expect(put(plan, "turns[1].roll", 12).turns).toEqual([{ roll: 8 }, { roll: 12 }]);
  expect(put(plan, "final.width", 400).final).toEqual({ width: 400, roll: 4 });
  expect(put(plan, "name", "B").name).toBe("B");
  expect(plan.turns[1]?.roll).toBe(9);
});

it("shares what it did not touch", () => {
  expect(put(plan, "turns[1].roll", 12).turns[0]).toBe(plan.turns[0]);
  expect(put(plan, "final.roll", 5).turns).toBe(plan.turns);
});
