import type { ReactNode } from "react";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { Alarm } from "./Alarm";
import classes from "./BenchRun.module.css";
import { minutesBetween, type Now } from "./now";
import { RestBar } from "./RestBar";

interface RestingProps {
  now: Now;
  clock: Date;
  name: string;
  warmth?: Schemas["UnderWay"];
  children: ReactNode;
}

/** A dough at rest: how long still, when it may come out, and why. */
export function Resting({ now, clock, name, warmth, children }: RestingProps) {
  const { words: say } = useSaying();
  if (!now.stop?.rest || !now.until) return null;
  const window = warmth?.window?.stop === now.stop.key ? warmth.window : null;
  const date = (at: string | null | undefined) => (window && at ? new Date(at) : null);
  const marks = {
    ready: date(warmth?.good_at ?? warmth?.possible_at),
    best: date(warmth?.best_at),
    last: date(warmth?.good_until ?? warmth?.possible_until),
  };
  // Rounded once, so that what is gone and what is left make the whole.
  const whole = Math.round(minutesBetween(now.since, now.until));
  const left = minutesBetween(clock, now.until);
  const gone = whole - (left > 0 ? Math.ceil(left) : -Math.floor(-left));
  const place = now.stop.rest.place;
  const where = place === "bench" ? "on the bench" : `in the ${place}`;
  const ready = left <= 0;
  const [figure, words] = big(left);
  return (
    <>
      <p className={classes.stopName}>after {now.stop.name.toLowerCase()}</p>
      <h1>{ready ? "Take it out" : `Leave it ${where}`}</h1>
      <p className={classes.why}>
        {span(gone)} of {span(whole)} gone. Then {now.next?.name.toLowerCase()}.{" "}
        {window && say(window.says)}
      </p>
      <p className={classes.big} data-ready={ready || undefined}>
        {figure} <small>{words}</small>
      </p>
      <RestBar since={now.since} until={now.until} now={clock} marks={window ? marks : undefined} />
      {window && (
        <Alarm
          key={now.stop.key}
          marks={marks}
          now={clock}
          name={name}
          why={`${now.stop.name}: ${say(window.says)}`}
        />
      )}
      {children}
    </>
  );
}

/** What is left (rounded up, so that 0 means now) or over: a big figure and its words. */
function big(left: number): [string, string] {
  const whole = left > 0 ? Math.ceil(left) : Math.floor(-left);
  const end = left > 0 ? "more" : "over";
  return whole < 60
    ? [String(whole), `${whole === 1 ? "minute" : "minutes"} ${end}`]
    : [span(whole), end];
}
