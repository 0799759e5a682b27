import { minutesBetween } from "./now";
import classes from "./RestBar.module.css";

const time = (at: Date) => at.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

/** The rest as a bar: when it went in, when it is planned out, and now. */
export function RestBar({ since, until, clock }: { since: Date; until: Date; clock: Date }) {
  const planned = minutesBetween(since, until);
  const whole = planned * 1.35;
  const at = Math.min(Math.max(minutesBetween(since, clock) / whole, 0), 1) * 600;
  const due = (planned / whole) * 600;
  const nowX = Math.min(Math.max(at, 34), 566);
  return (
    <svg
      viewBox="0 0 600 104"
      className={classes.bar}
      role="img"
      aria-label={`In at ${time(since)}, planned out at ${time(until)}, now ${time(clock)}.`}
    >
      <path d="M7,48 H593" className={classes.track} />
      <path d={`M7,48 H${due}`} className={classes.rest} />
      <path d={`M${due},48 H593`} className={classes.over} />
      <path d={`M7,30 V66 M${due},30 V66`} className={classes.tick} />
      <circle cx={Math.max(at, 8)} cy={48} r={13} className={classes.now} />
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
