/** A rest's window: from when it may end, when it is best, until when; and the time that is chosen. */
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { HowGot } from "./HowGot";
import classes from "./WindowBar.module.css";

const WORDS = { good: "is fine", tight: "is tight", short: "is too short", long: "is too long" };

export function WindowBar({ window: w }: { window: Schemas["RestWindow"] }) {
  const { words } = useSaying();
  const chosen = w.chosen_min;
  const from = w.good_from_min ?? w.possible_from_min;
  const until = w.good_until_min ?? w.possible_until_min;
  const furthest = Math.max(chosen, from ?? 0, Math.min(until ?? 0, 3 * (from || chosen)), 10);
  const reach = 1.15 * furthest;
  const x = (min: number) => `${Math.min((100 * min) / reach, 100)}%`;
  const stretch = (a: number | null, b: number | null) =>
    a === null || (b ?? reach) <= a
      ? null
      : { left: x(a), width: `calc(${x(b ?? reach)} - ${x(a)})` };
  const possible = stretch(w.possible_from_min, w.possible_until_min);
  const good = stretch(w.good_from_min, w.good_until_min);
  return (
    <div className={classes.window} data-verdict={w.verdict}>
      <div className={classes.track} aria-hidden="true">
        {possible && <s style={possible} />}
        {good && <i style={good} />}
        {w.best_min !== null && <u style={{ left: x(w.best_min) }} />}
        <b style={{ left: x(chosen) }} />
      </div>
      <p>
        {words(w.says)}{" "}
        <b>
          {span(Math.round(chosen))} {WORDS[w.verdict]}.
        </b>{" "}
        <HowGot of={[w.from_by, w.until_by]} />
      </p>
    </div>
  );
}
