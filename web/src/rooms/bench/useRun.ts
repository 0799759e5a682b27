/**
 * A run and what this tablet has to say about it. Every entry goes into an outbox in the browser
 * first and leaves it when the server has it, so neither a reload nor a lost connection loses one.
 */
import { useCallback, useEffect, useRef, useState } from "react";
import { api, got, Problem } from "@/api/client";
import { queries, sentence } from "@/api/queries";
import { showRun, useRunView } from "@/api/runs";
import { type Event, undoTarget } from "./now";

const RETRY_MS = 3000;
const POLL_MS = 5000;

export type Saying = Omit<Event, "id" | "at">;

const at = (run_id: string) => ({ params: { path: { run_id } } });

function stored(key: string): Event[] {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "[]");
  } catch {
    return [];
  }
}

export function useRun(runId: string) {
  const key = `eight-turn.run.${runId}`;
  const run = useRunView(runId, { every: () => POLL_MS, retry: false });
  const [waiting, setWaiting] = useState<Event[]>(() => stored(key));
  const [offline, setOffline] = useState(false);
  const [refusal, setRefusal] = useState<string | null>(null);
  const box = useRef(waiting);
  const sending = useRef(false);

  const keep = useCallback(
    (events: Event[]) => {
      box.current = events;
      localStorage.setItem(key, JSON.stringify(events));
      setWaiting(events);
    },
    [key],
  );

  const send = useCallback(async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      let alone = false;
      while (box.current.length > 0) {
        const going = alone ? box.current.slice(0, 1) : box.current;
        try {
          const view = await got(
            api.POST("/api/runs/{run_id}/events", { ...at(runId), body: { events: going } }),
          );
          showRun(view);
        } catch (error) {
          if (!(error instanceof Problem) || error.passing) {
            setOffline(true);
            return;
          }
          // All were sent together and none was written: find out one by one which it was.
          if (going.length > 1) {
            alone = true;
            continue;
          }
          // The server will not have it: say why, and go on with the rest.
          setRefusal(sentence(error));
          queries.invalidateQueries({ queryKey: ["run", runId] });
        }
        setOffline(false);
        keep(box.current.slice(going.length));
      }
    } finally {
      sending.current = false;
    }
  }, [runId, keep]);

  useEffect(() => {
    send();
    const again = setInterval(send, RETRY_MS);
    return () => clearInterval(again);
  }, [send]);

  const say = (saying: Saying) => {
    setRefusal(null);
    keep([...box.current, { id: crypto.randomUUID(), at: new Date().toISOString(), ...saying }]);
    send();
  };

  /** Take back the latest entry: one that waits here and is not on its way is simply not sent. */
  const undo = () => {
    const target = run.data ? undoTarget(run.data, box.current) : null;
    if (!target) return;
    if (box.current.at(-1)?.id === target && !sending.current) keep(box.current.slice(0, -1));
    else say({ kind: "undo", target });
  };

  return { run, waiting, offline: offline || run.isRefetchError, refusal, say, undo };
}
