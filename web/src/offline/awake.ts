/** Keeps the screen on while a dough is under the hands. */
import { useEffect } from "react";

export function useAwake(wanted: boolean): void {
  useEffect(() => {
    if (!wanted || !("wakeLock" in navigator)) return;
    let lock: WakeLockSentinel | undefined;
    let gone = false;
    const ask = async () => {
      // it is let go whenever the page is out of sight
      if (gone || document.visibilityState !== "visible") return;
      lock = await navigator.wakeLock.request("screen").catch(() => undefined);
      if (gone) void lock?.release();
    };
    void ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", ask);
      void lock?.release();
    };
  }, [wanted]);
}
