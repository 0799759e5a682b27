import { expect, it } from "vitest";
import type { Schemas } from "@/api/client";
import { fromWall, inZone, wall } from "@/app/time";
import { type Event, type RunView, weighedNow } from "@/rooms/bench/now";
import { wantedOf } from "@/rooms/day/wanted";
import { grouped } from "@/steps/parts/ingredients";

const weighed = (id: string, line: string, grams: number) =>
  ({ id, kind: "weighed", line, grams, at: "2026-03-07T05:00:00Z" }) as Event;
const view = (...known: [string, string, number][]) =>
  ({
    standing: {
      weighed: known.map(([event_id, line, grams]) => ({ event_id, line, grams })),
    },
  }) as unknown as RunView;

it("knows what was weighed by the server and what waits here, the latest last", () => {
  const run = view(["a", "mix/water", 500], ["b", "mix/salt", 20]);
  const waiting = [weighed("c", "mix/water", 510), weighed("d", "mix/sugar", 90)];
  expect([...weighedNow(run, waiting)]).toEqual([
    ["mix/water", 510],
    ["mix/salt", 20],
    ["mix/sugar", 90],
  ]);
});

it("forgets a line that was taken back, here or there", () => {
  const undo = (target: string) =>
    ({ id: `u${target}`, kind: "undo", target, at: "2026-03-07T05:01:00Z" }) as Event;
  const run = view(["a", "mix/water", 500]);
  expect(weighedNow(run, [undo("a")]).size).toBe(0);
  expect(weighedNow(run, [weighed("c", "mix/salt", 9), undo("c")]).has("mix/salt")).toBe(false);
});

it("orders a plan first as its own pieces", () => {
  const line = { id: 7, name: "Lock croissant", pieces: 41, piece_g: 57.3 } as Schemas["PlanLine"];
  expect(wantedOf(line)).toMatchObject({
    plan_id: 7,
    products: [{ product: "Lock croissant", pieces: 41, raw_g: 57 }],
  });
  const uncut = {
    id: 8,
    name: "Uncut",
    pieces: null,
    piece_g: null,
  } as unknown as Schemas["PlanLine"];
  expect(wantedOf(uncut).products[0]).toMatchObject({ pieces: 40, raw_g: 60 });
});

it("puts ingredients into groups in the order of a formula", () => {
  const shelf = [
    { key: "salt", name: "Salt", kind: "salt" },
    { key: "flour-a", name: "A", kind: "flour" },
    { key: "flour-b", name: "B", kind: "flour" },
  ] as Schemas["Ingredient"][];
  const kinds = [
    { value: "flour", label: "Flour" },
    { value: "egg", label: "Egg" },
    { value: "salt", label: "Salt" },
  ];
  expect(grouped(shelf, kinds).map((g) => [g.group, g.items.length])).toEqual([
    ["Flour", 2],
    ["Salt", 1],
  ]);
});

it.each([
  ["Europe/London", "2026-11-28T04:30"],
  ["Europe/London", "2026-03-29T02:30"],
  ["Europe/London", "2026-10-25T03:30"],
  ["America/New_York", "2026-07-04T23:15"],
  ["Asia/Kolkata", "2026-01-01T00:00"],
])("reads a time of the bakery in %s as the clocks there show it: %s", (zone, text) => {
  inZone(zone);
  expect(wall(fromWall(text) ?? "")).toBe(text);
});

it("takes no time for what is none", () => {
  expect(fromWall("")).toBeNull();
  expect(fromWall("soon")).toBeNull();
});
