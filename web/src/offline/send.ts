/**
 * Sends what waits, run by run, in the order in which it was entered. No entry is thrown away: one that
 * the bakehouse refuses for what it says is put aside for a person, everything else is tried again.
 */
import type { Entry } from "./db";

const FIRST_PAUSE_MS = 1_000;
const LONGEST_PAUSE_MS = 60_000;
/** The refusals that are about the entry itself: what it says cannot be. */
const OF_ITSELF = new Set([409, 422]);
/** The dough is not there; perhaps another tablet is still to say that it was begun. */
const NOWHERE = 404;
const MOST_AT_ONCE = 50;

/** What came of sending: an answer with its status, or none at all. */
export type Sent = { status: number; body: unknown; faults: NonNullable<Entry["aside"]> } | null;

/** To start one run, add one picture, or say some events: oldest first, all or none. */
export type Post = (entries: Entry[]) => Promise<Sent>;

export interface Shelf {
  all: () => Promise<Entry[]>;
  put: (entry: Entry) => Promise<void>;
  drop: (entries: Entry[]) => Promise<void>;
}

export interface Told {
  /** The bakehouse has them; what it answered. */
  sent?: (entries: Entry[], body: unknown) => void;
  /** It did not answer, or not as it should. */
  kept?: (entries: Entry[], sent: Sent) => void;
}

/** What of a run or a block can go together: all of the same kind up to the next of another. */
export function together(entries: Entry[]): Entry[] {
  const [first] = entries;
  if (first?.what !== "event" && first?.what !== "change") return entries.slice(0, 1);
  const other = entries.findIndex((e) => e.what !== first.what || e.by !== first.by);
  return entries.slice(0, Math.min(other < 0 ? entries.length : other, MOST_AT_ONCE));
}

export const pause = (tries: number): number =>
  Math.min(FIRST_PAUSE_MS * 2 ** Math.min(tries, 16), LONGEST_PAUSE_MS);

/** Sends all that may be sent now; true where nothing waits any more but for a person. */
export async function sendAll(
  shelf: Shelf,
  post: Post,
  now: () => number,
  told: Told = {},
): Promise<boolean> {
  const stuck = new Set<string>();
  // one by one where several were refused together, to find out which it was
  const alone = new Set<string>();
  for (;;) {
    const waiting = (await shelf.all()).filter((e) => !e.aside && !e.either);
    if (waiting.length === 0) return true;
    const first = waiting.find((e) => !stuck.has(e.run));
    if (!first) return false;
    if (first.next > now()) {
      stuck.add(first.run);
      continue;
    }
    const of = together(waiting.filter((e) => e.run === first.run));
    const going = alone.has(first.run) ? of.slice(0, 1) : of;
    const sent = await post(going);
    if (sent && sent.status < 300) {
      await shelf.drop(going);
      const made = (sent.body as { id?: string } | null)?.id;
      // another tablet was quicker: what waits for the run is for the one that is there
      if (first.what === "start" && made && made !== first.run)
        for (const e of waiting)
          if (e.run === first.run && e !== first) await shelf.put({ ...e, run: made });
      told.sent?.(going, sent.body);
      continue;
    }
    if (sent?.status === NOWHERE) {
      const next = now() + pause(first.tries);
      for (const each of going)
        await shelf.put({ ...each, tries: each.tries + 1, next, nowhere: true });
      told.kept?.(going, sent);
      stuck.add(first.run);
      continue;
    }
    if (sent && OF_ITSELF.has(sent.status)) {
      if (going.length > 1) alone.add(first.run);
      else await shelf.put({ ...first, aside: sent.faults });
      told.kept?.(going, sent);
      continue;
    }
    // without an answer any of them may have arrived
    const next = now() + pause(first.tries);
    for (const each of going) await shelf.put({ ...each, tries: each.tries + 1, next });
    told.kept?.(going, sent);
    stuck.add(first.run);
    // nobody answers at all: no other run will fare better
    if (!sent) return false;
  }
}
