import { describe, expect, it } from "vitest";
import type { Schemas } from "@/api/client";
import { scaleBar, stackUnder } from "@/drawings/CutAcross";
import { better } from "@/rooms/plans/compare/FoldSearch";
import { clockWords, windowWords } from "@/steps/windows";

const rest = (part: Partial<Schemas["RestWindow"]>): Schemas["RestWindow"] => ({
  stop: "turn-1",
  possible_from_min: 20.1,
  good_from_min: 24.6,
  best_min: 27,
  good_until_min: 38.2,
  possible_until_min: 44,
  from_by: "relaxing",
  until_by: "brittle",
  by: null,
  chosen_min: 30,
  verdict: "good",
  middle_c: 9,
  butter_c: 10,
  reached_pct: null,
  says: "",
  ...part,
});

describe("under a rest on the strip", () => {
  it("stands its window, quietly where the plan is inside", () => {
    expect(windowWords(rest({}))).toEqual({ text: "25 min to 38 min", off: false });
    const open = { good_until_min: null, possible_until_min: null };
    expect(windowWords(rest(open))).toEqual({ text: "from 25 min", off: false });
    expect(windowWords(rest({ good_until_min: 95 })).text).toBe("25 min to 1 h 35");
  });

  it("stands a word where the plan is outside, and one where it is tight", () => {
    expect(windowWords(rest({ verdict: "short" }))).toEqual({
      text: "25 min to 38 min, too short",
      off: true,
    });
    expect(windowWords(rest({ verdict: "long" })).text).toBe("25 min to 38 min, too long");
    expect(windowWords(rest({ verdict: "tight" }))).toEqual({
      text: "25 min to 38 min, tight",
      off: false,
    });
  });

  it("falls back on what is possible, and says when nothing is", () => {
    const only = { good_from_min: null, good_until_min: null };
    expect(windowWords(rest(only)).text).toBe("20 min to 44 min");
    expect(windowWords(rest({ ...only, possible_from_min: null, verdict: "short" })).text).toBe(
      "never ready",
    );
    expect(windowWords(rest({ good_until_min: 12, verdict: "short" })).text).toBe(
      "no window, too short",
    );
  });

  it("stands nothing where anything goes", () => {
    const free = { good_from_min: 0, good_until_min: null, possible_until_min: null };
    expect(windowWords(rest(free)).text).toBe("");
  });
});

const stack = (butter: number) => ({ butter }) as Schemas["DrawnStack"];
const section = {
  length_mm: 100,
  height_um: 4000,
  columns: [
    { from_mm: 0, to_mm: 20, stack: 1 },
    { from_mm: 20, to_mm: 70, stack: 0 },
    { from_mm: 70, to_mm: 100, stack: 1 },
  ],
  stacks: [stack(27), stack(24)],
} as Schemas["LineSection"];

describe("under the loupe", () => {
  it("lies the stack that the line runs through", () => {
    expect([0, 19, 21, 70, 71, 100].map((x) => stackUnder(section, x)?.butter)).toEqual([
      24, 24, 27, 27, 24, 24,
    ]);
    expect(stackUnder(section, 100.001)?.butter).toBe(24);
  });

  it("is a bar of a round length that fits the glass at any closeness", () => {
    for (const pxPerUm of [0.001, 0.04, 0.3, 1.7, 22]) {
      const bar = scaleBar(pxPerUm);
      expect(["1", "2", "5"]).toContain(bar.toExponential().charAt(0));
      expect(bar * pxPerUm).toBeLessThanOrEqual(82 * 0.7);
      expect(bar * pxPerUm).toBeGreaterThan(82 * 0.7 * 0.39);
    }
  });
});

describe("of two suggestions", () => {
  const ranked = (...rank: number[]) => ({ rank }) as unknown as Schemas["Suggestion"];

  it("the one that ranks lower at the first difference is better", () => {
    expect(better(ranked(2, 9), ranked(3, 1))).toBeLessThan(0);
    expect(better(ranked(2, 9, 4), ranked(2, 9, 1))).toBeGreaterThan(0);
    expect(better(ranked(1, 1), ranked(1, 1))).toBe(0);
    const sorted = [ranked(3), ranked(1), ranked(2)].sort(better);
    expect(sorted.map((s) => s.rank[0])).toEqual([1, 2, 3]);
  });
});

it("says how long the butter works only where that is less than any work", () => {
  const clock = (takes_min: number, lasts_min: number | null) =>
    clockWords({ stop: "turn-1", takes_min, lasts_min, works: "yes" });
  expect(clock(8, null)).toEqual({ text: "", off: false });
  expect(clock(8, 14.4)).toEqual({ text: "butter lasts 14 min", off: false });
  expect(clock(8, 5.6)).toEqual({ text: "butter only 6 min", off: true });
  expect(clockWords(undefined).text).toBe("");
});
