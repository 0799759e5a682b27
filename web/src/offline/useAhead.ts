/** Reads ahead what a tablet wants without a network: the day, and every dough under way with its plan. */
import { useEffect } from "react";
import { api, got } from "@/api/client";
import { queries } from "@/api/queries";

const SOON_MS = 8_000; // when the page has what it needs itself
const EVERY_MS = 5 * 60_000;

async function readAhead(): Promise<void> {
  const runs = await queries.fetchQuery({
    queryKey: ["runs", "under way"],
    queryFn: () => got(api.GET("/api/runs", { params: { query: { under_way: true } } })),
  });
  await queries.prefetchQuery({
    queryKey: ["today"],
    queryFn: () => got(api.GET("/api/today")),
    retry: false,
  });
  for (const { id } of runs.runs) {
    const of = { params: { path: { run_id: id } } };
    await queries.prefetchQuery({
      queryKey: ["run", id, "snapshot"],
      queryFn: () => got(api.GET("/api/runs/{run_id}/snapshot", of)),
      staleTime: Number.POSITIVE_INFINITY,
    });
    await queries.prefetchQuery({
      queryKey: ["run", id],
      queryFn: () => got(api.GET("/api/runs/{run_id}", of)),
      staleTime: EVERY_MS,
    });
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
