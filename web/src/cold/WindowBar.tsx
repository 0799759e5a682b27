/** A rest's window: soonest, best and latest, and the time that is chosen. */
import type { Schemas } from "@/api/client";
import { span } from "@/measures/quantity";
import classes from "./WindowBar.module.css";

const WORDS = { early: "too soon", good: "in its window", late: "too late" } as const;

export function WindowBar({ window: w }: { window: Schemas["RestWindow"] }) {
  const soonest = w.soonest_min;
  const chosen = w.chosen_min;
  const reach =
    1.15 * Math.max(chosen, soonest ?? 0, Math.min(w.latest_min ?? 0, 3 * (soonest ?? chosen)), 10);
  const x = (min: number) => `${Math.min((100 * min) / reach, 100)}%`;
  const end = w.latest_min ?? reach;
  const verdict = w.verdict as keyof typeof WORDS;
  const said = [
    soonest === null || soonest === undefined
      ? "Never cool enough here"
      : `Soonest ${span(Math.round(soonest))}, ${w.soonest_by}`,
    w.best_min && `best ${span(Math.round(w.best_min))}`,
    w.latest_min === null || w.latest_min === undefined
      ? "no latest"
      : `latest ${span(Math.round(w.latest_min))}, ${w.latest_by}`,
  ].filter(Boolean);
  return (
    <div className={classes.window} data-verdict={verdict}>
      <div className={classes.track} aria-hidden="true">
        {soonest !== null && soonest !== undefined && end > soonest && (
          <i style={{ left: x(soonest), width: `calc(${x(end)} - ${x(soonest)})` }} />
        )}
        {w.best_min && <u style={{ left: x(w.best_min) }} />}
        <b style={{ left: x(chosen) }} />
      </div>
      <p>
        {said.join("; ")}.{" "}
        <b>
          {span(Math.round(chosen))} is {WORDS[verdict]}.
        </b>
      </p>
    </div>
  );
}
