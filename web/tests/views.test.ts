import { describe, expect, it } from "vitest";
import type { Schemas } from "@/api/client";
import { aboveAt, sideAt } from "@/drawings/views";

const size = (length_mm: number, width_mm: number, thickness_mm: number) => ({
  length_mm,
  width_mm,
  thickness_mm,
});
const section = (n: number) => ({ bottom: "dough", thickness_um: Array(n).fill(100), whole: true });

const worked = {
  slab: size(460, 300, 15.5),
  lock_in: {
    block: size(230, 300, 10),
    dough_sheet: size(460, 300, 15.5),
    package: size(230, 300, 41.1),
    creases_mm: [230],
    layers: { butter: 1 },
    section: section(3),
  },
  steps: [
    {
      fold: "letter",
      rolled: size(1540, 230, 8),
      folded: size(513, 230, 24),
      creases_mm: [513, 1027],
      layers: { butter: 3 },
      section: section(7),
    },
  ],
  layers: { butter: 3 },
  final: { ...size(1771, 400, 4), turned: true, section: section(7) },
  cut: { pieces: 2, outlines: [[{ x_mm: 0, y_mm: 0 }], [{ x_mm: 45, y_mm: 0 }]], rows: [] },
} as unknown as Schemas["WorkedPlan"];

const plan = {
  lock_in: { method: "half", margin_mm: 5 },
  cut: { products: [{ shape: "triangle" }] },
} as unknown as Schemas["Plan"];

const at = (kind: string, key = kind) =>
  ({ kind, key, name: kind === "turn" ? "Turn 1" : kind }) as unknown as Schemas["Stop"];

describe("the sheet from above", () => {
  it("shows the block on the dough at the lock-in, with its margin", () => {
    const view = aboveAt(at("lock_in"), plan, worked);
    expect(view.sheet.length_mm).toBe(460);
    expect(view.block).toMatchObject({ width_mm: 300, margin_mm: 5, method: "half" });
    expect(view.describe).toContain("460 by 300 mm");
    expect(view.onBench).toBe(false);
  });

  it("shows a turn rolled out, with its creases and its marks, on the bench", () => {
    const view = aboveAt(at("turn", "turn-1"), plan, worked);
    expect(view.sheet.length_mm).toBe(1540);
    expect(view.creases).toEqual([513, 1027]);
    expect(view.marks).toBe(1);
    expect(view.fold).toBe("letter");
    expect(view.onBench).toBe(true);
  });

  it("shows the pieces only where the sheet is cut", () => {
    expect(aboveAt(at("final"), plan, worked).outlines).toBeUndefined();
    const cut = aboveAt(at("cut"), plan, worked);
    expect(cut.outlines).toHaveLength(2);
    expect(cut.describe).toContain("cut into 2 pieces");
  });

  it("says in words what it draws, at every stop", () => {
    for (const stop of [at("dough"), at("lock_in"), at("turn", "turn-1"), at("final"), at("cut")]) {
      expect(aboveAt(stop, plan, worked).describe).toMatch(/mm.*thick.*\.$/);
    }
  });
});

describe("the stack from the side", () => {
  it("is the package after a fold and the sheet after the last roll", () => {
    expect(sideAt(at("dough"), worked).size.thickness_mm).toBe(41.1);
    expect(sideAt(at("turn", "turn-1"), worked)).toMatchObject({
      state: "folded",
      size: { thickness_mm: 24 },
    });
    expect(sideAt(at("cut"), worked)).toMatchObject({ state: "rolled", size: { thickness_mm: 4 } });
  });
});
