/** Whether an order comes again by itself, and what is different from the last like it. */
import { Chip } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { date } from "@/app/time";
import classes from "./Standing.module.css";

type Order = Schemas["Order"];
type Weekday = NonNullable<Order["every"]>[number];

interface Props {
  id: number;
  revision: number;
  order: Order;
  set: (part: Partial<Order>, path: string) => void;
}

export function Standing({ id, revision, order, set }: Props) {
  const trade = useTrade();
  const against = useQuery({
    queryKey: ["against", id, revision],
    queryFn: () =>
      got(api.GET("/api/orders/{order_id}/changes", { params: { path: { order_id: id } } })),
  });
  const last = against.data;
  return (
    <div className={classes.standing}>
      <fieldset className={classes.every} aria-label="Repeat every">
        <span>Repeat every</span>
        <Chip.Group
          multiple
          value={order.every ?? []}
          onChange={(every) => set({ every: every as Weekday[] }, "every")}
        >
          {trade.options<Weekday>("weekday").map((d) => (
            <Chip key={d.value} value={d.value} size="sm" variant="outline" aria-label={d.label}>
              {d.label.slice(0, 2)}
            </Chip>
          ))}
        </Chip.Group>
      </fieldset>
      {last?.order_id != null && (
        <section aria-label="Against the last like it" className={classes.against}>
          <h2>
            Against <Link to={`/day/${last.order_id}`}>{last.name}</Link>
            {last.on && <span className="quiet"> {date(last.on)}</span>}
          </h2>
          {last.changes.length === 0 && <p>The same.</p>}
          <ul>
            {last.changes.map((c) => (
              <li key={`${c.about} ${c.says}`}>
                <b>{c.about}</b> {c.says}
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
