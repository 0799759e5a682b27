/** The one place for entries that need a person: what was not taken, and what may be of two times. */
import { Button, Modal } from "@mantine/core";
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { queries } from "@/api/queries";
import { snapshotOf } from "@/api/runs";
import { clock } from "@/app/time";
import { useSaying } from "@/measures/likes";
import { MomentInput } from "@/measures/MomentInput";
import type { Entry } from "./db";
import classes from "./Notices.module.css";
import { again, drop, settle, useOutbox } from "./outbox";
import { whenOf } from "./post";
import { saveAsFile } from "./saveAsFile";

const KINDS: Record<string, string> = {
  done: "done",
  out: "taken out",
  in: "put in",
  note: "a note",
  reading: "a temperature",
  weighed: "a weight",
  pieces: "weights of pieces",
  verdict: "how it came out",
  undo: "undo",
  move: "a time put right",
  away: "interrupted",
  back: "back at it",
  give_up: "stopped",
};

const OF_A_BLOCK: Record<Schemas["ChangeKind"], string> = {
  moved: "moved",
  divided: "divided",
  taken: "taken out",
  used: "some of it used",
  thrown: "thrown away",
  weighed: "a weight",
  dated: "a date",
  wanted: "when it is wanted",
  probed: "a temperature",
  undo: "undo",
};

/** Which dough and step an entry is of, and what it says. */
function named(entry: Entry): string {
  const run = queries.getQueryData(snapshotOf(entry.run).queryKey);
  const of = run ? `${run.plan.name}: ` : "";
  if (entry.what === "picture") return `${of}a picture`;
  if (entry.what === "start") return "the start of a dough";
  if (entry.what === "block") return "something put away";
  if (entry.what === "play") return "a play of a lesson";
  if (entry.what === "change") return `a block of the cold store, ${OF_A_BLOCK[entry.body.kind]}`;
  const { stop, kind } = entry.body;
  const step = stop && (run?.worked.strip.find((s) => s.key === stop)?.name ?? stop);
  return `${of}${[step, KINDS[kind] ?? kind].filter(Boolean).join(", ")}`;
}

/** Why it was not taken, in words. */
const why = (entry: Entry, words: (marked: string) => string): string =>
  entry.nowhere
    ? entry.what === "change"
      ? "The bakehouse has no such block. It is sent again from time to time, in case another tablet still has to say that it was put away."
      : "The bakehouse has no such dough. It is sent again from time to time, in case another tablet still has the dough’s start."
    : words((entry.aside ?? []).map((f) => f.message).join(" "));

const momentOf = (entry: Entry): string => whenOf(entry) ?? "";

/** A line that says that something needs looking at; a press opens it. Nothing where all is well. */
export function Refused({ of }: { of?: string }) {
  const outbox = useOutbox().filter((e) => of === undefined || e.run === of);
  const refused = outbox.filter((e) => e.aside || e.nowhere);
  const unsure = outbox.filter((e) => e.either);
  const [looking, look] = useState(false);
  const many = refused.length + unsure.length;
  const { words } = useSaying();
  const one = many === 1 ? refused[0] : undefined;
  if (many === 0) return null;
  return (
    <div className={classes.notice} role="alert" data-lost>
      <span>
        {one
          ? `Not taken: ${named(one)}. ${why(one, words)} It is kept here.`
          : `${many === 1 ? "1 entry needs" : `${many} entries need`} looking at: ${
              refused.length > 0 ? "not taken by the bakehouse" : "the tablet’s clock was changed"
            }. Kept here until then.`}
      </span>
      <Button variant="default" onClick={() => look(true)}>
        Look at {many === 1 ? "it" : "them"}
      </Button>
      <Modal opened={looking} onClose={() => look(false)} title="Entries to look at" size={620}>
        {unsure.length > 0 && <Unsure entries={unsure} />}
        <ul className={classes.entries}>
          {refused.map((entry) => (
            <Line key={entry.id} entry={entry} />
          ))}
        </ul>
        <Button
          variant="default"
          onClick={() => saveAsFile("entries.json", [...unsure, ...refused])}
        >
          Save {many === 1 ? "it" : "all of them"} as a file
        </Button>
      </Modal>
    </div>
  );
}

/** An entry that the bakehouse will not have: why, and what to do with it. */
function Line({ entry }: { entry: Entry }) {
  const { words } = useSaying();
  const was = momentOf(entry);
  const [at, setAt] = useState(was);
  return (
    <li>
      <b>{named(entry)}</b>
      {was && <span className="quiet"> at {clock(was)}</span>}
      <p>{why(entry, words)}</p>
      {was && (
        <MomentInput label="When it was" value={at} onChange={(when) => when && setAt(when)} />
      )}
      <div className={classes.choices}>
        <Button variant="default" onClick={() => again(entry, at !== was ? at : undefined)}>
          Send again
        </Button>
        <Button variant="default" onClick={() => saveAsFile("entry.json", [entry])}>
          Save as a file
        </Button>
        <Button variant="default" onClick={() => drop(entry)}>
          Discard this entry
        </Button>
      </div>
    </li>
  );
}

/** The clock was set while the tablet was away, and nobody can tell before or after which entry. */
function Unsure({ entries }: { entries: Entry[] }) {
  const [byNow, setByNow] = useState<Record<string, boolean>>({});
  return (
    <section>
      <p>
        This tablet’s clock was changed while it had no connection. For each entry choose the time
        at which it was.
      </p>
      <ul className={classes.entries}>
        {entries.map((entry) => (
          <li key={entry.id}>
            <fieldset>
              <legend>{named(entry)}</legend>
              {(entry.either ?? []).map((at, n) => (
                <label key={at}>
                  <input
                    type="radio"
                    name={entry.id}
                    checked={(byNow[entry.id] ?? true) === (n === 1)}
                    onChange={() => setByNow({ ...byNow, [entry.id]: n === 1 })}
                  />{" "}
                  {clock(at)}
                  <span className="quiet">
                    {n === 0 ? " if before the clock was changed" : " if after"}
                  </span>
                </label>
              ))}
            </fieldset>
          </li>
        ))}
      </ul>
      <Button
        onClick={() =>
          settle(
            entries.map(
              (e) => [e, e.either?.[(byNow[e.id] ?? true) ? 1 : 0] ?? momentOf(e)] as const,
            ),
          )
        }
      >
        Send with these times
      </Button>
    </section>
  );
}
