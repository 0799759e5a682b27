/** What of a day stands first on Today. */
import type { Schemas } from "@/api/client";

type Due = Schemas["Due"];

const MOST_NEXT = 8;

/** What needs hands now, most pressing first; what comes next; and how much is done. */
export function pressing(due: Due[]): { first: Due[]; next: Due[]; done: number } {
  const first = due.filter((d) => d.when === "late" || d.when === "now");
  const soon = due.filter((d) => d.when === "next");
  const later = due.filter((d) => d.when === "later");
  // there is always something to look ahead to
  const next = [...soon, ...later.slice(0, Math.max(3 - soon.length, 0))].slice(0, MOST_NEXT);
  return { first, next, done: due.filter((d) => d.when === "done").length };
}
