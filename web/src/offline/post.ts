/** How what waits is kept and sent; used by the pages and by the service worker alike. */
import { type Entry, kept } from "./db";
import type { Post, Sent, Shelf } from "./send";
import { atOf, placing, type Stamp } from "./times";

/** Only one page, or the service worker, sends at a time. */
export const LOCK = "eight-turn.outbox";
const ANSWERS_WITHIN_MS = 20_000;

export const shelf: Shelf = {
  all: async () => (await kept()).getAll("outbox"),
  put: async (entry) => {
    await (await kept()).put("outbox", entry);
  },
  drop: async (gone) => {
    const db = await kept();
    const tx = db.transaction("outbox", "readwrite");
    for (const { n } of gone) if (n !== undefined) tx.store.delete(n);
    await tx.done;
  },
};

/** Where each kind of entry goes, and as what. */
function request(sending: Entry[]): { path: string; body: BodyInit; json: boolean } | null {
  const [first] = sending;
  if (!first) return null;
  if (first.what === "start")
    return { path: "/api/runs", body: JSON.stringify(first.body), json: true };
  if (first.what === "event") {
    const events = sending.flatMap((e) => (e.what === "event" ? [e.body] : []));
    const body = JSON.stringify({ events, by: first.by });
    return { path: `/api/runs/${first.run}/events`, body, json: true };
  }
  if (first.what === "block") {
    const body = JSON.stringify({ put: first.body, by: first.by });
    return { path: "/api/blocks", body, json: true };
  }
  if (first.what === "change") {
    const changes = sending.flatMap((e) => (e.what === "change" ? [e.body] : []));
    const body = JSON.stringify({ changes, by: first.by });
    return { path: `/api/blocks/${first.run}/changes`, body, json: true };
  }
  if (first.what === "play")
    return { path: "/api/plays", body: JSON.stringify(first.body), json: true };
  const form = new FormData();
  form.append("id", first.body.id);
  form.append("words", first.body.words);
  form.append("file", first.body.file, "picture");
  return { path: `/api/runs/${first.run}/photos`, body: form, json: false };
}

/** The shortest thing that the house answers; null where nobody does. */
export async function askHealth(asked: string): Promise<Response | null> {
  try {
    const address = new URL("/api/health", location.origin);
    const signal = AbortSignal.timeout(ANSWERS_WITHIN_MS);
    return await fetch(new Request(address, { headers: { "X-Asked": asked }, signal }));
  } catch {
    return null;
  }
}

/**
 * Put the times of what waits right, by what is known of the house's clock now; what nobody can tell waits
 * for a person.
 */
export async function putTimesRight(now: Stamp): Promise<void> {
  for (const entry of await shelf.all()) {
    if (!entry.stamp || entry.either || entry.tries > 0) continue;
    const where = placing(entry.stamp, now);
    if ("either" in where) {
      const [then, by] = where.either;
      await shelf.put({ ...entry, either: [atOf(entry.stamp, then), atOf(entry.stamp, by)] });
    } else if (where.offset !== entry.stamp.offset) {
      await shelf.put(withTime(entry, atOf(entry.stamp, where.offset)));
    }
  }
}

/** When an entry was, as it says itself; nothing for a picture. */
export function whenOf(entry: Entry): string | undefined {
  if (entry.what === "picture") return undefined;
  if (entry.what === "start") return entry.body.started_at ?? undefined;
  return entry.body.at;
}

/** The entry as of another time; nothing is to be asked about it any more. */
export function withTime(entry: Entry, at: string): Entry {
  const { either: _, stamp: __, ...rest } = entry;
  if (rest.what === "event") return { ...rest, body: { ...rest.body, at } };
  if (rest.what === "change") return { ...rest, body: { ...rest.body, at } };
  if (rest.what === "play") return { ...rest, body: { ...rest.body, at } };
  if (rest.what === "block") return { ...rest, body: { ...rest.body, at } };
  if (rest.what === "start") return { ...rest, body: { ...rest.body, started_at: at } };
  return rest;
}

const NOT_OURS = 502;

/** Sends some entries over the network; `token`: what shows the house that a page of its own asks. */
export const post =
  (token: () => string): Post =>
  async (sending): Promise<Sent> => {
    const to = request(sending);
    if (!to) return null;
    const headers: Record<string, string> = { "X-CSRFToken": token() };
    if (to.json) headers["Content-Type"] = "application/json";
    try {
      const answer = await fetch(
        new Request(new URL(to.path, location.origin), {
          method: "POST",
          body: to.body,
          headers,
          signal: AbortSignal.timeout(ANSWERS_WITHIN_MS),
        }),
      );
      const body = await answer.json().catch(() => null);
      // A page of somebody else's in between is no answer of the bakehouse, whatever its number.
      const faults = Array.isArray(body?.faults) ? body.faults : undefined;
      const ours = answer.ok ? body?.id !== undefined : faults !== undefined;
      return { status: ours ? answer.status : NOT_OURS, body, faults: faults ?? [] };
    } catch {
      return null;
    }
  };
