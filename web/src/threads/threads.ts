/**
 * The day as threads under a bench: where every task's knot lies and how each dough's thread runs.
 * Minutes from the day's first task, and rows counted from the top; nothing here draws.
 */
import type { Schemas } from "@/api/client";

export type Timetable = Schemas["Timetable"];
export type Task = Schemas["Task"];
type Place = Schemas["Place"];

export const PLACES = ["proofer", "bench", "fridge", "freezer"] as const satisfies Place[];

export interface Knot {
  task: Task;
  /** From, until: minutes from the beginning. */
  from: number;
  to: number;
  row: string;
  /** Which of the hands on that row, from 0. */
  lane: number;
}

export interface Rested {
  dough: string;
  step: string;
  place: Place;
  from: number;
  to: number;
  minutes: number;
  verdict: Schemas["Resting"]["verdict"];
  /** The longest part of its rest, where the minutes are written. */
  told: boolean;
}

export interface Thread {
  dough: string;
  slot: number;
  knots: Knot[];
  rests: Rested[];
}

export interface Drawn {
  begins: number;
  minutes: number;
  rows: { key: string; lanes: number }[];
  threads: Thread[];
  /** Which places anything lies in, from the warmest down. */
  places: Place[];
}

const minutes = (at: string, from: number) => (Date.parse(at) - from) / 60_000;

/** Which row of the surface a task is done on: its machine's, or the bench. */
const rowOf = (task: Task) => task.machine ?? "bench";

/** Knots of a row side by side where they overlap: the fewest lanes that hold them. */
export function laned<T extends { from: number; to: number; lane: number }>(knots: T[]): number {
  const ends: number[] = [];
  for (const knot of knots.toSorted((a, b) => a.from - b.from || a.to - b.to)) {
    const free = ends.findIndex((end) => end <= knot.from + 1e-9);
    knot.lane = free < 0 ? ends.length : free;
    ends[knot.lane] = knot.to;
  }
  return Math.max(ends.length, 1);
}

export function drawn(found: Timetable, order: string[]): Drawn {
  const begins = Math.min(...found.tasks.map((t) => Date.parse(t.starts)));
  const end = Math.max(...found.tasks.map((t) => Date.parse(t.ends)));
  const threads = order
    .filter((dough) => found.tasks.some((t) => t.dough === dough))
    .map((dough, slot): Thread => {
      const knots = found.tasks
        .filter((t) => t.dough === dough)
        .map((task) => ({
          task,
          from: minutes(task.starts, begins),
          to: minutes(task.ends, begins),
          row: rowOf(task),
          lane: 0,
        }));
      const rests = found.rests
        .filter((r) => r.dough === dough)
        .map((r) => ({
          dough,
          step: r.step,
          place: r.place,
          from: minutes(r.starts, begins),
          to: minutes(r.ends, begins),
          minutes: r.minutes,
          verdict: r.verdict,
          told: false,
        }));
      for (const step of new Set(rests.map((r) => r.step))) {
        const parts = rests.filter((r) => r.step === step);
        const longest = parts.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a));
        longest.told = true;
      }
      return { dough, slot, knots, rests };
    });
  const all = threads.flatMap((t) => t.knots);
  // what is done along with another dough lies on the other's knot
  const own = all.filter((k) => !k.task.together);
  const rows = ["mixer", "bench", "sheeter", "oven"]
    .map((key) => ({ key, knots: own.filter((k) => k.row === key) }))
    .filter((row) => row.knots.length > 0 || row.key === "bench")
    .map(({ key, knots }) => ({ key, lanes: laned(knots) }));
  for (const knot of all.filter((k) => k.task.together)) {
    const shared = own.find(
      (k) => k.task.dough === knot.task.together && k.task.step === knot.task.step,
    );
    if (shared) Object.assign(knot, { row: shared.row, lane: shared.lane });
  }
  const lying = new Set(threads.flatMap((t) => t.rests.map((r) => r.place)));
  return {
    begins,
    minutes: (end - begins) / 60_000,
    rows,
    threads,
    places: PLACES.filter((p) => lying.has(p)),
  };
}

/** What can be taken hold of in a thread: what it does itself, and its place in an oven once it is chosen. */
export function graspable(thread: Thread, chosen: boolean): Knot[] {
  return thread.knots.filter((k) => !k.task.together || (chosen && k.row === "oven"));
}

/**
 * What is weighed for a batch, at the minute at which the timetable has it first. An order that has no
 * timetable, or was changed since, keeps the times of its plans one by one.
 */
export function timed(
  batch: Schemas["Batch"],
  ordered: number,
  arranged: Schemas["Arranged"] | null | undefined,
): Schemas["Batch"] {
  if (!arranged || arranged.stale) return batch;
  const mine = new Set(arranged.doughs.filter((d) => d.ordered === ordered).map((d) => d.dough));
  const tasks = arranged.timetable.tasks.filter((t) => mine.has(t.dough));
  const first = (step?: string) =>
    tasks
      .filter((t) => !step || t.step === step)
      .map((t) => t.starts)
      .toSorted((a, b) => Date.parse(a) - Date.parse(b))[0] ?? null;
  return {
    ...batch,
    starts_at: first() ?? batch.starts_at,
    sheets: batch.sheets.map((sheet) => ({ ...sheet, at: first(sheet.sheet.stop) ?? sheet.at })),
  };
}

/** Whole hours in the bakery's zone that an axis shows, every so many. */
export function hours(
  begins: number,
  length: number,
  every: number,
  hourOf: (at: number) => number,
) {
  const found: number[] = [];
  // from the first full hour on
  const first = Math.ceil(begins / 3_600_000) * 3_600_000;
  for (let at = first; at <= begins + length * 60_000; at += 3_600_000)
    if (hourOf(at) % every === 0) found.push(at);
  return found;
}

/** A minute as a baker sets it: to five. */
export const snapped = (minute: number) => Math.round(minute / 5) * 5;

const NAME_PX = 110;

/** Whether the first day's name has room before the next day's, whose midnight lies so far on, px. */
export const firstNamed = (midnight: number): boolean => midnight > NAME_PX;
