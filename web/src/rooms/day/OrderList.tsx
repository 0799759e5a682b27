import { Button } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useOutletContext } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { queries, sentence, usePlans } from "@/api/queries";
import { useTrade } from "@/api/trade";
import { Nothing, Title, Waiting } from "@/app/states";
import { date, day } from "@/app/time";
import classes from "./Day.module.css";
import { newOrder } from "./wanted";

const refresh = () => queries.invalidateQueries({ queryKey: ["orders"] });
const at = (order_id: number) => ({ params: { path: { order_id } } });

const ready = (line: Schemas["OrderLine"]) => (line.ready_at ? `ready ${day(line.ready_at)}` : "");
const stands = (line: Schemas["OrderLine"], said: (of: string, value: string) => string) =>
  `repeats every ${line.every.map((d) => said("weekday", d)).join(", ")}`;

/** Orders: what is wanted, for when. */
export function OrderList() {
  const me = useOutletContext<Schemas["Me"]>();
  const go = useNavigate();
  const plans = usePlans();
  const trade = useTrade();
  const [gone, setGone] = useState<Schemas["OrderLine"] | null>(null);
  const orders = useQuery({
    queryKey: ["orders"],
    queryFn: () => got(api.GET("/api/orders")),
  });
  const first = plans.data?.[0];
  const make = useMutation({
    mutationFn: (line: Schemas["PlanLine"]) =>
      got(
        api.POST("/api/orders", {
          body: newOrder(line),
        }),
      ),
    onSuccess: (made) => {
      refresh();
      go(`/day/${made.id}`);
    },
  });
  const remove = useMutation({
    mutationFn: (line: Schemas["OrderLine"]) =>
      got(api.DELETE("/api/orders/{order_id}", at(line.id))),
    onSuccess: (_, line) => {
      setGone(line);
      refresh();
    },
  });
  const restore = useMutation({
    mutationFn: (line: Schemas["OrderLine"]) =>
      got(api.POST("/api/orders/{order_id}/restore", at(line.id))),
    onSuccess: () => {
      setGone(null);
      refresh();
    },
  });
  const next = useMutation({
    mutationFn: (line: Schemas["OrderLine"]) =>
      got(api.POST("/api/orders/{order_id}/next", at(line.id))),
    onSuccess: (made) => {
      refresh();
      go(`/day/${made.id}`);
    },
  });
  const head = me.role === "head";
  const failed = make.error ?? next.error ?? remove.error ?? restore.error;
  return (
    <>
      <div className="roomHead">
        <Title>Day</Title>
        <h1>Day</h1>
        <span className="quiet">Orders become doughs, blocks and weigh-out sheets.</span>
        {head && (
          <div className="actions">
            <Button size="md" disabled={!first} onClick={() => first && make.mutate(first)}>
              New order
            </Button>
          </div>
        )}
      </div>
      {failed && (
        <div className="bar mind" role="alert">
          {sentence(failed)}
        </div>
      )}
      {gone && (
        <div className="bar" role="status">
          <span>“{gone.name}” is deleted.</span>
          <Button variant="default" onClick={() => restore.mutate(gone)}>
            Undo
          </Button>
        </div>
      )}
      {orders.isPending && <Waiting what="the orders" />}
      {orders.isError && <Nothing error={orders.error} retry={orders.refetch} />}
      {orders.data?.length === 0 && (
        <div className="empty">
          <h2>No orders yet</h2>
          <p>
            {first
              ? "Say how many pieces of what are wanted: doughs, blocks and bag labels follow."
              : "An order is made of plans. Make a plan first."}
          </p>
        </div>
      )}
      <ul className="ruled">
        {orders.data?.map((line) => (
          <li key={line.id} className={classes.row}>
            <Link to={`/day/${line.id}`} className={classes.open}>
              <b>{line.name}</b>
              <span className="quiet">
                {line.every.length ? stands(line, trade.said) : ready(line)}
              </span>
              <span>
                {line.pieces} pieces of {line.doughs} {line.doughs === 1 ? "dough" : "doughs"}
              </span>
            </Link>
            {head && line.next_on && (
              <Button variant="default" onClick={() => next.mutate(line)}>
                Make {date(line.next_on)}
              </Button>
            )}
            {head && (
              <Button variant="subtle" color="dark" onClick={() => remove.mutate(line)}>
                Delete
              </Button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
