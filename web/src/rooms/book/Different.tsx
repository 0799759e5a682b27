/** What was different: this record against the good ones of its product, the unusual first. */
import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, type Schemas } from "@/api/client";
import { sentence, useBook } from "@/api/queries";
import { numbered } from "@/api/runs";
import { Waiting } from "@/app/states";
import { day } from "@/app/time";
import classes from "./Findings.module.css";
import { useTold } from "./told";

type Difference = Schemas["Difference"];

const FEW = 6;

export function Different({ run, name }: { run: string; name: string }) {
  const [other, setOther] = useState("");
  const [all, showAll] = useState(false);
  const book = useBook({ words: name });
  const found = useQuery({
    queryKey: ["run-different", run, other],
    queryFn: () =>
      got(
        api.GET("/api/runs/{run_id}/different", {
          params: { path: { run_id: run }, query: other ? { other } : {} },
        }),
      ),
  });
  const others = (book.data?.pages ?? []).flatMap((p) => p.runs).filter((r) => r.id !== run);
  if (found.isPending) return <Waiting what="what was different" />;
  if (!found.data) return <p role="alert">{sentence(found.error)}</p>;
  const { differences } = found.data;
  const shown = all ? differences : differences.slice(0, FEW);
  return (
    <section aria-label="What was different" className={classes.different}>
      <h2>What was different</h2>
      <label className={classes.against}>
        against{" "}
        <select value={other} onChange={(e) => setOther(e.currentTarget.value)}>
          <option value="">
            {other
              ? "the good ones of this product"
              : `${found.data.others} good ones of this product`}
          </option>
          {others.map((r) => (
            <option key={r.id} value={r.id}>
              {numbered(r)}, {day(r.started_at)}
            </option>
          ))}
        </select>
      </label>
      {differences.length === 0 && (
        <p className="quiet">
          No other record of it is judged good yet. Choose one to lay beside it.
        </p>
      )}
      <ul>
        {shown.map((d) => (
          <Row key={d.key} of={d} />
        ))}
      </ul>
      {differences.length > FEW && (
        <Button size="compact-md" variant="default" onClick={() => showAll(!all)}>
          {all ? "Only the unusual" : `All ${differences.length}`}
        </Button>
      )}
    </section>
  );
}

const W = 260;

function Row({ of }: { of: Difference }) {
  const told = useTold(of.unit);
  const values = [...of.others, of.value];
  const low = Math.min(...values);
  const high = Math.max(...values);
  const wide = high - low || 1;
  const x = (v: number) => 8 + ((v - low) / wide) * (W - 16);
  const usually =
    of.others.length > 1
      ? `; usually ${told(of.low)} to ${told(of.high)}`
      : `; there ${told(of.usual)}`;
  return (
    <li data-unusual={of.unusual || undefined}>
      <b>{of.name}</b>
      <svg viewBox={`0 0 ${W} 22`} aria-hidden="true">
        <path className={classes.line} d={`M4 11H${W - 4}`} />
        {of.others.map((v, n) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: others have no other name
          <circle key={n} className={classes.dot} cx={x(v)} cy={11 + ((n * 7) % 5) - 2} r="3" />
        ))}
        <path className={classes.mine} d={`M${x(of.value)} 3l6 8-6 8-6-8z`} />
      </svg>
      <span>
        {told(of.value)}
        <span className="quiet">
          {of.unusual || of.others.length === 1 ? usually : ", as usual"}
        </span>
      </span>
    </li>
  );
}
