/** What a person is told of the connection, of the tablet's clock, and of what waits. */
import { useSyncExternalStore } from "react";
import { clock } from "@/app/time";
import { span } from "@/measures/quantity";
import { onClock, tabletIsOff } from "@/wire/clock";
import { useTrouble } from "@/wire/connection";
import type { Entry } from "./db";
import classes from "./Notices.module.css";

const counted = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;

/** How many of these wait: what is on its way for the first time is nothing to speak of. */
export const waitingOf = (entries: Entry[], lostSince: number | null): number =>
  entries.filter((e) => !e.aside && !e.either && !e.nowhere && (lostSince !== null || e.tries > 0))
    .length;

export function Notices({ waiting, lostSince }: { waiting: number; lostSince: number | null }) {
  const off = Math.round(useSyncExternalStore(onClock, tabletIsOff) / 60_000);
  const trouble = useTrouble();
  return (
    <>
      {trouble && (
        <p className={classes.notice} role="alert" data-lost>
          {trouble}
        </p>
      )}
      {(lostSince !== null || waiting > 0) && (
        <p className={classes.notice} role="status" data-lost={lostSince !== null || undefined}>
          {lostSince !== null && `No connection since ${clock(lostSince)}. `}
          {waiting > 0
            ? `${counted(waiting, "entry waits", "entries wait")} here and will be sent.`
            : "What you enter is kept here and sent later."}
        </p>
      )}
      {off !== 0 && (
        <p className={classes.notice} role="status">
          {`This tablet's clock is ${span(Math.abs(off))} ${off > 0 ? "ahead" : "behind"}; the bakehouse's is used.`}
        </p>
      )}
    </>
  );
}
