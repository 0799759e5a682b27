/**
 * When something was entered, on a tablet whose clock may be set while it is away from the house.
 *
 * An entry keeps what the tablet's clock said and how far its ticks had counted. When the house is there
 * again and its time is another than was thought, the ticks say whether the clock was set before the entry
 * or after it; where they cannot (the page was opened anew between), a person is asked.
 */

/** A moment as a tablet knows it: its clock, its ticks since the page was opened, what was to be added. */
export interface Stamp {
  wall: number;
  ticks: number;
  /** Which opening of the page counts the ticks. */
  page: string;
  offset: number;
}

/** Two clocks that differ by less say the same. */
const SAME_MS = 1_500;

const PAGE = String(performance.timeOrigin);

export const stampNow = (offset: number): Stamp => ({
  wall: Date.now(),
  ticks: performance.now(),
  page: PAGE,
  offset,
});

/** What is to be added to the tablet's clock at an entry; both that may be right where nobody can tell. */
export type Placing = { offset: number } | { either: [number, number] };

/** Where an entry belongs, by what is known now. */
export function placing(then: Stamp, now: Stamp): Placing {
  if (Math.abs(then.offset - now.offset) < SAME_MS) return { offset: then.offset };
  // by how much the clock was set forward since the house was last heard
  const set = then.offset - now.offset;
  if (then.page === now.page) {
    const since = now.wall - then.wall - (now.ticks - then.ticks);
    if (Math.abs(since) < SAME_MS) return { offset: now.offset };
    if (Math.abs(since - set) < SAME_MS) return { offset: then.offset };
  }
  // no entry is from after now
  if (then.wall + then.offset > now.wall + now.offset + SAME_MS) return { offset: now.offset };
  if (then.wall + now.offset > now.wall + now.offset + SAME_MS) return { offset: then.offset };
  return { either: [then.offset, now.offset] };
}

export const atOf = (stamp: Stamp, offset: number): string =>
  new Date(stamp.wall + offset).toISOString();
