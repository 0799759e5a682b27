// @vitest-environment happy-dom
/** A play on a tablet: what was decided, back to any of it, time that runs, and how it is drawn. */
import { act, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { Entry } from "@/offline/db";
import { whenOf, withTime } from "@/offline/post";
import {
  askedAfter,
  asksNow,
  type Bench,
  backTo,
  begun,
  type Course,
  clockAt,
  courseOf,
  decide,
  decidedOf,
  type Moment,
  PLAY_KEY,
  playLine,
  readAt,
  runs,
  takenOut,
  undecided,
  undo,
  workDone,
} from "@/rooms/lessons/play";
import { usePlay, useRunning } from "@/rooms/lessons/usePlay";

const course = (place: Course["place"], to: number): Course => ({
  place,
  said: `in the ${place}`,
  minutes: [0, 10, 30, 60],
  middle_c: [16, 14, 10, to],
  face_c: [16, 12, 8, to],
  butter_c: [16, 14, 11, to],
  risen_pct: [],
  signs: [{ from_min: 0, says: "A corner bends." }],
});
const option = (field: string, ...options: string[]) => ({
  field,
  said: field,
  low: null,
  high: null,
  unit: "",
  options: options.map((value) => ({ value, said: value })),
  now: null,
  now_said: "",
});
const number = (field: string) => ({
  ...option(field),
  low: 0,
  high: 60,
  unit: "min",
});
const moment = (n: number, stop: string, more: object = {}) =>
  ({
    stop,
    name: stop,
    n,
    starts_min: 100 * n,
    takes_min: 8,
    does: [],
    hint: "",
    call_min: null,
    before: null,
    after: null,
    asked: [],
    asked_rest: [],
    place: "fridge",
    where: "in the fridge",
    proofs: false,
    rests_at_min: 100 * n + 8,
    rest_min: 30,
    courses: [],
    ...more,
  }) as unknown as Moment;

const turn = (n: number, stop: string, more: object = {}) =>
  moment(n, stop, {
    asked: [option("pace", "usual", "big"), option("call", "leave", "away")],
    asked_rest: [option("rest.place", "fridge", "freezer"), number("rest.minutes")],
    courses: [course("fridge", 6), course("freezer", -2)],
    ...more,
  });
const bench = {
  moments: [
    moment(0, "mix"),
    turn(1, "turn-1"),
    moment(2, "turn-2"),
    turn(3, "turn-3", { call_min: 20 }),
    moment(4, "bake"),
  ],
  opens: 1,
  begins_h: 22,
} as unknown as Bench;
const [first, third] = [bench.moments[1] as Moment, bench.moments[3] as Moment];

/** A play as far as the third turn, the second of which leaves nothing to decide. */
function asFarAsTheThird() {
  let play = begun("play-1", 1);
  play = decide(play, { step: "turn-1", field: "pace", value: "usual" });
  play = workDone(play, first, bench);
  play = decide(play, { step: "turn-1", field: "rest.place", value: "freezer" });
  return takenOut({ ...play, rested: 24.6 }, first, bench);
}

it("options have no answer until one is chosen, and nobody is asked of a call that does not come", () => {
  const play = begun("play-1", 1);
  expect(asksNow(first).map((a) => a.field)).toEqual(["pace"]);
  expect(asksNow(third).map((a) => a.field)).toEqual(["pace", "call"]);
  expect(undecided(play, first).map((a) => a.field)).toEqual(["pace"]);
  const said = decide(play, { step: "turn-1", field: "pace", value: "big" });
  expect(undecided(said, first)).toEqual([]);
  expect(decide(said, { step: "turn-1", field: "pace", value: "usual" }).decisions).toEqual([
    { step: "turn-1", field: "pace", value: "usual" },
  ]);
});

it("what is taken out has rested whole minutes, and steps that ask nothing are passed over", () => {
  const play = asFarAsTheThird();
  expect(decidedOf(play, "turn-1", "rest.minutes")).toBe(25);
  expect([play.at, play.phase, play.over]).toEqual([3, "work", false]);
  const rested = workDone(play, third, bench);
  expect([rested.phase, rested.rested]).toEqual(["rest", 0]);
  const end = takenOut({ ...rested, rested: 10 }, third, bench);
  expect([end.at, end.over]).toEqual([5, true]);
});

it("one goes back to any decision: it and all after it are open again", () => {
  const play = asFarAsTheThird();
  const back = backTo(play, "turn-1", "rest.place", bench);
  expect(back.decisions.map((d) => d.field)).toEqual(["pace"]);
  expect([back.at, back.phase, back.rested, back.over]).toEqual([1, "rest", 0, false]);
  const start = backTo(play, "turn-1", "pace", bench);
  expect([start.decisions.length, start.at, start.phase]).toEqual([0, 1, "work"]);
  expect(backTo(play, "nowhere", "pace", bench)).toBe(play);
  expect(undo(play, bench).decisions.map((d) => d.field)).toEqual(["pace", "rest.place"]);
  // what went by the plan so far is decided now, with what came before it
  const calls = backTo(play, "turn-3", "call", bench);
  expect([calls.decisions.length, calls.at, calls.phase]).toEqual([3, 3, "work"]);
});

it("a rest is read in the place that was chosen, between the minutes that are there", () => {
  const play = decide(begun("p", 1), { step: "turn-1", field: "rest.place", value: "freezer" });
  const there = courseOf(play, first) as Course;
  expect(there.place).toBe("freezer");
  expect(courseOf(begun("p", 1), first)?.place).toBe("fridge");
  expect(readAt(there, there.middle_c, 20)).toBe(12);
  expect(readAt(there, there.middle_c, 0)).toBe(16);
  expect(readAt(there, there.middle_c, 600)).toBe(-2);
  expect(readAt(there, there.risen_pct, 5)).toBeNull();
});

it("time runs only where it is decided for how long", () => {
  const fixed = moment(1, "turn-1", { asked_rest: [number("rest.temper_min")] });
  expect(runs(first)).toBe(true);
  expect(runs(fixed)).toBe(false);
  expect(askedAfter(fixed).map((a) => a.field)).toEqual(["rest.temper_min"]);
  const out = takenOut(workDone(begun("p", 1), fixed, bench), fixed, bench);
  expect(out.decisions).toEqual([]);
});

it("the clock is a baker's, and says which day only after the one it opened on", () => {
  expect(clockAt(bench, 100)).toBe("23:40");
  expect(clockAt(bench, 130)).toBe("00:10, day 2");
  expect(clockAt({ ...bench, opens: 3 }, 300)).toBe("03:00");
});

it("a play is drawn as a line that dips, deeper for colder", () => {
  const at = (place: string, from_min: number, to_min: number, working = false) =>
    ({ stop: "t", place, working, from_min, to_min }) as never;
  const depth = { bench: 16, fridge: 38, freezer: 54, proofer: 8 };
  const line = playLine(
    [at("bench", 0, 8, true), at("fridge", 8, 40), at("bench", 40, 48, true)],
    depth,
    (minute) => minute * 2,
  );
  expect(line).toBe("M0.0,0 H16.0 H16.0 V38 H80.0 H80.0 V0 H96.0");
  expect(playLine([], depth, (m) => m)).toBe("");
});

it("a finished play waits as other entries do, with its own time", () => {
  const entry = {
    n: 1,
    id: "p",
    run: "3-a-hot-day",
    by: null,
    tries: 0,
    next: 0,
    what: "play",
    body: { id: "p", lesson: "3-a-hot-day", decisions: [], at: "2026-12-01T05:00:00Z" },
  } as Entry;
  expect(whenOf(entry)).toBe("2026-12-01T05:00:00Z");
  expect(whenOf(withTime(entry, "2026-12-01T06:00:00Z"))).toBe("2026-12-01T06:00:00Z");
});

beforeEach(() => localStorage.clear());
afterEach(() => vi.useRealTimers());

it("a play survives a reload, and is gone when it is left", () => {
  const one = renderHook(() => usePlay("3-a-hot-day", 1));
  act(() => one.result.current.start());
  act(() =>
    one.result.current.setPlay(
      (was) => was && decide(was, { step: "turn-1", field: "pace", value: "big" }),
    ),
  );
  one.unmount();
  const again = renderHook(() => usePlay("3-a-hot-day", 1));
  expect(again.result.current.play?.decisions).toHaveLength(1);
  act(() => again.result.current.leave());
  expect(localStorage.getItem(`${PLAY_KEY}3-a-hot-day`)).toBeNull();
  localStorage.setItem(`${PLAY_KEY}other`, "not a play");
  expect(renderHook(() => usePlay("other", 1)).result.current.play).toBeNull();
});

it("minutes pass so many times as fast, and none while it is paused", () => {
  vi.useFakeTimers({ toFake: ["setInterval", "clearInterval", "performance"] });
  let passed = 0;
  const pass = (minutes: number) => {
    passed += minutes;
  };
  const { rerender } = renderHook(({ on, speed }) => useRunning(on, speed, pass), {
    initialProps: { on: true, speed: 60 },
  });
  vi.advanceTimersByTime(2_000);
  expect(passed).toBeCloseTo(2, 1);
  rerender({ on: false, speed: 60 });
  vi.advanceTimersByTime(5_000);
  expect(passed).toBeCloseTo(2, 1);
  rerender({ on: true, speed: 120 });
  vi.advanceTimersByTime(1_000);
  expect(passed).toBeCloseTo(4, 1);
});
