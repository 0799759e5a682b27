/** How a product went over the months, and what the book teaches the kitchen. */
import { Button, NativeSelect } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { queries, sentence, useSession } from "@/api/queries";
import { Nothing, Title, Waiting } from "@/app/states";
import { day } from "@/app/time";
import { capital } from "@/measures/words";
import classes from "./Trends.module.css";
import { useTold } from "./told";

export function TrendsRoom() {
  const [name, setName] = useState("");
  const trends = useQuery({
    queryKey: ["book-trends", name],
    queryFn: () => got(api.GET("/api/book/trends", { params: { query: name ? { name } : {} } })),
    placeholderData: (was) => was,
  });
  if (trends.isPending) return <Waiting what="the months" />;
  if (!trends.data) return <Nothing error={trends.error} retry={trends.refetch} />;
  return (
    <>
      <Title>Over the months</Title>
      <div className="roomHead">
        <h1>Over the months</h1>
        <NativeSelect
          aria-label="Product"
          size="md"
          value={trends.data.name}
          onChange={(e) => setName(e.currentTarget.value)}
          data={trends.data.products}
        />
        <div className="actions">
          <Button component={Link} to="/book" variant="default" size="md">
            To the records
          </Button>
        </div>
      </div>
      {trends.data.trends.length === 0 && (
        <p className="quiet">Two finished records of a product make the first line here.</p>
      )}
      <div className={classes.trends}>
        {trends.data.trends.map((t) => (
          <Line key={t.key} of={t} />
        ))}
      </div>
      <Teaches />
    </>
  );
}

const W = 560;
const H = 108;
const HOUR = /,? \d\d:\d\d$/;

function Line({ of }: { of: Schemas["Trend"] }) {
  const told = useTold(of.unit);
  const go = useNavigate();
  const values = of.points.map((p) => p.value);
  const times = of.points.map((p) => Date.parse(p.at));
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const [from, until] = [Math.min(...times), Math.max(...times)];
  const x = (at: number) => 10 + ((at - from) / (until - from || 1)) * (W - 20);
  const y = (v: number) => 12 + ((high - v) / (high - low || 1)) * (H - 36);
  const middle = values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
  return (
    <figure className={classes.trend}>
      <figcaption>
        <b>{capital(of.name)}</b>{" "}
        <span className="quiet">
          {told(low)} to {told(high)}, mostly near {told(middle)}
        </span>
      </figcaption>
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={`${of.name} over time`}>
        <path className={classes.middle} d={`M10 ${y(middle)}H${W - 10}`} />
        <path
          className={classes.line}
          d={`M${of.points.map((p) => `${x(Date.parse(p.at)).toFixed(1)} ${y(p.value).toFixed(1)}`).join("L")}`}
        />
        {of.points.map((p) => (
          <a
            key={p.run}
            href={`/book/${p.run}`}
            aria-label={`${day(p.at)}: ${told(p.value)}`}
            onClick={(e) => {
              e.preventDefault();
              go(`/book/${p.run}`);
            }}
          >
            <circle className={classes.dot} cx={x(Date.parse(p.at))} cy={y(p.value)} r="4.5" />
          </a>
        ))}
        <text x="10" y={H - 4}>
          {day(from).replace(HOUR, "")}
        </text>
        <text x={W - 10} y={H - 4} textAnchor="end">
          {day(until).replace(HOUR, "")}
        </text>
      </svg>
    </figure>
  );
}

const KEY = ["book-teaches"];

function Teaches() {
  const head = useSession().data?.me?.role === "head";
  const teaches = useQuery({ queryKey: KEY, queryFn: () => got(api.GET("/api/book/teaches")) });
  const [was, setWas] = useState<Schemas["Taught"][]>([]);
  const put = useMutation({
    mutationFn: (body: Schemas["TakeRow"]) => got(api.PUT("/api/book/teaches", { body })),
    onSuccess: (rows) => {
      queries.setQueryData(KEY, rows);
      queries.invalidateQueries({ queryKey: ["kitchen"] });
    },
  });
  return (
    <section aria-label="What the book teaches the kitchen" className={classes.teaches}>
      <h2>What the book teaches the kitchen</h2>
      <p className="quiet">
        From the last records, drawn towards the value in use. Nothing changes by itself.
      </p>
      {teaches.data?.length === 0 && <p>The records say nothing else than the Kitchen has.</p>}
      {put.isError && <p role="alert">{sentence(put.error)}</p>}
      <ul>
        {was.map((t) => (
          <li key={`was ${t.key}`}>
            <span>
              <b>{capital(t.label)}</b> is {t.offered} {t.unit} now.
            </span>
            <Button
              size="compact-md"
              variant="default"
              onClick={() => {
                put.mutate({ key: t.key, value: t.now });
                setWas(was.filter((w) => w.key !== t.key));
              }}
            >
              Undo: {t.now} {t.unit}
            </Button>
          </li>
        ))}
        {(teaches.data ?? []).map((t) => (
          <li key={t.key}>
            <span>
              <b>{capital(t.label)}</b>: {t.now} {t.unit} in use; in {t.n} records mostly{" "}
              {t.low.toFixed(1)} to {t.high.toFixed(1)}, the middle {t.middle}.
            </span>
            {head && (
              <Button
                size="compact-md"
                variant="default"
                loading={put.isPending}
                onClick={() => {
                  put.mutate({ key: t.key, value: t.offered });
                  setWas([...was.filter((w) => w.key !== t.key), t]);
                }}
              >
                Take {t.offered} {t.unit}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
