/** A run: what was planned, which never changes, and where it stands now. */
import { queryOptions, useQuery } from "@tanstack/react-query";
import { api, got, type Schemas } from "./client";
import { queries } from "./queries";

export type RunNow = Schemas["RunNow"];
export type RunView = Schemas["RunSnapshot"] & RunNow;

const at = (run_id: string) => ({ params: { path: { run_id } } });

/** What never changes of a run. */
export const snapshotOf = (runId: string) =>
  queryOptions({
    queryKey: ["run", runId, "snapshot"],
    queryFn: () => got(api.GET("/api/runs/{run_id}/snapshot", at(runId))),
    staleTime: Number.POSITIVE_INFINITY,
  });

/** Where a run stands. */
export const nowOf = (runId: string) =>
  queryOptions({
    queryKey: ["run", runId],
    queryFn: () => got(api.GET("/api/runs/{run_id}", at(runId))),
  });

interface Options {
  /** How often to ask again, ms; false: not at all. */
  every: (phase: Schemas["Phase"] | undefined) => number | false;
  retry?: boolean;
}

/** A run as it stands. Its plan and sheets are fetched once; only what moves is asked for again. */
export function useRunView(runId: string, { every, retry }: Options) {
  const snapshot = useQuery({ ...snapshotOf(runId), retry });
  const now = useQuery({
    ...nowOf(runId),
    refetchInterval: (query) => every(query.state.data?.standing.phase),
    retry,
  });
  return {
    data: snapshot.data && now.data ? ({ ...snapshot.data, ...now.data } as RunView) : undefined,
    error: snapshot.error ?? now.error,
    isRefetchError: now.isRefetchError,
    refetch: () => {
      snapshot.refetch();
      now.refetch();
    },
  };
}

interface Named {
  name: string;
  number: number;
  dough?: string | null;
  doughs?: number | null;
}

/** A run by its name, and by its number: in its day, or where its plan is made again that day. */
export const numbered = ({ name, number, dough, doughs }: Named) =>
  dough && doughs
    ? `Dough ${dough} of ${doughs}, ${name}`
    : number > 1
      ? `${name}, no. ${number}`
      : name;

/** What an answer of the server says of a run: shown at once. */
export const showRun = (now: RunNow) => queries.setQueryData<RunNow>(["run", now.id], now);
