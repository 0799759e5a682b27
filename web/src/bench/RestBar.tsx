import { minutesBetween } from "./now";
import classes from "./RestBar.module.css";

const time = (at: Date) => at.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

const [LEFT, RIGHT] = [16, 584];

/** The rest as a bar: when it went in, when it is planned out, and now. */
export function RestBar({ since, until, clock }: { since: Date; until: Date; clock: Date }) {
  const planned = minutesBetween(since, until);
  const whole = planned * 1.35;
  const at = LEFT + Math.min(Math.max(minutesBetween(since, clock) / whole, 0), 1) * (RIGHT - LEFT);
  const due = LEFT + (planned / whole) * (RIGHT - LEFT);
  const nowX = Math.min(Math.max(at, 52), 548);
  return (
    <svg
      viewBox="0 0 600 104"
      className={classes.bar}
      role="img"
      aria-label={`In at ${time(since)}, planned out at ${time(until)}, now ${time(clock)}.`}
    >
      <path d={`M${LEFT},48 H${RIGHT}`} className={classes.track} />
      <path d={`M${LEFT},48 H${due}`} className={classes.rest} />
      <path d={`M${due},48 H${RIGHT}`} className={classes.over} />
      <path d={`M${LEFT},30 V66 M${due},30 V66`} className={classes.tick} />
      <circle cx={at} cy={48} r={13} className={classes.now} />
      <g className={classes.text}>
        <text x={nowX} y={18} textAnchor="middle">
          now {time(clock)}
        </text>
        <text x={4} y={92}>
          in {time(since)}
        </text>
        <text x={due} y={92} textAnchor="middle">
          out {time(until)}
        </text>
      </g>
    </svg>
  );
}
