/** What was read last, kept on the tablet, so that it can be read without a connection. */
import { type DehydratedState, dehydrate, hydrate, type QueryClient } from "@tanstack/react-query";
import { kept } from "./db";

declare const __READS__: string;

const KEY = "queries";
const EVERY_MS = 2_000;
const KEPT_FOR_MS = 4 * 24 * 3_600_000;
/** Runs under way with their plans and warmth, the day, and the words that everything is said with. */
const KEPT = [
  "session",
  "runs",
  "run",
  "run-warmth",
  "store",
  "lessons",
  "lesson",
  "lesson-bench",
  "offers",
  "climate",
  "today",
  "plans",
  "people",
  "trade",
  "kitchen",
] as const;

interface Read {
  /** What an older front end understood is not given to a newer one. */
  reads: string;
  at: number;
  client: DehydratedState;
}

/** A session of nobody is not worth keeping: it would stand in the way of whoever signed in since. */
const nobody = (data: unknown) =>
  typeof data === "object" && data !== null && "me" in data && data.me === null;

/** Whether what is read may be written down: not once somebody has signed out, until somebody is here. */
let open = true;
let soon: ReturnType<typeof setTimeout> | undefined;

/** Let go what was read, and write down nothing more until somebody signs in. */
export async function forgetRead(): Promise<void> {
  open = false;
  clearTimeout(soon);
  soon = undefined;
  await (await kept()).delete("read", KEY);
}

/** Put back what was read last, and keep from now on what is read. */
export async function keepWhatIsRead(queries: QueryClient, now = Date.now()): Promise<void> {
  const keys = new Set<unknown>(KEPT);
  for (const key of KEPT) queries.setQueryDefaults([key], { gcTime: KEPT_FOR_MS });
  try {
    const read = (await (await kept()).get("read", KEY)) as Read | undefined;
    if (read && read.reads === __READS__ && now - read.at < KEPT_FOR_MS) {
      hydrate(queries, read.client);
      // shown at once, and asked for anew
      queries.invalidateQueries({ refetchType: "none" });
    }
  } catch {
    // A browser that keeps nothing still shows what it is sent.
    return;
  }
  const write = async () => {
    soon = undefined;
    if (!open) return;
    const client = dehydrate(queries, {
      shouldDehydrateMutation: () => false,
      shouldDehydrateQuery: (query) =>
        query.state.data !== undefined && keys.has(query.queryKey[0]) && !nobody(query.state.data),
    });
    // that it could not be asked for lately takes nothing away from what was read
    for (const { state } of client.queries) {
      state.status = "success";
      state.error = null;
      state.fetchFailureReason = null;
    }
    const read: Read = { reads: __READS__, at: Date.now(), client };
    const db = await kept();
    if (open) await db.put("read", read, KEY).catch(() => undefined);
  };
  queries.getQueryCache().subscribe((event) => {
    const { data } = event.query.state;
    if (event.query.queryKey[0] === "session" && data && !nobody(data)) open = true;
    if (!open) return;
    if ((event.type === "updated" || event.type === "removed") && keys.has(event.query.queryKey[0]))
      soon ??= setTimeout(write, EVERY_MS);
  });
}
