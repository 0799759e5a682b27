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
  let _soon: ReturnType<typeof setTimeout> | undefined;
  const write = async () => {
    _soon = undefined;
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
    await (await kept()).put("read", read, KEY).catch(() => undefined);
  };
  queries.getQueryCache().subscribe((event) => {
    if ((event.type === "updated" || event.type === "removed") && keys.has(event.query.queryKey[0]))
      _soon ??= setTimeout(write, EVERY_MS);
  });
}
