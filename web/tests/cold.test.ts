import { expect, it } from "vitest";
import { onAxis, shown } from "@/cold/axis";
import { alarmNow, callNow, marksOf } from "@/rooms/bench/calls";
import { type Event, type RunView, restMinutes } from "@/rooms/bench/now";

const stretch = (stop: string, from_min: number, to_min: number) => ({
  stop,
  place: "fridge" as const,
  working: false,
  from_min,
  to_min,
});
// a night of twelve hours between two short works
const night = [stretch("mix", 0, 30), stretch("dough", 30, 750), stretch("turn-1", 750, 790)];

it("does not let the night push the work off the axis", () => {
  const { x } = onAxis(night, 0, 600);
  const width = (from: number, to: number) => x(to) - x(from);
  expect(width(0, 30)).toBeGreaterThan(100);
  expect(width(30, 750)).toBeGreaterThan(width(750, 790));
  expect(x(0)).toBe(0);
  expect(x(790)).toBeCloseTo(600);
});

it("goes from a minute to its place and back, always forward", () => {
  const { x, minute } = onAxis(night, 40, 640);
  let last = Number.NEGATIVE_INFINITY;
  for (const at of [0, 12, 30, 31, 300, 749, 750, 770, 790]) {
    expect(minute(x(at))).toBeCloseTo(at, 6);
    expect(x(at)).toBeGreaterThanOrEqual(last);
    last = x(at);
  }
  expect(minute(-50)).toBe(0);
  expect(minute(9_000)).toBe(790);
});

it("names the stops that are wide enough to be named", () => {
  expect(onAxis(night, 0, 600).labels.map((l) => l.stop)).toEqual(["mix", "dough", "turn-1"]);
  expect(onAxis(night, 0, 60).labels.map((l) => l.stop)).toEqual([]);
});

it("finds the point of a trace that is nearest", () => {
  const trace = {
    minutes: [0, 5, 20],
    middle_c: [],
    face_c: [],
    butter_c: [],
    cells_c: [],
    rise_pct: [],
    ripe_h: [],
  };
  expect([0, 2, 3, 11, 99].map((m) => shown(trace, m))).toEqual([0, 0, 1, 1, 2]);
});

const at = (minute: number) => new Date(Date.UTC(2026, 2, 7, 6, minute));
const marks = { possible: at(15), ready: at(20), best: at(25), last: at(38) };

it("says one thing of a rest, by heading and alarm", () => {
  const said = (until: number, minutes: number[]) =>
    minutes.map((m) => [callNow(marks, at(until), at(m)), alarmNow(marks, at(until), at(m))]);
  expect(said(30, [10, 20, 26, 30, 38])).toEqual([
    ["leave", null],
    ["may", "it may come out now"],
    ["may", "best now"],
    ["out", "its time is up, take it out"],
    ["last", "last call, take it out"],
  ]);
  // A time that is over does not take out what is not possible yet.
  expect(said(12, [13, 15])).toEqual([
    ["leave", null],
    ["out", "its time is up, take it out"],
  ]);
});

it("never calls out beside a heading that says to leave it", () => {
  for (let until = 5; until < 60; until += 5)
    for (let m = 0; m < 60; m++)
      expect(callNow(marks, at(until), at(m)) === "leave").toBe(
        alarmNow(marks, at(until), at(m)) === null,
      );
});

it("marks no moment that had passed when the dough went in", () => {
  const warmth = (good: number | null, best: number | null) =>
    ({
      possible_at: good === null ? null : at(good).toISOString(),
      good_at: good === null ? null : at(good).toISOString(),
      best_at: best === null ? null : at(best).toISOString(),
      good_until: null,
      possible_until: at(90).toISOString(),
    }) as never;
  expect(marksOf(warmth(0, 0), at(0))).toEqual({
    possible: null,
    ready: null,
    best: null,
    last: at(90),
  });
  expect(marksOf(warmth(20, 20), at(0)).best).toBeNull();
  expect(marksOf(warmth(20, 45), at(0)).best).toEqual(at(45));
  expect(marksOf(undefined, at(0)).last).toBeNull();
});

const stop = {
  key: "turn-1",
  rest: { stays: [{ place: "fridge", minutes: 30 }] },
  gives: 0,
} as never;
const run = (rests: { stop: string; minutes: number }[]) =>
  ({ standing: { rests } }) as unknown as RunView;
const rest = (id: string, minutes: number) =>
  ({ id, kind: "rest", stop: "turn-1", minutes }) as unknown as Event;

it("rests as long as was chosen last, here or at the server, and else as planned", () => {
  expect(restMinutes(run([]), [], stop)).toBe(30);
  expect(restMinutes(run([{ stop: "turn-1", minutes: 42 }]), [], stop)).toBe(42);
  expect(restMinutes(run([]), [rest("a", 50), rest("b", 55)], stop)).toBe(55);
  const back = { id: "c", kind: "undo", target: "b" } as unknown as Event;
  expect(restMinutes(run([]), [rest("a", 50), rest("b", 55), back], stop)).toBe(50);
});
