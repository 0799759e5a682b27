import { clock } from "@/app/time";
import { minutesBetween } from "./now";
import classes from "./RestBar.module.css";

const [LEFT, RIGHT] = [16, 584];

/** The rest as a bar: when it went in, when it is planned out, and now. */
export function RestBar({ since, until, now }: { since: Date; until: Date; now: Date }) {
  const planned = minutesBetween(since, until);
  const whole = planned * 1.35;
  const at = LEFT + Math.min(Math.max(minutesBetween(since, now) / whole, 0), 1) * (RIGHT - LEFT);
  const due = LEFT + (planned / whole) * (RIGHT - LEFT);
  const nowX = Math.min(Math.max(at, 52), 548);
  return (
    <svg
      viewBox="0 0 600 104"
      className={classes.bar}
      role="img"
      aria-label={`In at ${clock(since)}, planned out at ${clock(until)}, now ${clock(now)}.`}
    >
      <path d={`M${LEFT},48 H${RIGHT}`} className={classes.track} />
      <path d={`M${LEFT},48 H${due}`} className={classes.rest} />
      <path d={`M${due},48 H${RIGHT}`} className={classes.over} />
      <path d={`M${LEFT},30 V66 M${due},30 V66`} className={classes.tick} />
      <circle cx={at} cy={48} r={13} className={classes.now} />
      <g className={classes.text}>
        <text x={nowX} y={18} textAnchor="middle">
          now {clock(now)}
        </text>
        <text x={4} y={92}>
          in {clock(since)}
        </text>
        <text x={due} y={92} textAnchor="middle">
          out {clock(until)}
        </text>
      </g>
    </svg>
  );
}
