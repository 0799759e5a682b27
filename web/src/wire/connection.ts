/** Whether the bakehouse answers, and since when it does not. */
import { useSyncExternalStore } from "react";
import { houseTime } from "./clock";

let lostAt: number | null = null;
const changed = new Set<() => void>();

function set(at: number | null): void {
  if ((at === null) === (lostAt === null)) return;
  lostAt = at;
  for (const tell of changed) tell();
}

const back = new Set<() => void>();

/** What is done when the bakehouse answers again. */
export function onBack(then: () => void): () => void {
  back.add(then);
  return () => back.delete(then);
}

export function answered(): void {
  const wasLost = lostAt !== null;
  set(null);
  if (wasLost) for (const then of back) then();
}
export const unanswered = (): void => set(houseTime());

/** What was said longer ago may be over: nobody writes all the time. */
const OVER_MS = 90_000;
let trouble: string | null = null;
let over: ReturnType<typeof setTimeout> | undefined;

/** What the bakehouse says is the matter with it, as with its disk; null where nothing is. */
export function troubled(sentence: string | null): void {
  clearTimeout(over);
  if (sentence) over = setTimeout(troubled, OVER_MS, null);
  if (sentence === trouble) return;
  trouble = sentence;
  for (const tell of changed) tell();
}

export const useTrouble = (): string | null =>
  useSyncExternalStore(
    (tell) => {
      changed.add(tell);
      return () => changed.delete(tell);
    },
    () => trouble,
  );

/** Since when there is no connection, ms; null while there is one. */
export const useLostSince = (): number | null =>
  useSyncExternalStore(
    (tell) => {
      changed.add(tell);
      return () => changed.delete(tell);
    },
    () => lostAt,
  );
