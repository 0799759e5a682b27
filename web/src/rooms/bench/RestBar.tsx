import { clock } from "@/app/time";
import type { Marks } from "./calls";
import { minutesBetween } from "./now";
import classes from "./RestBar.module.css";

const [LEFT, RIGHT] = [16, 584];

interface Props {
  since: Date;
  until: Date;
  now: Date;
  /** When it is to lie elsewhere. */
  changes?: Date[];
  /** When it may come out by its temperatures, where that is known. */
  marks?: Marks;
}

/** The rest as a bar: when it went in, its window, when it is planned out, and now. */
export function RestBar({ since, until, now, changes = [], marks }: Props) {
  const minute = (at: Date) => minutesBetween(since, at);
  const planned = minute(until);
  const reach = Math.max(
    planned * 1.25,
    ...[marks?.ready, marks?.best].flatMap((m) => (m ? [minute(m) * 1.15] : [])),
    marks?.last ? Math.min(minute(marks.last) * 1.1, planned * 2.2) : 0,
    10,
  );
  const x = (at: Date) => LEFT + Math.min(Math.max(minute(at) / reach, 0), 1) * (RIGHT - LEFT);
  const [at, due] = [x(now), x(until)];
  const nowX = Math.min(Math.max(at, 52), 548);
  const from = marks?.ready ? x(marks.ready) : due;
  const to = marks?.last ? x(marks.last) : RIGHT;
  const named = (
    [
      ["ready", marks?.ready],
      ["best", marks?.best],
      ["last", marks?.last],
    ] as const
  ).flatMap(([name, when]) => (when && minute(when) <= reach ? [{ name, when, x: x(when) }] : []));
  const said = named.map(({ name, when }) => `${name} ${clock(when)}`);
  // Names that would run into each other are left to the sentence.
  const shown = named.filter((n, i) => i === 0 || n.x - (named[i - 1]?.x ?? 0) > 96);
  return (
    <svg
      viewBox="0 0 600 128"
      className={classes.bar}
      role="img"
      aria-label={`In at ${clock(since)}, ${said.length ? `${said.join(", ")}, ` : ""}planned out at ${clock(until)}, now ${clock(now)}.`}
    >
      <path d={`M${LEFT},48 H${RIGHT}`} className={classes.track} />
      {to > from && <path d={`M${from},48 H${to}`} className={classes.rest} />}
      {marks?.last && to < RIGHT && <path d={`M${to},48 H${RIGHT}`} className={classes.over} />}
      <path d={`M${LEFT},30 V66 M${due},26 V70`} className={classes.tick} />
      {changes.map((at) => (
        <path key={at.getTime()} d={`M${x(at)},42 v12`} className={classes.tick} />
      ))}
      {named.map(({ name, x: place }) => (
        <path key={name} d={`M${place},36 V60`} className={classes.tick} />
      ))}
      <circle cx={at} cy={48} r={13} className={classes.now} />
      <g className={classes.text}>
        <text x={nowX} y={18} textAnchor="middle">
          now {clock(now)}
        </text>
        {shown.length ? (
          shown.map(({ name, when, x: place }) => (
            <text key={name} x={Math.min(Math.max(place, 46), 554)} y={90} textAnchor="middle">
              {name}
              <tspan x={Math.min(Math.max(place, 46), 554)} dy={22}>
                {clock(when)}
              </tspan>
            </text>
          ))
        ) : (
          <text x={due} y={92} textAnchor="middle">
            out {clock(until)}
          </text>
        )}
        {(shown[0]?.x ?? due) > 150 && (
          <text x={4} y={90}>
            in {clock(since)}
          </text>
        )}
      </g>
    </svg>
  );
}
