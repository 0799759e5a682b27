/** A play as it stands on this tablet: what was decided, where one is in it, and how time runs. */
import type { Schemas } from "@/api/client";

export type Decision = Schemas["Decision"];
export type Moment = Schemas["Moment"];
export type Course = Schemas["PlaceCourse"];
export type Bench = Schemas["SimulatedBench"];

export interface Play {
  /** The tablet's own id of it: kept twice, it is one. */
  id: string;
  decisions: Decision[];
  /** The step one is at, by its number; past the last the play is over. */
  at: number;
  phase: "work" | "rest";
  /** Minutes of the rest that have gone, while it rests. */
  rested: number;
  /** Whether it is finished and its outcome asked for. */
  over: boolean;
}

export const PLAY_KEY = "eight-turn.play.";

export const begun = (id: string, opens: number): Play => ({
  id,
  decisions: [],
  at: opens,
  phase: "work",
  rested: 0,
  over: false,
});

const same = (a: Pick<Decision, "step" | "field">, b: Pick<Decision, "step" | "field">) =>
  a.step === b.step && a.field === b.field;

/** The play with something decided; decided before, it is decided anew in its place. */
export function decide(play: Play, made: Decision): Play {
  const known = play.decisions.some((d) => same(d, made));
  const decisions = known
    ? play.decisions.map((d) => (same(d, made) ? made : d))
    : [...play.decisions, made];
  return { ...play, decisions };
}

export const decidedOf = (play: Play, step: string, field: Decision["field"]) =>
  play.decisions.find((d) => same(d, { step, field }))?.value;

/** What is still to be said before the work at a step: options have no answer until one is chosen. */
export const undecided = (play: Play, moment: Moment) =>
  asksNow(moment).filter(
    (a) => a.options.length > 0 && decidedOf(play, moment.stop, a.field) === undefined,
  );

/** What is asked before the work at a step; somebody's call only where somebody calls. */
export const asksNow = (moment: Moment) =>
  moment.asked.filter((a) => a.field !== "call" || moment.call_min !== null);

/** The course of a rest in the place that was chosen, or where the plan has it. */
export function courseOf(play: Play, moment: Moment): Course | undefined {
  const place = decidedOf(play, moment.stop, "rest.place") ?? moment.place;
  return moment.courses.find((c) => c.place === place) ?? moment.courses[0];
}

const asks = (moment: Moment, field: Decision["field"]) =>
  moment.asked_rest.some((a) => a.field === field);

/** Whether anything of a rest is to be decided. */
export const restAsked = (moment: Moment) => moment.asked_rest.length > 0;

/** Whether time runs while it rests, until somebody takes it out. */
export const runs = (moment: Moment) => asks(moment, "rest.minutes") && moment.courses.length > 0;

/** What is to be said before a rest begins, and after it. */
export const askedBefore = (moment: Moment) =>
  moment.asked_rest.filter((a) => a.field === "rest.place" || a.field === "rest.air_c");
export const askedAfter = (moment: Moment) =>
  moment.asked_rest.filter((a) => a.field === "rest.temper_min");

/** On to the rest of a step, or to the next step where it has none, or to the end. */
export function workDone(play: Play, moment: Moment, bench: Bench): Play {
  if (restAsked(moment)) return { ...play, phase: "rest", rested: 0 };
  return onward(play, bench);
}

/** Taken out after so many whole minutes, where that is decided. */
export function takenOut(play: Play, moment: Moment, bench: Bench): Play {
  const minutes = Math.round(play.rested);
  const out = runs(moment)
    ? decide(play, { step: moment.stop, field: "rest.minutes", value: minutes })
    : play;
  return onward(out, bench);
}

/** The next step that leaves something to decide; beyond the last of them the play is over. */
function onward(play: Play, bench: Bench): Play {
  const next = bench.moments.find(
    (m) => m.n > play.at && (asksNow(m).length > 0 || restAsked(m) || m.call_min !== null),
  );
  const after = { ...play, phase: "work" as const, rested: 0 };
  return next ? { ...after, at: next.n } : { ...after, at: bench.moments.length, over: true };
}

/**
 * Back to what is decided at a step: that and all that was decided after it is open again. What went by the
 * plan so far is decided now, with all before it as it was.
 */
export function backTo(play: Play, step: string, field: Decision["field"], bench: Bench): Play {
  const at = (stop: string) => bench.moments.find((m) => m.stop === stop)?.n ?? -1;
  const made = play.decisions.findIndex((d) => same(d, { step, field }));
  const resting = field.startsWith("rest.");
  const before = (d: Decision) =>
    at(d.step) < at(step) || (d.step === step && resting && !d.field.startsWith("rest."));
  if (at(step) < 0) return play;
  return {
    ...play,
    decisions: made < 0 ? play.decisions.filter(before) : play.decisions.slice(0, made),
    at: at(step),
    phase: resting ? "rest" : "work",
    rested: 0,
    over: false,
  };
}

/** Back to what was decided last. */
export function undo(play: Play, bench: Bench): Play {
  const last = play.decisions.at(-1);
  return last ? backTo(play, last.step, last.field, bench) : play;
}

/** A value of a course at a minute, read between those that are there. */
export function readAt(course: Course, values: readonly number[], minute: number): number | null {
  if (values.length === 0) return null;
  const { minutes } = course;
  const after = minutes.findIndex((m) => m >= minute);
  if (after < 0) return values.at(-1) ?? null;
  if (after === 0) return values[0] ?? null;
  const [m0, m1] = [minutes[after - 1] ?? 0, minutes[after] ?? 0];
  const [v0, v1] = [values[after - 1] ?? 0, values[after] ?? 0];
  return v0 + ((v1 - v0) * (minute - m0)) / (m1 - m0);
}

/** How far a rest may go. */
export const lasts = (course: Course | undefined) => course?.minutes.at(-1) ?? 0;

export const SPEEDS = [1, 10, 30, 60, 120] as const;

/** The time of day at the simulated bench: `06:40`, and which day after the one that the lesson opens on. */
export function clockAt(
  bench: Pick<Bench, "begins_h" | "moments" | "opens">,
  minute: number,
): string {
  const at = (m: number) => Math.floor(bench.begins_h * 60 + m);
  const dayOf = (m: number) => Math.floor(at(m) / 1_440);
  const whole = at(minute);
  const days = dayOf(minute) - dayOf(bench.moments[bench.opens]?.starts_min ?? 0);
  const [h, m] = [Math.floor((whole % 1_440) / 60), whole % 60];
  const time = `${String(h).padStart(2, "0")}:${String(m).padStart(2, "0")}`;
  return days > 0 ? `${time}, day ${days + 1}` : time;
}

/** Where a play lay when, drawn as the strip is: a line that dips, deeper for colder; px. */
export function playLine(
  stretches: readonly Schemas["Stretch"][],
  depth: Record<Schemas["Place"], number>,
  x: (minute: number) => number,
): string {
  const [first] = stretches;
  if (!first) return "";
  const down = (s: Schemas["Stretch"]) => (s.working ? 0 : depth[s.place]);
  let path = `M${x(first.from_min).toFixed(1)},${down(first)}`;
  let at = down(first);
  for (const stretch of stretches) {
    const y = down(stretch);
    const from = x(stretch.from_min);
    if (y !== at) path += ` H${from.toFixed(1)} V${y}`;
    path += ` H${x(stretch.to_min).toFixed(1)}`;
    at = y;
  }
  return path;
}
