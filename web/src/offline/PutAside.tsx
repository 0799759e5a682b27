/** What the bakehouse would not have, for a person to put right. */
import { Button } from "@mantine/core";
import { useState } from "react";
import { queries } from "@/api/queries";
import { snapshotOf } from "@/api/runs";
import { clock } from "@/app/time";
import { useSaying } from "@/measures/likes";
import { MomentInput } from "@/measures/MomentInput";
import type { Entry } from "./db";
import classes from "./Notices.module.css";
import { again, drop } from "./outbox";

const KINDS: Record<string, string> = {
  done: "done",
  out: "taken out",
  note: "a note",
  reading: "a temperature",
  undo: "undo",
  move: "a time put right",
  away: "interrupted",
  back: "back at it",
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
