/**
 * Where a run stands on this tablet: what the server knows, and what waits here to be sent.
 * The server decides what may happen; this only walks the order it gave.
 */
import type { Schemas } from "@/api/client";

export type Event = Schemas["Event"];
export type RunView = Schemas["RunView"];

export interface Now {
  phase: Schemas["Phase"];
  stop: Schemas["Stop"] | null;
  next: Schemas["Stop"] | null;
  since: Date;
  until: Date | null;
  turnsDone: number;
  /** The latest deed, whose time may still be put right. */
  lastDeed: { id: string; name: string; kind: string; at: Date } | null;
}

const MINUTE = 60_000;

/** Entries that are taken back by an undo that still waits here. */
const takenBack = (waiting: Event[]) =>
  new Set(waiting.filter((e) => e.kind === "undo").map((e) => e.target));

interface Deed {
  id: string;
  kind: string;
  stop: string;
  at: Date;
}

/** Deeds in order: those the server knows, then those that wait, less what was taken back here. */
function deedsSoFar(run: RunView, waiting: Event[]): Deed[] {
  const known = run.standing.deeds.map((d) => ({
    id: d.event_id,
    kind: d.kind,
    stop: d.stop,
    at: d.at,
  }));
  const ids = new Set(known.map((d) => d.id));
  // A poll may bring an entry back before its own answer does: it counts once.
  const ahead = waiting.flatMap((e) =>
    (e.kind === "done" || e.kind === "out") && e.stop && !ids.has(e.id)
      ? [{ id: e.id, kind: e.kind, stop: e.stop, at: e.at }]
      : [],
  );
  const gone = takenBack(waiting);
  const moved = (id: string) =>
    waiting
      .filter((e) => e.kind === "move" && e.target === id)
      .reduce((sum, e) => sum + (e.minutes ?? 0), 0);
  return [...known, ...ahead]
    .filter((d) => !gone.has(d.id))
    .map((d) => ({ ...d, at: new Date(Date.parse(d.at) + moved(d.id) * MINUTE) }));
}

export function whereNow(run: RunView, waiting: Event[]): Now {
  const { standing, order, worked } = run;
  const strip = worked.strip;
  const named = (key: string) => strip.find((s) => s.key === key) ?? null;
  const deeds = deedsSoFar(run, waiting);
  const gone = takenBack(waiting);
  const due = order[deeds.length];
  const last = deeds.at(-1);
  const since = last?.at ?? new Date(run.started_at);
  const stop = due ? named(due.stop) : null;
  const resting = due?.kind === "out";
  const ended =
    (standing.phase === "given_up" && !gone.has(standing.undoable)) ||
    waiting.some((e) => e.kind === "give_up" && !gone.has(e.id));
  return {
    phase: ended ? "given_up" : !due ? "finished" : resting ? "rest" : "work",
    stop,
    next: stop ? (strip[strip.indexOf(stop) + (resting ? 1 : 0)] ?? null) : null,
    since,
    until:
      resting && stop?.rest
        ? new Date(since.getTime() + restMinutes(run, waiting, stop) * MINUTE)
        : null,
    turnsDone: deeds.filter((d) => d.kind === "done" && named(d.stop)?.kind === "turn").length,
    lastDeed: last ? { ...last, name: named(last.stop)?.name ?? "" } : null,
  };
}

/** How long the rest after a stop is to take: as chosen at the bench, or else the plan's. */
export function restMinutes(run: RunView, waiting: Event[], stop: Schemas["Stop"]): number {
  const gone = takenBack(waiting);
  const here = waiting.filter((e) => e.kind === "rest" && e.stop === stop.key && !gone.has(e.id));
  const known = run.standing.rests.find((r) => r.stop === stop.key)?.minutes;
  return here.at(-1)?.minutes ?? known ?? stop.rest?.minutes ?? 0;
}

/** What was weighed, by the line of its sheet: known to the server, and waiting here. */
export function weighedNow(run: RunView, waiting: Event[]): Map<string, number> {
  const gone = takenBack(waiting);
  const known = run.standing.weighed.filter((w) => !gone.has(w.event_id));
  const found = new Map(known.map((w) => [w.line, w.grams]));
  for (const e of waiting) {
    if (e.kind === "weighed" && e.line && typeof e.grams === "number" && !gone.has(e.id))
      found.set(e.line, e.grams);
  }
  return found;
}

/** What Undo would take back: the latest entry that is not an undo itself, if one is known here. */
export function undoTarget(run: RunView, waiting: Event[]): string | null {
  const latest = waiting.at(-1);
  if (!latest) return run.standing.undoable ?? null;
  return latest.kind === "undo" ? null : latest.id;
}

/** Minutes from `from` to `to`; negative when `to` is past. */
export const minutesBetween = (from: Date, to: Date): number =>
  (to.getTime() - from.getTime()) / MINUTE;

const LATELY_MIN = 15;

/** The probes whose last reading is fresh enough to stand for now. */
export function spokeLately(probes: Schemas["ProbeView"][], now: Date) {
  return probes.filter(
    (p) =>
      typeof p.last_c === "number" &&
      p.last_at &&
      minutesBetween(new Date(p.last_at), now) <= LATELY_MIN,
  );
}
