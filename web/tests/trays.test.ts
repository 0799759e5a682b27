import { expect, it } from "vitest";
import {
  type Event,
  lastOfTrays,
  type RunView,
  traysNow,
  urgency,
  whereNow,
} from "@/rooms/bench/now";
import { stageWords, stepWords } from "@/rooms/bench/TrayBoard";
import { type Place, stayIn } from "@/steps/stays";

const START = "2026-03-07T04:00:00Z";
const at = (minute: number) => new Date(Date.parse(START) + minute * 60_000).toISOString();
const stop = (key: string, minutes?: number, place = "proofer") => ({
  key,
  do: key,
  name: key,
  rest: minutes ? { stays: [{ place, minutes }] } : null,
  gives: 0,
});
const STEPS = [
  { kind: "done", stop: "shape" },
  { kind: "out", stop: "shape" },
  { kind: "done", stop: "wash" },
  { kind: "in", stop: "bake" },
  { kind: "done", stop: "bake" },
];

/** A run that is cut, with two trays; of each the minutes at which its steps were known to be done. */
const run = (first: number[], second: number[]): RunView => {
  const tray = (n: number, done: number[]) => ({
    tray: n,
    product: 0,
    pieces: 12,
    load: 1,
    deeds: done.map((m, i) => ({ ...STEPS[i], event_id: `tray ${n} ${i}`, at: at(m) })),
  });
  return {
    worked: {
      strip: [
        stop("cut"),
        stop("shape", 120),
        stop("wash"),
        { ...stop("bake"), made: { do: "bake", bake_min: 18 } },
        stop("look"),
      ],
    },
    order: [
      { kind: "done", stop: "cut" },
      ...STEPS.filter((s) => s.kind !== "in"),
      { kind: "done", stop: "look" },
    ],
    started_at: START,
    tray_steps: STEPS,
    standing: {
      started_at: START,
      put_right: [],
      phase: "work",
      undoable: null,
      rests: [],
      trays: [tray(1, first), tray(2, second)],
      deeds: [{ event_id: "cut", kind: "done", stop: "cut", at: at(5) }],
    },
  } as unknown as RunView;
};
const press = (minute: number, tray: number, step: number) =>
  ({ id: `press ${minute}`, at: at(minute), tray, ...STEPS[step] }) as Event;
const clock = (minute: number) => new Date(at(minute));

it("what is put right is the last press, all its trays together, or the tray that was touched", () => {
  const both = traysNow(run([20], [20]), []);
  expect(lastOfTrays(both, null).map((t) => t.tray)).toEqual([1, 2]);
  expect(lastOfTrays(both, 2).map((t) => t.entry)).toEqual(["tray 2 0"]);
  const later = traysNow(run([20], [20]), [press(90, 1, 1)]);
  expect(lastOfTrays(later, null).map((t) => t.entry)).toEqual(["press 90"]);
  // the same moment, but another deed
  expect(lastOfTrays(traysNow(run([20, 90], [90]), []), null)).toHaveLength(1);
  expect(lastOfTrays(traysNow(run([], []), []), null)).toEqual([]);
});

it("follows each tray by itself, what waits here included", () => {
  const [one, two] = traysNow(run([10], []), [press(12, 2, 0), press(130, 1, 1)]);
  expect(one?.next).toEqual(STEPS[2]);
  expect(two?.next).toEqual(STEPS[1]);
  expect(two?.until).toEqual(clock(132));
});

it("counts an entry once that a poll brought back before its own answer", () => {
  const known = run([10], []);
  const again = { ...press(10, 1, 0), id: "tray 1 0" };
  expect(traysNow(known, [again])[0]?.next).toEqual(STEPS[1]);
});

it("is in the oven for as long as the bake takes", () => {
  const [one] = traysNow(run([10, 130, 133, 135], []), []);
  expect(one?.until).toEqual(clock(153));
  expect(stageWords(one as never, clock(144))).toBe("in the oven 9 min of 18 min");
});

it("goes on to the next stop when the last tray has done this one", () => {
  expect(whereNow(run([10], []), []).stop?.key).toBe("shape");
  const both = whereNow(run([10], []), [press(14, 2, 0)]);
  expect(both.trays).toHaveLength(2);
  expect(both.since).toEqual(clock(14));
  const over = whereNow(run([10, 130, 133, 135, 153], [12, 131, 134, 136, 154]), []);
  expect(over.stop?.key).toBe("look");
  expect(over.trays).toEqual([]);
});

it("takes a press back that has not been sent", () => {
  const pressed = press(14, 2, 0);
  const undo = { id: "undo", kind: "undo", target: pressed.id, at: at(15) } as Event;
  expect(traysNow(run([10], []), [pressed, undo])[1]?.next).toEqual(STEPS[0]);
});

it("puts what burns before what only waits", () => {
  const [baking, shaped] = traysNow(run([10, 130, 133, 135], [12]), []);
  const [washed] = traysNow(run([10, 130, 133], []), []);
  const order = (minute: number) =>
    [baking, shaped, washed]
      .toSorted((a, b) => urgency(a as never, clock(minute)) - urgency(b as never, clock(minute)))
      .map((t) => t?.next?.stop);
  expect(order(154)[0]).toBe("bake");
  expect(urgency(baking as never, clock(154))).toBe(0);
  expect(urgency(shaped as never, clock(20))).toBeGreaterThan(100);
});

it("says what the button does and what the tray is doing", () => {
  const ends = (...places: Place[]) => ({ stays: places.map((place) => stayIn(place, 30)) });
  const out = (...places: Place[]) => stepWords(STEPS[1] as never, "shape", ends(...places));
  expect(out("proofer")).toBe("Out of the proofer");
  expect(out("freezer", "fridge")).toBe("Out of the fridge");
  const [one, two] = traysNow(run([10, 130], []), []);
  expect(stageWords(one as never, clock(131))).toBe("out, to be washed");
  expect(stageWords(two as never, clock(131))).toBe("to shape");
});
