/**
 * Where a run stands on this tablet: what the server knows, and what waits here to be sent.
 * The server decides what may happen; this only walks the order it gave.
 */
import type { Schemas } from "@/api/client";
import type { RunView } from "@/api/runs";
import { type Do, made } from "@/api/steps";
import { restMin } from "@/steps/stays";

export type Event = Schemas["Event"];
export type { RunView };

export interface Now {
  phase: Schemas["Phase"];
  stop: Schemas["Stop"] | null;
  next: Schemas["Stop"] | null;
  since: Date;
  until: Date | null;
  turnsDone: number;
  /** When its first step was begun; and whether nothing was done since. */
  startedAt: Date;
  atFirst: boolean;
  /** The latest deed, whose time may still be put right: not to before the one it follows. */
  lastDeed: { id: string; name: string; kind: string; at: Date; earliest: Date | null } | null;
  /** Every tray, once the sheet is cut; empty where the plan has none, or not yet. */
  trays: TrayNow[];
}

export type TrayStep = Schemas["TrayStep"];

/** One tray on its way: what is next, since when, and until when it proofs, bakes or cools. */
export interface TrayNow {
  tray: number;
  product: number;
  pieces: number;
  load: number;
  next: TrayStep | null;
  last: TrayStep | null;
  /** What the stop of the next step does: it is shaped, washed, baked. */
  does: Do | null;
  since: Date | null;
  until: Date | null;
  /** The entry of what was done with it last, and what it came after. */
  entry: string | null;
  earliest: Date | null;
  /** The rest it is in, and which stay of it gives. */
  rest: Schemas["Rest"] | null;
  gives: number;
  /** It comes to nothing: burnt, or dropped. */
  lost: boolean;
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
type Written = Omit<Deed, "at"> & { at: string };

/** By how many minutes a deed, or the beginning, is put right here beyond what the server knows. */
function putRight(run: RunView, waiting: Event[], target: string | null): number {
  const gone = takenBack(waiting);
  // one that an older version kept on this tablet says nothing of it
  const known = (run.standing.put_right ?? []).filter((p) => p.target === target);
  const back = known.filter((p) => gone.has(p.event_id)).map((p) => -p.minutes);
  const kind = target ? "move" : "begun";
  const ahead = waiting
    .filter((e) => e.kind === kind && (e.target ?? null) === target && !gone.has(e.id))
    .filter((e) => !known.some((p) => p.event_id === e.id))
    .map((e) => e.minutes ?? 0);
  return [...back, ...ahead].reduce((sum, by) => sum + by, 0);
}

/** Entries known to the server, then those that wait and are not known yet, less what was taken back. */
function told(
  run: RunView,
  known: Written[],
  waiting: Event[],
  wanted: (e: Event) => boolean,
): Deed[] {
  const ids = new Set(known.map((d) => d.id));
  // A poll may bring an entry back before its own answer does: it counts once.
  const ahead = waiting.flatMap((e) =>
    wanted(e) && e.stop && !ids.has(e.id)
      ? [{ id: e.id, kind: e.kind, stop: e.stop, at: e.at }]
      : [],
  );
  const gone = takenBack(waiting);
  return [...known, ...ahead]
    .filter((d) => !gone.has(d.id))
    .map((d) => ({ ...d, at: new Date(Date.parse(d.at) + putRight(run, waiting, d.id) * MINUTE) }));
}

const dated = (d: { event_id: string; kind: string; stop: string; at: string }) => ({
  id: d.event_id,
  kind: d.kind,
  stop: d.stop,
  at: d.at,
});

const TRAY_DEEDS = ["done", "out", "in"];

/** When the first step was begun, as it was put right here too. */
const startedAt = (run: RunView, waiting: Event[]) =>
  new Date(
    Date.parse(run.standing.started_at ?? run.started_at) + putRight(run, waiting, null) * MINUTE,
  );

/** Nothing happens before what it follows, whatever a tablet's clock said. */
function inOrder(deeds: Deed[], from: Date): Deed[] {
  let clock = from;
  return deeds.map((deed) => {
    if (deed.at > clock) clock = deed.at;
    return { ...deed, at: clock };
  });
}

/** Deeds of stops that do not go by trays, in the plan's order. */
function plainDeeds(run: RunView, waiting: Event[]): Deed[] {
  const byTrays = new Set(run.tray_steps.map((s) => s.stop));
  const deeds = told(
    run,
    run.standing.deeds.filter((d) => !byTrays.has(d.stop)).map(dated),
    waiting,
    (e) => (e.kind === "done" || e.kind === "out") && (e.tray === undefined || e.tray === null),
  );
  return inPlace(run, deeds);
}

function inPlace(run: RunView, deeds: Deed[]): Deed[] {
  const place = new Map(run.order.map((o, i) => [`${o.kind} ${o.stop}`, i]));
  const nth = (d: Deed) => place.get(`${d.kind} ${d.stop}`) ?? run.order.length;
  return deeds.toSorted((a, b) => nth(a) - nth(b));
}

/** What was done with each tray and whether it is lost, the entries that wait here included. */
function trayDeeds(run: RunView, waiting: Event[]) {
  const begun = startedAt(run, waiting);
  const first = run.order.findIndex((o) => o.stop === run.tray_steps[0]?.stop);
  const before = plainDeeds(run, waiting).slice(0, Math.max(first, 0));
  const cut = inOrder(before, begun).at(-1)?.at ?? begun;
  const gone = takenBack(waiting);
  return run.standing.trays.map((tray) => ({
    tray,
    cut,
    lost: Boolean(
      (tray.lost && !gone.has(tray.lost.event_id)) ||
        waiting.some((e) => e.kind === "lost" && e.tray === tray.tray && !gone.has(e.id)),
    ),
    deeds: inOrder(
      told(
        run,
        tray.deeds.map(dated),
        waiting,
        (e) => e.tray === tray.tray && TRAY_DEEDS.includes(e.kind),
      ).slice(0, run.tray_steps.length),
      cut,
    ),
  }));
}

/** Deeds in order; a stop that goes by trays is done when the last tray has done it. */
function deedsSoFar(run: RunView, waiting: Event[]): Deed[] {
  const each = trayDeeds(run, waiting).filter((t) => !t.lost);
  const all: Deed[] = [];
  for (const step of run.tray_steps) {
    if (step.kind === "in") continue;
    const last = each
      .map(({ deeds }) => deeds.find((d) => d.kind === step.kind && d.stop === step.stop))
      .reduce<Deed | null | undefined>(
        (late, d) => (late === null || !d ? null : !late || d.at > late.at ? d : late),
        undefined,
      );
    if (!last) break;
    all.push(last);
  }
  // What follows the trays comes after them, whenever it was entered.
  const deeds = inPlace(run, [...plainDeeds(run, waiting), ...all]);
  return inOrder(deeds, startedAt(run, waiting));
}

/** Where every tray is on this tablet. */
export function traysNow(run: RunView, waiting: Event[]): TrayNow[] {
  return trayDeeds(run, waiting).map(({ tray, deeds, lost, cut }) => {
    const last = deeds.at(-1);
    const next = lost ? null : (run.tray_steps[deeds.length] ?? null);
    const stop = run.worked.strip.find((s) => s.key === next?.stop);
    const minutes =
      next?.kind === "out" && stop
        ? restMinutes(run, waiting, stop)
        : last?.kind === "in"
          ? made(run.worked, "bake")?.bake_min
          : undefined;
    return {
      tray: tray.tray,
      product: tray.product,
      pieces: tray.pieces,
      load: tray.load,
      next,
      last: run.tray_steps[deeds.length - 1] ?? null,
      lost,
      does: (stop?.do as Do | undefined) ?? null,
      rest: (next?.kind === "out" && stop?.rest) || null,
      gives: stop?.gives ?? 0,
      since: last?.at ?? null,
      entry: last?.id ?? null,
      earliest: deeds.at(-2)?.at ?? cut,
      until: last && minutes !== undefined ? new Date(last.at.getTime() + minutes * MINUTE) : null,
    };
  });
}

/**
 * How soon a tray wants hands, the least first: what burns, then what stands open, then what is over
 * its time, then what has not begun; what only waits comes by its time.
 */
export function urgency(tray: TrayNow, clock: Date): number {
  if (!tray.next) return Number.POSITIVE_INFINITY;
  const left = tray.until ? minutesBetween(clock, tray.until) : 0;
  if (left > 0) return 100 + left;
  if (tray.last?.kind === "in") return 0;
  if (tray.next.kind === "in") return 1;
  if (tray.does === "wash") return 2;
  if (tray.next.kind === "out") return tray.does === "shape" ? 3 : 5;
  return 4;
}

export function whereNow(run: RunView, waiting: Event[]): Now {
  const { standing, order, worked } = run;
  const strip = worked.strip;
  const named = (key: string) => strip.find((s) => s.key === key) ?? null;
  const deeds = deedsSoFar(run, waiting);
  const gone = takenBack(waiting);
  const due = order[deeds.length];
  const last = deeds.at(-1);
  const started = startedAt(run, waiting);
  const since = last?.at ?? started;
  const stop = due ? named(due.stop) : null;
  const byTrays = Boolean(due && run.tray_steps.some((s) => s.stop === due.stop));
  const trays = byTrays ? traysNow(run, waiting) : [];
  const resting = due?.kind === "out" && !byTrays;
  const ended =
    (trays.length > 0 && trays.every((t) => t.lost)) ||
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
    turnsDone: deeds.filter((d) => d.kind === "done" && named(d.stop)?.turn).length,
    trays,
    startedAt: started,
    atFirst: deeds.length === 0,
    lastDeed:
      last && !byTrays
        ? { ...last, name: named(last.stop)?.name ?? "", earliest: deeds.at(-2)?.at ?? null }
        : null,
  };
}

