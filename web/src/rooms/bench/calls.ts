/** What is said of a dough at rest, by heading and alarm alike: one verdict, from one place. */
import type { Schemas } from "@/api/client";

/** Moments of a rest by its temperatures; null where one never comes, or came as it went in. */
export interface Marks {
  possible: Date | null;
  ready: Date | null;
  best: Date | null;
  last: Date | null;
}

/** Leave it; it may come out; its time is up; last call. */
export type Call = "leave" | "may" | "out" | "last";

const AT_ONCE_MS = 90_000;

/** The moments worth marking: one that had passed when the dough went in tells nobody anything. */
export function marksOf(warmth: Schemas["UnderWay"] | undefined, since: Date): Marks {
  const later = (at: string | null | undefined) =>
    at && new Date(at).getTime() - since.getTime() > AT_ONCE_MS ? new Date(at) : null;
  const ready = later(warmth?.good_at ?? warmth?.possible_at);
  const best = later(warmth?.best_at);
  const last = warmth?.good_until ?? warmth?.possible_until;
  return {
    possible: later(warmth?.possible_at),
    ready,
    // A best moment that is the first good one needs no second name.
    best: best && ready && best.getTime() - ready.getTime() <= AT_ONCE_MS ? null : best,
    last: last ? new Date(last) : null,
  };
}

/** What to do with it at this moment, by its temperatures and by the time it was given. */
export function callNow(marks: Marks, until: Date, now: Date): Call {
  if (marks.last && marks.last <= now) return "last";
  if (until <= now) return marks.possible && marks.possible > now ? "leave" : "out";
  return marks.ready && marks.ready <= now ? "may" : "leave";
}

/** The alarm that goes with it; null where nothing is to be said aloud. */
export function alarmNow(marks: Marks, until: Date, now: Date): string | null {
  const call = callNow(marks, until, now);
  if (call === "leave") return null;
  if (call === "last") return "last call, take it out";
  if (call === "out") return "its time is up, take it out";
  return marks.best && marks.best <= now ? "best now" : "it may come out now";
}
