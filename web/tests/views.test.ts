import { describe, expect, it } from "vitest";
import type { Schemas } from "@/api/client";
import { aboveAt, sideAt } from "@/drawings/views";

const size = (length_mm: number, width_mm: number, thickness_mm: number) => ({
  length_mm,
  width_mm,
  thickness_mm,
});
const section = (n: number) => ({ bottom: "dough", thickness_um: Array(n).fill(100), whole: true });

const locked = {
  do: "lock_in",
  block: size(230, 300, 10),
  dough_sheet: size(460, 300, 15.5),
  package: size(230, 300, 41.1),
  creases_mm: [230],
  layers: { butter: 1 },
  section: section(3),
};
const turned = {
  do: "turn",
  fold: "letter",
  rolled: size(1540, 230, 8),
  folded: size(513, 230, 24),
  creases_mm: [513, 1027],
  layers: { butter: 3 },
  section: section(7),
};
const made: Record<string, object> = {
  dough: { do: "flatten", slab: size(460, 300, 15.5) },
  lock_in: locked,
  "turn-1": turned,
  final: { do: "last_sheet", ...size(1771, 400, 4), layers: { butter: 3 }, section: section(7) },
  cut: {
    do: "cut",
    pieces: 2,
    outlines: [[{ x_mm: 0, y_mm: 0 }], [{ x_mm: 45, y_mm: 0 }]],
    rows: [],
  },
};
const strip = ["dough", "lock_in", "turn-1", "own-1", "final", "cut"].map((key, n) => ({
  key,
  n,
  do: (made[key] as { do?: string })?.do ?? "own",
  name: key === "turn-1" ? "Turn 1" : key,
  made: made[key] ?? null,
  lies: size(513, 230, 24),
}));
const worked = { strip } as unknown as Schemas["WorkedPlan"];
const plan = {
  steps: strip.map((s) => ({
    id: s.key,
    do: s.do,
    method: "half",
    margin_mm: 5,
    off_centre_mm: 0,
    products: [{ shape: "triangle", notch_mm: 0 }],
  })),
} as unknown as Schemas["Plan"];

const at = (key: string) => worked.strip.find((s) => s.key === key) as Schemas["Stop"];

describe("the sheet from above", () => {
  it("shows the block on the dough at the lock-in, with its margin", () => {
    const view = aboveAt(at("lock_in"), plan, worked);
    expect(view.sheet.length_mm).toBe(460);
    expect(view.block).toMatchObject({ width_mm: 300, margin_mm: 5, method: "half" });
    expect(view.describe).toContain("460 by 300 mm");
    expect(view.onBench).toBe(false);
  });

  it("shows a turn rolled out, with its creases and its marks, on the bench", () => {
    const view = aboveAt(at("turn-1"), plan, worked);
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
    for (const stop of worked.strip) {
      expect(aboveAt(stop, plan, worked).describe).toMatch(/mm.*thick.*\.$/);
    }
  });
});

describe("the stack from the side", () => {
  const side = (key: string) => sideAt({ ...at(key) }, worked);

  it("is the package after a fold and the sheet after the last roll", () => {
    expect(side("dough")?.size.thickness_mm).toBe(41.1);
    expect(side("turn-1")).toMatchObject({ state: "folded", size: { thickness_mm: 24 } });
    expect(side("cut")).toMatchObject({ state: "rolled", size: { thickness_mm: 4 } });
  });

  it("stays at a step of the baker's own as it was left", () => {
    expect(side("own-1")).toMatchObject({ state: "folded", layers: { butter: 3 } });
    expect(aboveAt(at("own-1"), plan, worked).sheet.length_mm).toBe(513);
  });
});
