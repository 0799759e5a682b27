/** What this tablet keeps for itself: entries that wait to be sent, and what was read last. */
import { type DBSchema, openDB } from "idb";
import type { components } from "@/api/schema";
import type { Stamp } from "./times";

type Schemas = components["schemas"];

/** What may wait: a run that was started, something said at the bench, a picture, a block put away or
 * changed, a play of a lesson. */
export type What =
  | { what: "start"; body: Schemas["StartRun"] }
  | { what: "event"; body: Schemas["Event"] }
  | { what: "picture"; body: { id: string; words: string; file: Blob } }
  | { what: "block"; body: Schemas["PuttingAway"] }
  | { what: "change"; body: Schemas["BlockChange"] }
  | { what: "play"; body: Schemas["PlayDone"] };

export type Entry = What & {
  /** The tablet's own id: sent twice, it is one. */
  id: string;
  /** In which order it was entered. */
  n?: number;
  /** The run, the block or the lesson that it is of. */
  run: string;
  /** Which of the house's people entered it; whoever is signed in sends it. */
  by: string | null;
  tries: number;
  /** Not to be tried before, ms. */
  next: number;
  /** Why the bakehouse will not have it: it waits for a person. */
  aside?: Schemas["Fault"][];
  /** The dough that it is of is not there: it is tried again, and a person may look at it. */
  nowhere?: boolean;
  /** When it was entered, as the tablet knew it. */
  stamp?: Stamp;
  /** The two times at which it may have been: it waits for a person. */
  either?: [string, string];
};

interface Kept extends DBSchema {
  outbox: { key: number; value: Entry; indexes: { id: string } };
  read: { key: string; value: unknown };
}

let opened: ReturnType<typeof open> | undefined;

function open() {
  return openDB<Kept>("eight-turn", 1, {
    upgrade(db) {
      const outbox = db.createObjectStore("outbox", { keyPath: "n", autoIncrement: true });
      outbox.createIndex("id", "id", { unique: true });
      db.createObjectStore("read");
    },
  });
}

export function kept() {
  opened ??= open();
  return opened;
}
