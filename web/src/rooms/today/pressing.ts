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

/** One task of the day, the same at every look. */
export const keyOf = (due: Due): string => `${due.doughs[0]} ${due.step}`;

/** What is late by so much that the rest of the day may have to move: the same text until more is. */
export function lateBy(due: Due[], minutes: number): string {
  return due
    .filter((d) => d.when === "late" && -d.minutes >= minutes)
    .map(keyOf)
    .join(", ");
}

/** What is called out at this look that was not at the last, for one person or for everybody. */
export function calledOut(due: Due[], before: ReadonlySet<string>, who: string): Due[] {
  return due.filter(
    (d) =>
      (d.when === "now" || d.when === "late") &&
      !d.begun &&
      (!who || !d.who || d.who === who) &&
      !before.has(`${keyOf(d)} ${d.when}`),
  );
}
