/** Who works when: everybody's stretches of work, and the calendar that has them. */
import type { Schemas } from "@/api/client";
import { clock, weekday } from "@/app/time";
import { span } from "@/measures/quantity";
import classes from "./DayPlan.module.css";

type Duty = Schemas["Duty"];

export function Whose({ id, duties }: { id: number; duties: Duty[] }) {
  if (duties.length === 0) return null;
  return (
    <section aria-label="Who works when" className={classes.whose}>
      <h2>Who works when</h2>
      <ul>
        {duties.map((hand) => (
          <li key={`${hand.who} ${hand.stretches[0]?.starts}`}>
            <b>{hand.who}</b>
            <span>{stretches(hand)}</span>
            <span className="quiet">{span(hand.work_min)} of work</span>
            <a
              href={`/api/orders/${id}/day.ics?who=${encodeURIComponent(hand.who)}`}
              aria-label={`The calendar of ${hand.who}`}
            >
              calendar
            </a>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Each stretch by its hours, with the weekday where that is another than before. */
function stretches(hand: Duty): string {
  let last = "";
  return hand.stretches
    .map(({ starts, ends }) => {
      const on = weekday(starts);
      const said = `${on === last ? "" : `${on} `}${clock(starts)}–${clock(ends)}`;
      last = on;
      return said;
    })
    .join(", ");
}
