import { ActionIcon } from "@mantine/core";
import { useInterval } from "@mantine/hooks";
import { IconMinus, IconPlus } from "@tabler/icons-react";
import { useState } from "react";
import { fromWall, clock as timeOfDay, wall } from "@/app/time";
import { span } from "@/measures/quantity";
import { restMin, restSaid } from "@/steps/stays";
import classes from "./BenchRun.module.css";
import { minutesBetween, type Now } from "./now";
import { useClock } from "./useClock";
import type { Saying } from "./useRun";

type Say = (saying: Saying) => void;

/** The one thing to press. */
export function GoButton({ now, say }: { now: Now; say: Say }) {
  const clock = useClock();
  const { stop } = now;
  // A press counts once: the button waits a moment for the screen to move on.
  const [held, setHeld] = useState(false);
  const release = useInterval(() => setHeld(false), 700);
  if (!stop) return null;
  const press = (kind: "done" | "out") => {
    if (held) return;
    setHeld(true);
    release.start();
    say({ kind, stop: stop.key });
  };
  if (now.phase === "rest" && now.until) {
    const left = minutesBetween(clock, now.until);
    const early = left > 0 ? `${span(Math.ceil(left))} before its time` : "its rest is over";
    return (
      <button
        type="button"
        className={classes.go}
        data-go=""
        data-early={left > 0 || undefined}
        onClick={() => press("out")}
      >
        <b>Take it out</b>
        <small>{early}</small>
      </button>
    );
  }
  const rest = stop.rest && restMin(stop.rest) > 0 ? stop.rest : null;
  return (
    <button type="button" className={classes.go} data-go="" onClick={() => press("done")}>
      <b>{stop.name} done</b>
      <small>{rest ? `then ${restSaid(rest)}` : "no rest: go straight on"}</small>
    </button>
  );
}

/** The last moment at which the house's clock showed what was typed: `5:30`, `0530`, `5.30`. */
export function typed(text: string, near: Date, now: Date): Date | null {
  const [, hour, minute] = /^\s*(\d{1,2})\D?(\d\d)\s*$/.exec(text) ?? [];
  const at = hour && fromWall(`${wall(near).slice(0, 10)}T${hour.padStart(2, "0")}:${minute}`);
  if (!at) return null;
  const found = new Date(at);
  // over midnight: yesterday's, where today's is still to come
  return found > now ? new Date(found.getTime() - 24 * 3_600_000) : found;
}

/** What of a dough's last deed is put right: its entries, what it was, and when. */
interface Deed {
  entries: string[];
  what: string;
  at: Date;
  /** What it came after; none: it was begun whenever it was. */
  earliest: Date | null;
  /** When its dough was begun, where this is its first deed, or none was done yet: that moves along. */
  began?: Date;
}

/** The last deed of a dough that is whole; at its first step, when that was begun. */
export const deedOf = ({ lastDeed, atFirst, startedAt }: Now): Deed | null => {
  if (lastDeed)
    return {
      entries: [lastDeed.id],
      what: lastDeed.kind === "done" ? `${lastDeed.name} done` : "Taken out",
      at: lastDeed.at,
      earliest: lastDeed.earliest,
      began: lastDeed.earliest ? undefined : startedAt,
    };
  if (!atFirst) return null;
  return { entries: [], what: "Begun", at: startedAt, earliest: null, began: startedAt };
};

/** The time of the last deed, put right by the minute. */
export function PutRight({ deed, say }: { deed: Deed; say: Say }) {
  const clock = useClock();
  const { what, began, earliest } = deed;
  const shift = (minutes: number) => {
    const before = began ? minutesBetween(began, deed.at) + minutes : 0;
    if (!deed.entries.length) say({ kind: "begun", minutes });
    else if (before < 0) say({ kind: "begun", minutes: before });
    for (const target of deed.entries) say({ kind: "move", target, minutes });
  };
  const room = earliest ? minutesBetween(earliest, deed.at) : Number.POSITIVE_INFINITY;
  return (
    <div className={classes.right}>
      <ActionIcon
        variant="outline"
        size={56}
        aria-label="−5 minutes"
        disabled={room < 5}
        onClick={() => shift(-5)}
      >
        −5
      </ActionIcon>
      <ActionIcon
        variant="outline"
        size={56}
        aria-label="A minute earlier"
        disabled={room < 1}
        onClick={() => shift(-1)}
      >
        <IconMinus />
      </ActionIcon>
      <span>
        {what}{" "}
        <input
          key={deed.at.getTime()}
          aria-label={`When: ${what}`}
          className={classes.when}
          inputMode="numeric"
          maxLength={5}
          defaultValue={timeOfDay(deed.at)}
          onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
          onBlur={(e) => {
            const at = typed(e.currentTarget.value, deed.at, clock);
            const by = at ? Math.round((at.getTime() - deed.at.getTime()) / 60_000) : 0;
            if (by) shift(by);
            else e.currentTarget.value = timeOfDay(deed.at);
          }}
        />
      </span>
      <ActionIcon
        variant="outline"
        size={56}
        aria-label="A minute later"
        disabled={minutesBetween(deed.at, clock) < 1}
        onClick={() => shift(1)}
      >
        <IconPlus />
      </ActionIcon>
    </div>
  );
}
