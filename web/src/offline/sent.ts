/** What this tablet sent lately: kept a while, for a house that is put back to an earlier copy. */
import { type DBSchema, openDB } from "idb";
import type { Entry } from "./db";

const KEPT_MS = 8 * 24 * 3_600_000;
/** Pictures are large. */
const MOST_PICTURES = 24;

export interface SentEntry {
  id: string;
  /** When the house had it, by its own clock, ms. */
  at: number;
  entry: Entry;
}

interface Kept extends DBSchema {
  sent: { key: string; value: SentEntry; indexes: { at: number } };
}

let opened: ReturnType<typeof open> | undefined;

function open() {
  return openDB<Kept>("eight-turn-sent", 1, {
    upgrade(db) {
      db.createObjectStore("sent", { keyPath: "id" }).createIndex("at", "at");
    },
  });
}

const kept = () => {
  opened ??= open();
  return opened;
};

/** The house has these. */
export async function remember(entries: Entry[], at: number): Promise<void> {
  const tx = (await kept()).transaction("sent", "readwrite");
  for (const entry of entries) await tx.store.put({ id: entry.id, at, entry });
  let pictures = 0;
  for (let c = await tx.store.index("at").openCursor(null, "prev"); c; c = await c.continue()) {
    if (c.value.entry.what === "picture") pictures += 1;
    const tooMany = c.value.entry.what === "picture" && pictures > MOST_PICTURES;
    if (tooMany || c.value.at < at - KEPT_MS) await c.delete();
  }
  await tx.done;
}

/** What was sent since a moment, in the order in which it was entered. */
export async function sentSince(at: number): Promise<Entry[]> {
  const found = await (await kept()).getAllFromIndex("sent", "at", IDBKeyRange.lowerBound(at));
  return found.map((s) => s.entry).sort((a, b) => (a.n ?? 0) - (b.n ?? 0));
}

export async function forgetSent(): Promise<void> {
  await (await kept()).clear("sent");
}
