/** What stands under a step and under its rest: how long the work may take, from when until when. */
import type { Schemas } from "@/api/client";
import { span } from "@/measures/quantity";

/** How long the butter stays workable at a stop beside how long the work takes; empty: long enough. */
export function clockWords(c: Schemas["WorkClock"] | undefined): { text: string; off: boolean } {
  if (typeof c?.lasts_min !== "number") return { text: "", off: false };
  const off = c.lasts_min < c.takes_min;
  const minutes = Math.round(c.lasts_min);
  return { text: off ? `butter only ${minutes} min` : `butter lasts ${minutes} min`, off };
}

/** From when until when a rest is good, and a word where the plan is outside; empty: nothing to say. */
export function windowWords(w: Schemas["RestWindow"]): { text: string; off: boolean } {
  const from = w.good_from_min ?? w.possible_from_min;
  const until = w.good_until_min ?? w.possible_until_min;
  if (from === null) return { text: "never ready", off: true };
  if (from === 0 && until === null) return { text: "", off: false };
  const off = w.verdict === "short" || w.verdict === "long";
  const word = { good: "", tight: "tight", short: "too short", long: "too long" }[w.verdict];
  const range =
    until === null
      ? `from ${span(Math.round(from))}`
      : until < from
        ? "no window"
        : `${span(Math.round(from))} to ${span(Math.round(until))}`;
  return { text: [range, word].filter(Boolean).join(", "), off };
}

const MARKS = [
  ["possible_from_min", "ready"],
  ["good_from_min", "good from"],
  ["good_until_min", "good until"],
  ["possible_until_min", "too long"],
] as const;

/** The marks of a rest as a hand feels them, whole minutes inside what is good. */
export function marksOf(w: Schemas["RestWindow"] | undefined) {
  return MARKS.flatMap(([key, said]) => {
    const at = w?.[key];
    if (typeof at !== "number") return [];
    return [{ at: key.endsWith("from_min") ? Math.ceil(at) : Math.floor(at), said }];
  }).filter((mark, i, all) => mark.at !== all[i - 1]?.at);
}