/** How long the rest after a stop is to take: as chosen at the bench, or else the plan's. */
export function restMinutes(run: RunView, waiting: Event[], stop: Schemas["Stop"]): number {
  const gone = takenBack(waiting);
  const here = waiting.filter((e) => e.kind === "rest" && e.stop === stop.key && !gone.has(e.id));
  const known = run.standing.rests.find((r) => r.stop === stop.key)?.minutes;
  return here.at(-1)?.minutes ?? known ?? restMin(stop.rest);
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

/** What Undo would take back: the latest entry that still stands, if one is known here. */
export function undoTarget(run: RunView, waiting: Event[]): string | null {
  const gone = takenBack(waiting);
  const here = waiting.findLast((e) => e.kind !== "undo" && !gone.has(e.id))?.id;
  const latest = here ?? run.standing.undoable ?? null;
  return gone.has(latest) ? null : latest;
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

/** What was done with trays last, all of one press together; or what was done with the chosen one. */
export function lastOfTrays(trays: TrayNow[], chosen: number | null): TrayNow[] {
  const done = trays.filter((t) => t.entry && t.since && !t.lost);
  const mine = done.find((t) => t.tray === chosen);
  if (mine) return [mine];
  const when = (t: TrayNow) => t.since?.getTime() ?? 0;
  const latest = done.reduce<TrayNow | null>((a, b) => (a && when(a) >= when(b) ? a : b), null);
  const same = (t: TrayNow) =>
    latest !== null &&
    t.last?.kind === latest.last?.kind &&
    t.last?.stop === latest.last?.stop &&
    when(latest) - when(t) < TOGETHER_MS;
  return done.filter(same);
}

/** Entries this near to each other came of one press. */
const TOGETHER_MS = 2_000;
