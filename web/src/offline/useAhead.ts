/** Reads ahead what a tablet wants without a network: the day, and every dough under way with its plan. */
import { useEffect } from "react";
import { people, queries, today, underWay } from "@/api/queries";
import { nowOf, snapshotOf } from "@/api/runs";

const SOON_MS = 8_000; // when the page has what it needs itself
const EVERY_MS = 5 * 60_000;

async function readAhead(): Promise<void> {
  const { runs } = await queries.fetchQuery(underWay);
  await queries.prefetchQuery(today);
  await queries.prefetchQuery(people);
  for (const { id } of runs) {
    await queries.prefetchQuery(snapshotOf(id));
    await queries.prefetchQuery({ ...nowOf(id), staleTime: EVERY_MS });
  }
}

export function useAhead(): void {
  useEffect(() => {
    const ahead = () => {
      // only where a worker would open the application again
      if (navigator.serviceWorker?.controller) readAhead().catch(() => undefined);
    };
    const first = setTimeout(ahead, SOON_MS);
    const each = setInterval(ahead, EVERY_MS);
    return () => {
      clearTimeout(first);
      clearInterval(each);
    };
  }, []);
}
