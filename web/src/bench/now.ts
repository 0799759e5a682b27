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

const isDeed = (e: Event) => e.kind === "done" || e.kind === "out";
const MINUTE = 60_000;

export function whereNow(run: RunView, waiting: Event[]): Now {
  const { standing, order, worked } = run;
  const strip = worked.strip;
  const named = (key: string) => strip.find((s) => s.key === key) ?? null;
  const ahead = waiting.filter(isDeed);
  const at = standing.deeds.length + ahead.length;
  const deed = order[at];
  const last = ahead.at(-1);
  const known = standing.deeds.at(-1);
  const since = new Date(last?.at ?? standing.since);
  const stop = deed ? named(deed.stop) : null;
  const resting = deed?.kind === "out";
  const ended = standing.phase === "given_up" || waiting.some((e) => e.kind === "give_up");
  const lastDeed = last
    ? { id: last.id, kind: last.kind, at: since, name: named(last.stop ?? "")?.name ?? "" }
    : known
      ? {
          id: known.event_id,
          kind: known.kind,
          at: new Date(known.at),
          name: named(known.stop)?.name ?? "",
        }
      : null;
  return {
    phase: ended ? "given_up" : !deed ? "finished" : resting ? "rest" : "work",
    stop,
    next: stop ? (strip[strip.indexOf(stop) + (resting ? 1 : 0)] ?? null) : null,
    since,
    until: resting && stop?.rest ? new Date(since.getTime() + stop.rest.minutes * MINUTE) : null,
    turnsDone:
      standing.turns_done +
      ahead.filter((e) => e.kind === "done" && e.stop?.startsWith("turn-")).length,
    lastDeed,
  };
}

/** Minutes from `from` to `to`; negative when `to` is past. */
export const minutesBetween = (from: Date, to: Date): number =>
  (to.getTime() - from.getTime()) / MINUTE;
