import { describe, expect, it } from "vitest";
import type { Stop } from "@/api/steps";
import { cellsOf, gentle, halfDip, ungentle } from "@/steps/outline";

const NARROW = 104;
const strip = (...chapters: [string, number][]) =>
  chapters.flatMap(([chapter, many]) =>
    Array.from(
      { length: many },
      (_, i) => ({ key: `${chapter}-${i}`, chapter }) as unknown as Stop,
    ),
  );
const plan = strip(["before", 3], ["turns", 5], ["cut", 2], ["oven", 4]);
const wide = (cells: { width: number }[]) => cells.reduce((sum, c) => sum + c.width, 0);

describe("a strip", () => {
  it("stands open where it fits, and before anything is measured", () => {
    expect(cellsOf(plan, "turns-1", 1600, NARROW).some((c) => c.folded)).toBe(false);
    expect(cellsOf(plan, "turns-1", 0, NARROW).some((c) => c.folded)).toBe(false);
  });

  it("folds what is furthest from the chosen step, and no more than it must", () => {
    const cells = cellsOf(plan, "before-1", 1300, NARROW);
    expect(cells.map((c) => [c.stops.length, c.folded])).toEqual([
      [3, false],
      [5, false],
      [2, false],
      [1, false],
      [3, true],
    ]);
    expect(wide(cells)).toBeLessThan(1300.01);
    const middle = cellsOf(plan, "cut-0", 900, NARROW);
    expect(middle.at(0)?.folded).toBe(true);
    expect(middle.at(-1)?.folded).toBe(true);
    expect(wide(middle)).toBeGreaterThan(900 - NARROW);
  });

  it("keeps every step, once and in order, and the chosen one open, at any width", () => {
    const long = strip(["before", 8], ["turns", 14], ["cut", 3], ["oven", 5]);
    for (const width of [390, 640, 900, 1110, 1280, 1700]) {
      for (const { key } of long) {
        const cells = cellsOf(long, key, width, NARROW);
        expect(cells.flatMap((c) => c.stops)).toEqual(long);
        const here = cells.find((c) => c.stops.some((s) => s.key === key));
        expect(here?.folded).toBe(false);
        if (width >= 900) expect(wide(cells)).toBeLessThan(width + 0.01);
      }
    }
  });
});

it("draws time gently: half an hour and half a day can both be seen", () => {
  expect(ungentle(gentle(95))).toBeCloseTo(95, 9);
  const [half, night, day] = [30, 12 * 60, 30 * 60].map((min) => halfDip(min, 120));
  expect(half).toBeGreaterThan(30);
  expect(night).toBeGreaterThan((half ?? 0) + 8);
  expect(day).toBeLessThanOrEqual(0.46 * 120);
});
