import { useSyncExternalStore } from "react";
import { houseTime, onClock } from "@/wire/clock";

const EVERY_MS = 1000;
const watching = new Set<() => void>();
let now = new Date(houseTime());
let stop = () => {};

function tick() {
  now = new Date(houseTime());
  for (const tell of watching) tell();
}

function watch(tell: () => void) {
  if (!watching.size) {
    now = new Date(houseTime());
    const ticking = setInterval(tick, EVERY_MS);
    const forget = onClock(tick);
    stop = () => {
      clearInterval(ticking);
      forget();
    };
  }
  watching.add(tell);
  return () => {
    watching.delete(tell);
    if (!watching.size) stop();
  };
}

/**
 * The bakehouse's time, ticking here each second: this tablet's own clock may be wrong. One clock for the
 * screen; only what asks for it is drawn again.
 */
export const useClock = (): Date => useSyncExternalStore(watch, () => now);
