/** What a person is told of the connection, of the tablet's clock, and of what waits. */
import { Button } from "@mantine/core";
import { useState } from "react";
import { queries } from "@/api/queries";
import { snapshotOf } from "@/api/runs";
import { clock } from "@/app/time";
import { useSaying } from "@/measures/likes";
import { MomentInput } from "@/measures/MomentInput";
import { span } from "@/measures/quantity";
import { tabletIsOff } from "@/wire/clock";
import type { Entry } from "./db";
import classes from "./Notices.module.css";
import { again, drop } from "./outbox";

const counted = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;

/** How many of these wait: what is on its way for the first time is nothing to speak of. */
export const waitingOf = (entries: Entry[], lostSince: number | null): number =>
  entries.filter((e) => !e.aside && (lostSince !== null || e.tries > 0)).length;

export function Notices({ waiting, lostSince }: { waiting: number; lostSince: number | null }) {
  const off = Math.round(tabletIsOff() / 60_000);
  return (
    <>
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

const KINDS: Record<string, string> = {
  done: "done",
  out: "taken out",
  note: "a note",
  reading: "a temperature",
  undo: "undo",
  move: "a time put right",
};

/** An entry that the bakehouse will not have: why, and what to do with it. */
export function PutAside({ entry }: { entry: Entry }) {
  const { words } = useSaying();
  const [at, setAt] = useState(entry.what === "event" ? entry.body.at : "");
  const why = (entry.aside ?? []).map((f) => f.message).join(" ");
  const run = queries.getQueryData(snapshotOf(entry.run).queryKey);
  const step = (key: string) => run?.worked.strip.find((s) => s.key === key)?.name ?? key;
  const of =
    entry.what === "event"
      ? `“${[entry.body.stop && step(entry.body.stop), KINDS[entry.body.kind] ?? entry.body.kind].filter(Boolean).join(" ")}” of ${clock(entry.body.at)}`
      : entry.what === "picture"
        ? "A picture"
        : "The start of this dough";
  return (
    <div className={classes.notice} role="alert" data-lost>
      <span>
        {of} was not taken: {words(why)} It is kept here.
      </span>
      {entry.what === "event" && (
        <MomentInput label="When it was" value={at} onChange={(when) => when && setAt(when)} />
      )}
      <Button
        variant="default"
        onClick={() =>
          again(entry, entry.what === "event" && at !== entry.body.at ? { at } : undefined)
        }
      >
        Send again
      </Button>
      <Button variant="default" onClick={() => drop(entry)}>
        Let it go
      </Button>
    </div>
  );
}
