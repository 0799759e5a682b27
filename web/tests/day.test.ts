import { expect, it } from "vitest";
import type { Schemas } from "@/api/client";
import { pressing } from "@/rooms/today/pressing";
import { threadPath } from "@/threads/Threads";
import { drawn, firstNamed, graspable, hours, laned, snapped, timed } from "@/threads/threads";

const at = (minute: number) => new Date(Date.UTC(2027, 5, 18, 6) + minute * 60_000).toISOString();

const task = (dough: string, step: string, from: number, to: number, more = {}) =>
  ({
    dough,
    step,
    name: step,
    starts: at(from),
    ends: at(to),
    hands: 1,
    who: "early 1",
    machine: null,
    together: null,
    done: false,
    held: false,
    ...more,
  }) as Schemas["Task"];

const rest = (
  dough: string,
  step: string,
  place: string,
  from: number,
  to: number,
  all = to - from,
) =>
  ({
    dough,
    step,
    place,
    starts: at(from),
    ends: at(to),
    minutes: all,
    planned_min: all,
    verdict: "good",
  }) as Schemas["Resting"];

const found = {
  tasks: [
    task("1", "mix", 0, 20, { machine: "mixer" }),
    task("1", "turn", 80, 90),
    task("2", "mix", 0, 20, { together: "1", hands: 0 }),
    task("2", "turn", 85, 95),
    task("3", "turn", 10, 30),
  ],
  rests: [
    rest("1", "mix", "freezer", 20, 40, 60),
    rest("1", "mix", "fridge", 40, 80, 60),
    rest("2", "mix", "fridge", 20, 85),
  ],
} as unknown as Schemas["Timetable"];

it("lays what overlaps side by side, and no lane more than that needs", () => {
  const knots = [
    { from: 0, to: 10, lane: 9 },
    { from: 5, to: 12, lane: 9 },
    { from: 10, to: 20, lane: 9 },
    { from: 12, to: 15, lane: 9 },
  ];
  expect(laned(knots)).toBe(2);
  for (const a of knots)
    for (const b of knots)
      if (a !== b && a.lane === b.lane) expect(a.to <= b.from || b.to <= a.from).toBe(true);
});

it("puts tasks on their machine's row and what is mixed together on one knot", () => {
  const day = drawn(found, ["1", "2", "3", "9"]);
  expect(day.threads.map((t) => t.dough)).toEqual(["1", "2", "3"]);
  expect(day.rows).toEqual([
    { key: "mixer", lanes: 1 },
    { key: "bench", lanes: 2 },
  ]);
  const [one, two] = day.threads;
  expect(two?.knots[0]).toMatchObject({ row: "mixer", lane: one?.knots[0]?.lane });
  expect(day.places).toEqual(["fridge", "freezer"]);
  expect(day.minutes).toBe(95);
  // the minutes of a rest in two places are written once, where it lies longest
  expect(one?.rests.filter((r) => r.told).map((r) => r.place)).toEqual(["fridge"]);
});

it("takes a thread through every place it lies in, never back in time", () => {
  const day = drawn(found, ["1"]);
  const thread = day.threads[0];
  if (!thread) throw new Error("no thread");
  const deep: Record<string, number> = { fridge: 200, freezer: 300 };
  const path = threadPath(
    thread,
    (minute) => minute,
    () => 50,
    (_, place) => deep[place] ?? 0,
  );
  const points = [...path.matchAll(/(-?[\d.]+),(-?[\d.]+)(?=[ A-Z]|$)/g)].map((m) => [
    Number(m[1]),
    Number(m[2]),
  ]);
  expect(points.some(([, y]) => y === 300)).toBe(true);
  expect(points.some(([, y]) => y === 200)).toBe(true);
  expect(points.at(-1)).toEqual([90, 50]);
  const ends = path.split(/(?=[MLC])/).map((part) => Number(part.trim().split(/[ ,]/).at(-2)));
  expect(ends).toEqual(ends.toSorted((a, b) => a - b));
});

it("marks whole hours of the bakery's clock", () => {
  const begins = Date.UTC(2027, 5, 18, 5, 20);
  const every = hours(begins, 300, 2, (ms) => new Date(ms).getUTCHours());
  expect(every.map((ms) => new Date(ms).getUTCHours())).toEqual([6, 8, 10]);
  expect(snapped(17.4)).toBe(15);
});

it("shows what is late and now first, and always something of what comes", () => {
  const due = (when: string, step: string) => ({ when, step }) as Schemas["Due"];
  const all = [
    due("late", "a"),
    due("now", "b"),
    due("next", "c"),
    due("later", "d"),
    due("later", "e"),
    due("later", "f"),
    due("done", "g"),
  ];
  const seen = pressing(all);
  expect(seen.first.map((d) => d.step)).toEqual(["a", "b"]);
  expect(seen.next.map((d) => d.step)).toEqual(["c", "d", "e"]);
  expect(seen.done).toBe(1);
});

it("gives what is weighed the minute of the timetable, first of its doughs, unless that is out of date", () => {
  const batch = {
    starts_at: at(-900),
    sheets: [
      { sheet: { stop: "mix" }, at: at(-800) },
      { sheet: { stop: "else" }, at: at(-700) },
    ],
  } as unknown as Schemas["Batch"];
  const arranged = {
    stale: false,
    doughs: [
      { dough: "2", ordered: 0 },
      { dough: "3", ordered: 1 },
    ],
    timetable: found,
  } as unknown as Schemas["Arranged"];
  const now = timed(batch, 0, arranged);
  expect(now.sheets.map((s) => s.at)).toEqual([at(0), at(-700)]);
  expect(now.starts_at).toBe(at(0));
  expect(timed(batch, 0, { ...arranged, stale: true })).toBe(batch);
  expect(timed(batch, 0, null)).toBe(batch);
});

it("lets a dough be taken hold of in another's oven once it is chosen, and never in its mixing", () => {
  const shared = {
    ...found,
    tasks: [
      ...found.tasks,
      task("1", "bake", 100, 120, { machine: "oven", hands: 0 }),
      task("2", "bake", 100, 120, { together: "1", hands: 0 }),
    ],
  };
  const [one, two] = drawn(shared, ["1", "2"]).threads;
  if (!one || !two) throw new Error("both doughs are drawn");
  const steps = (of: typeof one, chosen: boolean) => graspable(of, chosen).map((k) => k.task.step);
  expect(steps(one, false)).toEqual(["mix", "turn", "bake"]);
  expect(steps(two, false)).toEqual(["turn"]);
  expect(steps(two, true)).toEqual(["turn", "bake"]);
  // it lies on the knot of whose oven it is
  const bake = (of: typeof one) => of.knots.find((k) => k.task.step === "bake");
  expect(bake(two)?.lane).toBe(bake(one)?.lane);
});

it("names no day where the next one's name would lie over it", () => {
  expect(firstNamed(60)).toBe(false);
  expect(firstNamed(150)).toBe(true);
});
