/** The outbox of this tablet: one for all its pages and tabs, kept in the browser until it is sent. */
import { useSyncExternalStore } from "react";
import { csrfToken, hear, type Schemas } from "@/api/client";
import { queries } from "@/api/queries";
import { showRun } from "@/api/runs";
import { houseOffset, houseTime, isFresh } from "@/wire/clock";
import { answered, onBack, troubled, unanswered } from "@/wire/connection";
import { newId } from "@/wire/id";
import { type Entry, kept, type What } from "./db";
import { whoIsHere } from "./here";
import { askHealth, LOCK, post, putTimesRight, shelf, whenOf, withTime } from "./post";
import { sendAll } from "./send";
import { remember } from "./sent";
import { atOf, stampNow } from "./times";

const EVERY_MS = 3_000;
/** What the house said of its time longer ago is asked anew before anything is sent by it. */
const FRESH_MS = 20_000;

let entries: Entry[] = [];
let busy = false;
const changed = new Set<() => void>();
const others = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel(LOCK);

function show(next: Entry[]): void {
  entries = next;
  for (const tell of changed) tell();
}

async function look(): Promise<void> {
  show(await (await kept()).getAll("outbox"));
}

function tellOthers(): void {
  others?.postMessage("changed");
}

/** Does something while no page of this tablet sends; null, and nothing done, while one does. */
async function alone<T>(then: () => Promise<T>): Promise<T | null> {
  if (navigator.locks)
    return navigator.locks.request(LOCK, { ifAvailable: true }, (lock) => (lock ? then() : null));
  if (busy) return null;
  busy = true;
  try {
    return await then();
  } finally {
    busy = false;
  }
}

let working: Promise<unknown> = Promise.resolve();

/** Send what waits, from this page, unless another page is at it. */
export function send(): Promise<unknown> {
  const now = async () => {
    if (!(await shelf.all()).some((e) => !e.aside && !e.either)) return look();
    if (!isFresh(FRESH_MS) && !(await askTheTime())) {
      unanswered();
      return look();
    }
    if (isFresh(FRESH_MS)) await putTimesRight(stampNow(houseOffset()));
    await sendAll(shelf, post(csrfToken), houseTime, {
      sent: (entries, body) => {
        const [first] = entries;
        answered();
        troubled(null);
        void remember(entries, houseTime()).catch(() => undefined);
        if (first?.what === "block" || first?.what === "change")
          queries.invalidateQueries({ queryKey: ["store"] });
        else if (first?.what === "play") queries.invalidateQueries({ queryKey: ["lessons"] });
        else if (first) showRun(body as Schemas["RunNow"]);
        if (first?.what === "start") {
          queries.invalidateQueries({ queryKey: ["runs"] });
          if (first.body.block) queries.invalidateQueries({ queryKey: ["store"] });
        }
      },
      kept: ([first], sent) => {
        if (sent) {
          answered();
          if (sent.status === 503) troubled(sent.faults[0]?.message ?? null);
          if (first) queries.invalidateQueries({ queryKey: ["run", first.run] });
          if (first?.what === "change") queries.invalidateQueries({ queryKey: ["store"] });
          if (sent.status === 401) queries.invalidateQueries({ queryKey: ["session"] });
        } else unanswered();
      },
    });
    await look();
    tellOthers();
  };
  const next = () => alone(now);
  working = working.then(next, next);
  return working;
}

/** Learn what time it is in the house; false where nobody answers. */
async function askTheTime(): Promise<boolean> {
  const asked = newId();
  const at = Date.now();
  const answer = await askHealth(asked);
  if (answer) hear(asked, at, answer);
  return answer !== null;
}

/** Something said at the bench, without when and by what id. */
export type Saying = Omit<Schemas["Event"], "id" | "at">;

/** Say something of a dough: it is of now, and goes through the outbox. */
export async function say(run: string, saying: Saying): Promise<string> {
  const id = newId();
  const body = { id, at: new Date(houseTime()).toISOString(), ...saying };
  await put(run, { what: "event", body }, id);
  return id;
}

/** Put something into the outbox: on the screen at once, then kept, and on its way until the server has it. */
export async function put(run: string, what: What, id: string): Promise<void> {
  const session = queries.getQueryData<Schemas["Session"]>(["session"]);
  const by = whoIsHere() ?? session?.me?.username ?? null;
  const stamp = stampNow(houseOffset());
  const dated: Entry = { ...what, id, run, by, tries: 0, next: 0 };
  // a time that somebody chose is theirs
  const entry =
    atOf(stamp, stamp.offset).slice(0, 18) === timeOf(dated) ? { ...dated, stamp } : dated;
  show([...entries, entry]);
  const db = await kept();
  await db.add("outbox", entry);
  await look();
  tellOthers();
  void askTheWorker();
  void send();
}

