/** Which life of the house this tablet knows: another one began when a copy was put back. */
import { useSyncExternalStore } from "react";

const KEY = "eight-turn.life";
const changed = new Set<() => void>();
let heard: string | null = null;

/** The life that this tablet last knew, and has nothing to ask about. */
export const knownLife = (): string | null => localStorage.getItem(KEY);

/** What an answer said. The first that is heard is known at once. */
export function hearLife(life: string | null): void {
  if (!life || life === heard) return;
  heard = life;
  if (!knownLife()) localStorage.setItem(KEY, life);
  for (const tell of changed) tell();
}

/** Nothing is left to ask about the life that began. */
export function knowLife(life: string): void {
  localStorage.setItem(KEY, life);
  for (const tell of changed) tell();
}

/** Whether the house is in another life than this tablet knows. */
export const useAnotherLife = (): boolean =>
  useSyncExternalStore(
    (tell) => {
      changed.add(tell);
      return () => changed.delete(tell);
    },
    () => heard !== null && knownLife() !== heard,
  );
