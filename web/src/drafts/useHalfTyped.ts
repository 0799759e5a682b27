/** What somebody is typing and has not kept yet: it survives a reload, and is gone once it is kept. */
import { useState } from "react";

const PREFIX = "eight-turn.half.";

export function useHalfTyped<T>(key: string, kept: T) {
  const at = PREFIX + key;
  const [value, setValue] = useState<T>(() => {
    try {
      const found = localStorage.getItem(at);
      return found === null ? kept : (JSON.parse(found) as T);
    } catch {
      return kept;
    }
  });
  const set = (next: T) => {
    setValue(next);
    try {
      localStorage.setItem(at, JSON.stringify(next));
    } catch {
      // a browser that keeps nothing still shows what is typed
    }
  };
  /** It is kept elsewhere, or thrown away. */
  const clear = (next: T) => {
    setValue(next);
    localStorage.removeItem(at);
  };
  return { value, set, clear };
}
