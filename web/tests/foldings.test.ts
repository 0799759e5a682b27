import { expect, it } from "vitest";
import { panelsAt } from "@/drawings/foldings";
import { alike } from "@/rooms/plans/compare/facts";

const letter = [
  { at_mm: 200, flap: "high" as const },
  { at_mm: 100, flap: "low" as const },
];
const lies = (done: number) => panelsAt(300, [100, 200], letter, done, 10);

it("lies flat before the first crease", () => {
  expect(lies(0).map((p) => [p.from.x, p.to.x, p.from.z])).toEqual([
    [0, 100, 0],
    [100, 200, 0],
    [200, 300, 0],
  ]);
});

it("stands upright half-way and lies on the middle third when it is over", () => {
  const upright = lies(0.5)[2];
  // a hundred mm high, in levels of ten; about the middle of its own thickness
  expect(upright?.to.z).toBeCloseTo(10.5, 1);
  expect(Math.abs((upright?.to.x ?? 0) - 200)).toBeLessThan(10);
  const over = lies(1)[2];
  expect([over?.from.x, over?.to.x, over?.from.z, over?.over]).toEqual([200, 100, 1, true]);
});

it("lays the near third on top of both", () => {
  const [near, middle, far] = lies(2);
  expect([near?.to.x, near?.from.x, near?.from.z]).toEqual([100, 200, 2]);
  expect(middle?.from.z).toBe(0);
  expect(far?.from.z).toBe(1);
});

it("shuts a book with both its ends inside", () => {
  const book = [
    { at_mm: 300, flap: "high" as const },
    { at_mm: 100, flap: "low" as const },
    { at_mm: 200, flap: "high" as const },
  ];
  const levels = panelsAt(400, [100, 200, 300], book, 3, 10).map((p) => p.from.z);
  expect([...levels].sort()).toEqual([0, 1, 2, 3]);
  // the two middle quarters are the covers
  expect([levels[1], levels[2]]).toEqual([0, 3]);
});

it("never lays a panel where another lies", () => {
  for (const done of [1, 2]) {
    const seen = lies(done).map((p) => `${Math.min(p.from.x, p.to.x)} ${p.from.z}`);
    expect(new Set(seen).size).toBe(3);
  }
});

it("calls facts alike that read the same", () => {
  expect(alike(["100 %", "100 %"])).toBe(true);
  expect(alike(["27", "36"])).toBe(false);
});