/** The moment that an entry says it is of, to ten seconds. */
const timeOf = (entry: Entry): string | undefined => whenOf(entry)?.slice(0, 18);

/** Where the browser can, it sends in the background, also when every page is closed. */
async function askTheWorker(): Promise<void> {
  const there = await navigator.serviceWorker?.ready;
  const sync = (there as unknown as { sync?: { register: (tag: string) => Promise<void> } })?.sync;
  await sync?.register(LOCK).catch(() => undefined);
}

/** There is a connection again: nothing waits out its pause. */
async function hurry(): Promise<void> {
  for (const entry of await shelf.all()) if (entry.next) await shelf.put({ ...entry, next: 0 });
  await send();
}

/** What waits under an id. */
export const waitingAs = (id: string): Entry | undefined => entries.find((e) => e.id === id);

/** Take back what was never sent; false where it is on its way, there already, or may be for all we know. */
export async function takeBack(id: string): Promise<boolean> {
  const gone = await alone(async () => {
    const entry = await (await kept()).getFromIndex("outbox", "id", id);
    if (!entry || entry.tries > 0) return false;
    await drop(entry);
    return true;
  });
  return gone ?? false;
}

export async function drop(entry: Entry): Promise<void> {
  show(entries.filter((e) => e.id !== entry.id));
  await shelf.drop([entry]);
  tellOthers();
}

/** Try again what was put aside, as it is or as of another time. */
export async function again(entry: Entry, at?: string): Promise<void> {
  const { aside: _, nowhere: __, ...back } = entry;
  await shelf.put({ ...(at ? withTime(back, at) : back), tries: 0, next: 0 } as Entry);
  await look();
  tellOthers();
  await send();
}

/** A person has said at which time each of these was. */
export async function settle(said: readonly (readonly [Entry, string])[]): Promise<void> {
  for (const [entry, at] of said) await shelf.put(withTime(entry, at));
  await look();
  tellOthers();
  await send();
}

/** Send again what the house had once, and has lost with an earlier copy; what it has, it passes over. */
export async function sendAgain(lost: Entry[]): Promise<void> {
  const db = await kept();
  for (const { n: _, aside: __, ...entry } of lost) {
    if (!(await db.getFromIndex("outbox", "id", entry.id)))
      await db.add("outbox", { ...entry, tries: 0, next: 0 } as Entry);
  }
  await look();
  tellOthers();
  await send();
}

/** Begin to look after the outbox on this page. */
export function lookAfter(): () => void {
  const heard = () => void look();
  others?.addEventListener("message", heard);
  const soon = () => {
    if (entries.length > 0) void send();
  };
  const awake = () => {
    if (document.visibilityState === "visible") void look().then(soon);
  };
  const each = setInterval(soon, EVERY_MS);
  const back = onBack(() => void hurry());
  window.addEventListener("online", hurry);
  document.addEventListener("visibilitychange", awake);
  void fromBefore().then(look).then(soon);
  return () => {
    others?.removeEventListener("message", heard);
    clearInterval(each);
    back();
    window.removeEventListener("online", hurry);
    document.removeEventListener("visibilitychange", awake);
  };
}

/** What an earlier version kept of each run goes into the one outbox. */
async function fromBefore(): Promise<void> {
  const OLD = "eight-turn.run.";
  for (const key of Object.keys(localStorage).filter((k) => k.startsWith(OLD))) {
    let events: Schemas["Event"][] = [];
    try {
      events = JSON.parse(localStorage.getItem(key) ?? "[]");
    } catch {
      // What cannot be read was never sent either way.
    }
    const db = await kept();
    for (const body of events) {
      const entry: Entry = {
        what: "event",
        body,
        id: body.id,
        run: key.slice(OLD.length),
        by: null,
        tries: 0,
        next: 0,
      };
      if (!(await db.getFromIndex("outbox", "id", body.id))) await db.add("outbox", entry);
    }
    localStorage.removeItem(key);
  }
}

/** Everything that waits, oldest first. */
export const useOutbox = (): Entry[] =>
  useSyncExternalStore(
    (tell) => {
      changed.add(tell);
      return () => changed.delete(tell);
    },
    () => entries,
  );
