/** Who of the house is at this tablet, where several use one that one of them signed in. */
import { useLocalStorage } from "@mantine/hooks";

const KEY = "eight-turn.here";

/** For what is said now; null: whoever is signed in. */
export function whoIsHere(): string | null {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "null");
  } catch {
    return null;
  }
}

/** Whoever signed the tablet in has left: so has everybody who used it with them. */
export const nobodyHere = (): void => localStorage.removeItem(KEY);

export const useHere = () => useLocalStorage<string | null>({ key: KEY, defaultValue: null });
