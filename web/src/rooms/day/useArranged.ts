/** The timetable of a day: what is kept of it, and a better one while somebody waits for it. */
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { api, got, Problem, type Schemas } from "@/api/client";
import { queries } from "@/api/queries";

export type Arranged = Schemas["Arranged"];

const path = (order_id: number) => ({ params: { path: { order_id } } });
const LONGER_S = 10;

export function useArranged(id: number, revision: string, mayArrange: boolean, saved: boolean) {
  const key = ["timetable", id];
  const kept = useQuery({
    queryKey: key,
    queryFn: () => got(api.GET("/api/orders/{order_id}/timetable", path(id))),
    refetchInterval: 20_000,
  });
  const searching = useRef<AbortController | null>(null);
  const enough = useRef(false);
  const outOfDate = kept.data === null || kept.data?.stale;
  const arranging = useMutation({
    mutationFn: async () => {
      searching.current = new AbortController();
      enough.current = false;
      const { signal } = searching.current;
      const look = async (seconds: number, steady: boolean) => {
        const body = { seconds, steady };
        const found = await got(
          api.POST("/api/orders/{order_id}/timetable", { ...path(id), body, signal }),
        );
        queries.setQueryData<Arranged | null>(key, found);
        return found;
      };
      // what was changed is answered at once; where hardly more is given up for it, the rest stays
      if (outOfDate && (await look(0, true)).settled) return;
      if (enough.current) return; // said while the first answer was on its way
      await look(LONGER_S, Boolean(outOfDate));
    },
    // a house that was just built is still getting ready for timetables, and says so
    retry: (many, error) => error instanceof Problem && error.status === 503 && many < 100,
    retryDelay: 4_000,
  });
  // what was found so far is kept, and comes as the answer to whoever waits
  const stopping = useMutation({
    mutationFn: () => got(api.DELETE("/api/orders/{order_id}/look", path(id))),
  });
  const post = (what: "open" | "again" | "take" | "leave") =>
    got(api.POST(`/api/orders/{order_id}/${what}`, path(id)));
  const doing = useMutation({
    mutationFn: post,
    onSuccess: (found) => {
      queries.setQueryData(key, found);
      queries.invalidateQueries({ queryKey: ["today"] });
    },
  });
  // What was changed in the order asks for another timetable, once it is saved; where the day has begun
  // that is proposed, and nothing moves until somebody takes it.
  const asked = useRef("");
  const arrange = arranging.mutate;
  const propose = doing.mutate;
  const begun = Boolean(kept.data?.opened_at);
  useEffect(() => {
    if (!mayArrange || !saved || kept.isPending || !outOfDate || asked.current === revision) return;
    asked.current = revision;
    searching.current?.abort();
    if (begun) propose("again");
    else arrange();
  }, [mayArrange, saved, kept.isPending, outOfDate, begun, revision, arrange, propose]);
  const stopped = arranging.error instanceof DOMException && arranging.error.name === "AbortError";
  return {
    kept,
    arrange: () => arranging.mutate(),
    arranging: arranging.isPending,
    stop: () => {
      enough.current = true;
      stopping.mutate();
    },
    failed: stopped ? null : (arranging.error ?? doing.error ?? arranging.failureReason),
    doing,
  };
}
