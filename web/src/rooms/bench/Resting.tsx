import type { ReactNode } from "react";
import type { Schemas } from "@/api/client";
import { clock as timeOfDay } from "@/app/time";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { onOrIn, ontoOrInto, spentIn, stayAt } from "@/steps/stays";
import { Alarm } from "./Alarm";
import classes from "./BenchRun.module.css";
import { calledOf } from "./called";
import { alarmNow, callNow, marksOf } from "./calls";
import { minutesBetween, type Now, type RunView } from "./now";
import { RestBar } from "./RestBar";
import { useClock } from "./useClock";

interface RestingProps {
  run: RunView;
  now: Now;
  name: string;
  warmth?: Schemas["UnderWay"];
  children: ReactNode;
}

/** A dough at rest: how long still, when it may come out, and why. */
export function Resting({ run, now, name, warmth, children }: RestingProps) {
  const clock = useClock();
  const { words: say, say: measured } = useSaying();
  if (!now.stop?.rest || !now.until) return null;
  const window = warmth?.window?.stop === now.stop.key ? warmth.window : null;
  const marks = marksOf(window ? warmth : undefined, now.since);
  const call = callNow(marks, now.until, clock);
  // Rounded once, so that what is gone and what is left make the whole.
  const whole = Math.round(minutesBetween(now.since, now.until));
  const late = marks.possible && marks.possible > now.until ? marks.possible : now.until;
  const due = call === "leave" ? late : call === "last" ? (marks.last ?? now.until) : now.until;
  const left = minutesBetween(clock, due);
  const rest = minutesBetween(clock, now.until);
  const gone = whole - (rest > 0 ? Math.ceil(rest) : -Math.floor(-rest));
  const spent = spentIn(now.stop.rest, now.stop.gives, now.since, now.until);
  const [here, next] = stayAt(spent, clock);
  const where = onOrIn(here?.stay.place ?? "bench");
  const rings = calledOf(run, now);
  const moved = rings.findLast((one) => !one.ends && one.at <= clock);
  const over = rings.find((one) => one.ends);
  const [figure, words] = big(left, call === "may" ? "left of its time" : "more");
  return (
    <>
      <p className={classes.stopName}>after {now.stop.name.toLowerCase()}</p>
      <h1>
        {call === "leave"
          ? `Leave it ${where}`
          : call === "may"
            ? "It may come out"
            : "Take it out"}
      </h1>
      <p className={classes.why}>
        {typeof here?.stay.until_c === "number" && (
          <b>Until its middle is {measured("temperature", here.stay.until_c)}. </b>
        )}
        {here && next && (
          <b>
            {here.stay.place} until {timeOfDay(here.to)}, then {ontoOrInto(next.stay.place)},{" "}
            {span(Math.round(minutesBetween(next.from, next.to)))}.{" "}
          </b>
        )}
        {span(gone)} of {span(whole)} gone. Then {now.next?.name.toLowerCase()}.{" "}
        {window && say(window.says)}
      </p>
      <p className={classes.big} data-ready={call !== "leave" || undefined}>
        {figure} <small>{words}</small>
      </p>
      <RestBar
        since={now.since}
        until={now.until}
        now={clock}
        changes={spent.slice(1).map((one) => one.from)}
        marks={window ? marks : undefined}
      />
      <Alarm
        key={now.stop.key}
        call={call}
        says={call === "out" && over ? say(over.says) : alarmNow(marks, now.until, clock)}
        moved={moved && say(moved.says)}
        name={name}
        why={`${now.stop.name}: ${window ? say(window.says) : `then ${now.next?.name.toLowerCase()}.`}`}
      />
      {children}
    </>
  );
}

/** What is left (rounded up, so that 0 means now) or over: a big figure and its words. */
function big(left: number, still: string): [string, string] {
  const whole = left > 0 ? Math.ceil(left) : Math.floor(-left);
  const end = left > 0 ? still : "over";
  return whole < 60
    ? [String(whole), `${whole === 1 ? "minute" : "minutes"} ${end}`]
    : [span(whole), end];
}
