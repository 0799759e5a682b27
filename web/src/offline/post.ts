/** How what waits is kept and sent; used by the pages and by the service worker alike. */
import { type Entry, kept } from "./db";
import type { Post, Sent, Shelf } from "./send";

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
  const form = new FormData();
  form.append("id", first.body.id);
  form.append("words", first.body.words);
  form.append("file", first.body.file, "picture");
  return { path: `/api/runs/${first.run}/photos`, body: form, json: false };
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
