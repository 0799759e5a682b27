/** A run, and what this tablet has to say about it: everything goes through the outbox. */
import { useMemo, useRef } from "react";
import { useRunView } from "@/api/runs";
import { waitingOf } from "@/offline/Notices";
import { type Saying, say as sayOf, takeBack, useOutbox } from "@/offline/outbox";
import { useLostSince } from "@/wire/connection";
import { undoTarget } from "./now";

const POLL_MS = 5000;

export type { Saying } from "@/offline/outbox";

export function useRun(runId: string) {
  const run = useRunView(runId, { every: () => POLL_MS, retry: false });
  const lostSince = useLostSince();
  const outbox = useOutbox();
  const mine = useMemo(() => outbox.filter((e) => e.run === runId), [outbox, runId]);
  const waiting = useMemo(
    () => mine.flatMap((e) => (e.what === "event" && !e.aside ? [e.body] : [])),
    [mine],
  );

  const say = (saying: Saying) => sayOf(runId, saying);

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

  return { run, waiting, held: waitingOf(mine, lostSince), lostSince, say, undo };
}
