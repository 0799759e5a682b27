/** What would move since the day went otherwise, by how much and why; nothing does until somebody says so. */
import { Button } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { span } from "@/measures/quantity";
import { clock } from "./time";
import classes from "./WouldMove.module.css";

interface Props {
  proposed: Schemas["Timetable"];
  few: number;
  nameOf: (dough: string) => string;
  large?: boolean;
  take: () => void;
  leave: () => void;
}

export function WouldMove({ proposed, few, nameOf, large, take, leave }: Props) {
  const { moved } = proposed;
  const size = large ? "lg" : "sm";
  return (
    <section className={classes.moved} aria-label="What would move">
      <h2>{heading(moved.length)}</h2>
      <p>{orders(proposed)}</p>
      <ul>
        {moved.slice(0, few).map((one) => (
          <Row key={`${one.dough} ${one.step}`} one={one} name={nameOf(one.dough)} />
        ))}
      </ul>
      {moved.length > few && (
        <details>
          <summary>{moved.length - few} more</summary>
          <ul>
            {moved.slice(few).map((one) => (
              <Row key={`${one.dough} ${one.step}`} one={one} name={nameOf(one.dough)} />
            ))}
          </ul>
        </details>
      )}
      <div className={classes.decide}>
        {moved.length > 0 && (
          <Button size={size} onClick={take}>
            Use the new times
          </Button>
        )}
        <Button size={size} variant="default" onClick={leave}>
          {moved.length > 0 ? "Keep the old times" : "Close"}
        </Button>
      </div>
    </section>
  );
}

function Row({ one, name }: { one: Schemas["Shifted"]; name: string }) {
  return (
    <li>
      <span className={classes.times}>
        {clock(one.was)} → <b>{clock(one.starts)}</b>
      </span>
      <span>
        <b>
          {one.dough} {one.name}
        </b>{" "}
        <span className="quiet">{name}</span>
      </span>
      <span>{one.says}</span>
    </li>
  );
}

const heading = (many: number) =>
  many === 0
    ? "Nothing has to move"
    : many === 1
      ? "One step would move"
      : `${many} steps would move`;

/** What becomes of the orders then. */
export function orders({ moved, ready }: Pick<Schemas["Timetable"], "moved" | "ready">): string {
  const late = ready.filter((r) => r.late_min > 0);
  if (late.length === 0)
    return `Every dough is ${moved.length > 0 ? "then" : "still"} ready at its hour.`;
  const said = late.map((r) => `dough ${r.dough} is ${span(r.late_min)} late`).join(", ");
  return `${moved.length > 0 ? "Then" : "As it stands"}, ${said}.`;
}
