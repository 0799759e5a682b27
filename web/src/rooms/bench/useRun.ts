/** A run, and what this tablet has to say about it: everything goes through the outbox. */
import { useMemo, useRef } from "react";
import { useRunView } from "@/api/runs";
import { waitingOf } from "@/offline/Notices";
import { put, takeBack, useOutbox } from "@/offline/outbox";
import { houseTime } from "@/wire/clock";
import { useLostSince } from "@/wire/connection";
import { type Event, undoTarget } from "./now";

const POLL_MS = 5000;

export type Saying = Omit<Event, "id" | "at">;

export function useRun(runId: string) {
  const run = useRunView(runId, { every: () => POLL_MS, retry: false });
  const lostSince = useLostSince();
  const outbox = useOutbox();
  const mine = useMemo(() => outbox.filter((e) => e.run === runId), [outbox, runId]);
  const waiting = useMemo(
    () => mine.flatMap((e) => (e.what === "event" && !e.aside ? [e.body] : [])),
    [mine],
  );
  const aside = useMemo(() => mine.filter((e) => e.aside), [mine]);

  const say = (saying: Saying) => {
    const id = crypto.randomUUID();
    const body = { id, at: new Date(houseTime()).toISOString(), ...saying };
    return put(runId, { what: "event", body }, id);
  };

  const taking = useRef(false);
  /** Take back the latest entry: one that waits here and was never sent is simply not sent. */
  const undo = async () => {
    const target = run.data ? undoTarget(run.data, waiting) : null;
    if (!target || taking.current) return;
    taking.current = true; // a press counts once: the next is for what the screen shows then
    try {
      const here = waiting.at(-1)?.id === target && (await takeBack(target));
      if (!here) await say({ kind: "undo", target });
    } finally {
      taking.current = false;
    }
  };

  return { run, waiting, held: waitingOf(mine, lostSince), aside, lostSince, say, undo };
}
