import { expect, it } from "vitest";
import { stretched } from "@/finish/BakeCurve";
import { layoutWords, wantedIn } from "@/finish/LayoutSearch";
import { edgesOf, inTens } from "@/finish/Marks";
import { DRAWINGS } from "@/finish/shapingDrawings";
import { places } from "@/finish/TrayView";
import { reach } from "@/finish/WeightChart";
import { lost } from "@/rooms/book/BookRecord";

it("lists marks in tens and loses none", () => {
  const marks = Array.from({ length: 23 }, (_, i) => i);
  expect(inTens(marks).map((t) => t.length)).toEqual([10, 10, 3]);
  expect(inTens(marks).flat()).toEqual(marks);
  expect(inTens([])).toEqual([]);
});

it("lays a bake's stages end to end", () => {
  const steps = stretched([
    { minutes: 4, oven_c: 220, steam: true, steam_s: 0 },
    { minutes: 14, oven_c: 190, steam: false, steam_s: 0 },
  ]);
  expect(steps.map((s) => [s.from, s.to])).toEqual([
    [0, 4],
    [4, 18],
  ]);
});

it("says a layout in rows, and when they run across", () => {
  const laid = (across: boolean, rows: number) =>
    ({ cut: { across, products: [{ name: "Croissant", rows }] } }) as never;
  expect(layoutWords(laid(false, 1))).toBe("1 row of Croissant");
  expect(layoutWords(laid(true, 3))).toBe("3 rows of Croissant, across the sheet");
});

it("spreads the pieces over the whole tray, none over its edge", () => {
  const spread = places({ along: 4, across: 3 } as never, 600, 400);
  expect(spread).toHaveLength(12);
  expect(Math.min(...spread.map((p) => p.x))).toBe(75);
  expect(Math.max(...spread.map((p) => p.x))).toBe(525);
  const middle = spread.reduce((sum, p) => sum + p.y, 0) / 12;
  expect(middle).toBeCloseTo(200);
});

it("shows every weight and both limits", () => {
  const [low, top] = reach([50, 66], [57, 60, 63]);
  expect(low).toBeLessThan(50);
  expect(top).toBeGreaterThan(66);
  const [quiet, above] = reach([], [57, 60, 63]);
  expect(quiet).toBeLessThan(57);
  expect(above).toBeGreaterThan(63);
});

it("says what a piece lost in the oven only when it was weighed both times", () => {
  expect(lost({ words: "", before_g: 60, after_g: 51 })).toBe("It lost 15 % in the oven.");
  expect(lost({ words: "", before_g: 60 })).toBe("");
  expect(lost({ words: "", before_g: 50, after_g: 60 })).toContain("look again");
});

it("draws every step inside its frame", () => {
  for (const drawing of Object.values(DRAWINGS)) {
    expect(drawing.dough.length + (drawing.ink?.length ?? 0)).toBeGreaterThan(0);
    // absolute moves stay inside 120 × 80
    for (const d of [...drawing.dough, ...(drawing.arrows ?? [])]) {
      for (const [, x, y] of d.matchAll(/[ML](-?[\d.]+),(-?[\d.]+)/g)) {
        expect(Number(x)).toBeLessThanOrEqual(120);
        expect(Number(y)).toBeLessThanOrEqual(80);
      }
    }
  }
});

it("lists marks once where both edges are alike, and middles for round pieces", () => {
  const row = (...marks: number[][]) =>
    ({
      product: 0,
      from_mm: 0,
      to_mm: 90,
      marks: marks.map((along_mm, i) => ({ across_mm: 90 * i, along_mm })),
    }) as never;
  expect(edgesOf(row([1, 91], [1, 91])).map((e) => e.name)).toEqual(["both sides"]);
  expect(edgesOf(row([1, 91], [46, 136])).map((e) => e.name)).toEqual([
    "the straight edge",
    "far side",
  ]);
  expect(edgesOf(row([45])).map((e) => e.name)).toEqual(["middles"]);
});

it("takes what an order wants by the products' names", () => {
  const wanted = (product: string, pieces: number) => ({ product, pieces, raw_g: 60, loss_pct: 8 });
  const products = [wanted("Croissant", 40), wanted("Stick", 12), wanted("Croissant", 20)];
  const order = { order_id: 3, name: "Saturday", ready_at: null, products };
  expect(wantedIn(order, [{ name: "Croissant" }, { name: "Bun" }])).toEqual([60, 0]);
});
