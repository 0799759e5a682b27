/**
 * The bakehouse's clock, as this tablet has learnt it from every answer. The tablet's own may be wrong
 * either way; what is entered is stamped by this one, with a connection or without.
 */
const KEY = "eight-turn.clock";
/** Beyond this a person is told. */
const ODD_MS = 90_000;

interface Learnt {
  /** What is to be added to the tablet's clock, ms. */
  offset: number;
  /** How long the answer took that said so: the shorter, the surer. */
  took: number;
  at: number;
}

let learnt: Learnt | null = null;
const changed = new Set<() => void>();

function remembered(): Learnt {
  if (!learnt) {
    try {
      learnt = JSON.parse(localStorage.getItem(KEY) ?? "null");
    } catch {
      learnt = null;
    }
    learnt ??= { offset: 0, took: Number.POSITIVE_INFINITY, at: 0 };
  }
  return learnt;
}

let heardAt = Number.NEGATIVE_INFINITY;

/** Whether the bakehouse said its time within the last so many ms, by ticks and not by a clock. */
export const isFresh = (within: number): boolean => performance.now() - heardAt < within;

/**
 * A fresh answer said what time it was in the bakehouse. One from a cache is none: it would say what time
 * it was when it was kept.
 */
export function learn(house: number, asked: number, answered: number): void {
  if (!Number.isFinite(house)) return;
  heardAt = performance.now();
  const was = remembered();
  const took = Math.max(answered - asked, 0);
  const offset = Math.round(house - (asked + answered) / 2);
  // Somebody has set one of the clocks, or the one that is known is old, or this one is surer.
  const jumped = Math.abs(offset - was.offset) > Math.max(took, 2_000);
  if (!jumped && took > was.took && answered - was.at < 3_600_000) return;
  learnt = { offset, took, at: answered };
  try {
    localStorage.setItem(KEY, JSON.stringify(learnt));
  } catch {
    // It is known until the page is closed.
  }
  if (Math.abs(offset - was.offset) > 1_000) for (const tell of changed) tell();
}

/** What is to be added to this tablet's clock, ms. */
export const houseOffset = (): number => remembered().offset;

/** What time it is in the bakehouse, ms. */
export const houseTime = (): number => Date.now() + remembered().offset;

/** By how much this tablet's clock is ahead (or, negative, behind), ms; 0 where it is near enough. */
export function tabletIsOff(): number {
  const { offset } = remembered();
  return Math.abs(offset) > ODD_MS ? -offset : 0;
}

export function onClock(tell: () => void): () => void {
  changed.add(tell);
  return () => changed.delete(tell);
}
