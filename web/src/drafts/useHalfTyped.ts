/** What somebody is typing and has not kept yet: it survives a reload, and is gone once it is kept. */
import { useState } from "react";

const PREFIX = "eight-turn.half.";

/** `kept`: what stands there while nobody types. */
export function useHalfTyped<T>(key: string, kept: T) {
  const at = PREFIX + key;
  const [half, setHalf] = useState<T | null>(() => {
    try {
      return JSON.parse(localStorage.getItem(at) ?? "null") as T | null;
    } catch {
      return null;
    }
  });
  const set = (next: T) => {
    setHalf(next);
    try {
      localStorage.setItem(at, JSON.stringify(next));
    } catch {
      // a browser that keeps nothing still shows what is typed
    }
  };
  /** It is kept elsewhere, or thrown away. */
  const clear = () => {
    setHalf(null);
    localStorage.removeItem(at);
  };
  return { value: half ?? kept, set, clear };
}
