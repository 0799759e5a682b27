import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import classes from "@/rooms/plans/Formula.module.css";

/** A weigh-out sheet as a list: the figure to weigh, and what is still to come or came before. */
export function WeighList({ sheet }: { sheet: Schemas["WeighSheet"] }) {
  const { say } = useSaying();
  return (
    <>
      <ul className={classes.list}>
        {sheet.lines.map((line) => (
          <li key={line.key}>
            <span>
              {line.name}
              {line.pieces ? ` (${line.pieces})` : ""}
            </span>
            <b>{say("mass", line.grams)}</b>
            {line.stays_g !== null && line.stays_g !== undefined && (
              <small>still to add on mixing day: {say("mass", line.stays_g)}</small>
            )}
            {line.of_total_g !== null && line.of_total_g !== undefined && (
              <small>what is left of {say("mass", line.of_total_g)} in all</small>
            )}
          </li>
        ))}
      </ul>
      <p className={classes.total}>
        <span>{sheet.name}</span> <span>{say("mass", sheet.total_g)}</span>
      </p>
    </>
  );
}
