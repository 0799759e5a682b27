import { expect, it } from "vitest";
import { insideCuts } from "@/drawings/views";

const corner = (x_mm: number, y_mm: number) => ({ x_mm, y_mm });
const plan = (across: boolean, ...products: object[]) => ({ cut: { across, products } }) as never;
const ring = { shape: "ring", hole_mm: 50, notch_mm: 0 };
const horn = { shape: "triangle", hole_mm: 0, notch_mm: 28 };
const row = (product: number, ...marks: { across_mm: number; along_mm: number[] }[]) => ({
  product,
  from_mm: 0,
  to_mm: 90,
  marks,
});

it("puts a hole in the middle of every ring, whichever way the rows run", () => {
  const cut = { outlines: [[], []], rows: [row(0, { across_mm: 45, along_mm: [45, 135] })] };
  expect(insideCuts(plan(false, ring), cut as never).holes).toEqual([
    { at: corner(45, 45), r_mm: 25 },
    { at: corner(135, 45), r_mm: 25 },
  ]);
  const turned = insideCuts(plan(true, ring), cut as never).holes;
  expect(turned[1]?.at).toEqual(corner(45, 135));
});

it("notches a triangle from the middle of its base towards its tip", () => {
  const cut = {
    outlines: [
      [corner(0, 280), corner(90, 280), corner(45, 0)],
      [corner(45, 0), corner(135, 0), corner(90, 280)],
    ],
    rows: [
      row(0, { across_mm: 0, along_mm: [0, 45, 90] }, { across_mm: 280, along_mm: [0, 45, 90] }),
    ],
  };
  const { notches, holes } = insideCuts(plan(false, horn), cut as never);
  expect(holes).toEqual([]);
  expect(notches.map((n) => n.from)).toEqual([corner(45, 280), corner(90, 0)]);
  expect(notches[0]?.to.y_mm).toBeCloseTo(252);
  expect(notches[1]?.to.y_mm).toBeCloseTo(28);
});

it("counts on from row to row, so that each piece has its own", () => {
  const cut = {
    outlines: [[], [corner(0, 380), corner(90, 380), corner(45, 100)]],
    rows: [
      row(0, { across_mm: 45, along_mm: [45] }),
      row(1, { across_mm: 100, along_mm: [0, 90] }, { across_mm: 380, along_mm: [0, 90] }),
    ],
  };
  const found = insideCuts(plan(false, ring, horn), cut as never);
  expect(found.holes).toHaveLength(1);
  expect(found.notches).toHaveLength(1);
  expect(found.notches[0]?.from).toEqual(corner(45, 380));
});

it("cuts nothing inside what has no hole and no notch", () => {
  const plain = { shape: "square", hole_mm: 0, notch_mm: 0 };
  const cut = {
    outlines: [[]],
    rows: [row(0, { across_mm: 0, along_mm: [0, 90] }, { across_mm: 90, along_mm: [0, 90] })],
  };
  expect(insideCuts(plan(false, plain), cut as never)).toEqual({ holes: [], notches: [] });
});
