import { expect, it } from "vitest";
import { notchesIn, outlineKey, outlinePath } from "@/drawings/views";

const corner = (x_mm: number, y_mm: number) => ({ x_mm, y_mm });
const plan = (...products: object[]) => ({ steps: [{ do: "cut", products }] }) as never;
const horn = { shape: "triangle", notch_mm: 28 };
const row = (product: number, ...marks: { across_mm: number; along_mm: number[] }[]) => ({
  product,
  from_mm: 0,
  to_mm: 90,
  marks,
});
const oval = { x_mm: 45, y_mm: 50, half_along_mm: 44, half_across_mm: 45, hole: 0.5 };
const same = (mm: number) => mm;

it("draws what has corners by its corners", () => {
  const square = [corner(0, 0), corner(10, 0), corner(10, 10), corner(0, 10)];
  expect(outlinePath(square, same, same)).toBe("M0.0,0.0L10.0,0.0L10.0,10.0L0.0,10.0Z");
});

it("draws what is round in its own two sizes, and its hole as a share of them", () => {
  const path = outlinePath(oval, same, same);
  expect(path).toContain("A44.0,45.0");
  expect(path).toContain("A22.0,22.5");
  expect(outlinePath({ ...oval, hole: 0 }, same, same).match(/M/g)).toHaveLength(1);
});

it("tells one outline from the next", () => {
  expect(outlineKey(oval)).not.toBe(outlineKey({ ...oval, x_mm: 135 }));
});

it("notches a triangle from the middle of its base towards its tip", () => {
  const cut = {
    products: [],
    outlines: [
      [corner(0, 280), corner(90, 280), corner(45, 0)],
      [corner(45, 0), corner(135, 0), corner(90, 280)],
    ],
    rows: [
      row(0, { across_mm: 0, along_mm: [0, 45, 90] }, { across_mm: 280, along_mm: [0, 45, 90] }),
    ],
  };
  const notches = notchesIn(plan(horn), cut as never);
  expect(notches.map((n) => n.from)).toEqual([corner(45, 280), corner(90, 0)]);
  expect(notches[0]?.to.y_mm).toBeCloseTo(252);
  expect(notches[1]?.to.y_mm).toBeCloseTo(28);
});

it("counts on from row to row, so that each piece has its own", () => {
  const cut = {
    products: [],
    outlines: [oval, [corner(0, 380), corner(90, 380), corner(45, 100)]],
    rows: [
      row(0, { across_mm: 45, along_mm: [45] }),
      row(1, { across_mm: 100, along_mm: [0, 90] }, { across_mm: 380, along_mm: [0, 90] }),
    ],
  };
  const found = notchesIn(plan({ shape: "ring", notch_mm: 0 }, horn), cut as never);
  expect(found.map((n) => n.from)).toEqual([corner(45, 380)]);
});

it("notches nothing that has no notch", () => {
  const cut = { products: [], outlines: [[]], rows: [row(0, { across_mm: 0, along_mm: [0, 90] })] };
  expect(notchesIn(plan({ shape: "square", notch_mm: 0 }), cut as never)).toEqual([]);
});

it("draws the cuts into a square in the first of them", () => {
  const at = (x: number) => [corner(x, 0), corner(x + 90, 0), corner(x + 90, 90), corner(x, 90)];
  const slit = { from_x_mm: 0, from_y_mm: 0, to_x_mm: 30, to_y_mm: 30 };
  const cut = {
    products: [{ slits: [slit] }],
    outlines: [at(0), at(90)],
    rows: [
      row(0, { across_mm: 0, along_mm: [0, 90, 180] }, { across_mm: 90, along_mm: [0, 90, 180] }),
    ],
  } as never;
  expect(notchesIn(plan({ shape: "square", notch_mm: 0 }), cut)).toEqual([
    { from: corner(0, 0), to: corner(30, 30) },
  ]);
});
