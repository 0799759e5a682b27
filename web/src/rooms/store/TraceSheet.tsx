/** Where a block came from and where it went: one page, to print when somebody asks. */
import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { Nothing, Title, Waiting } from "@/app/states";
import { day } from "@/app/time";
import type { BlockView } from "@/blocks/blocks";
import { useSaying } from "@/measures/likes";
import classes from "./Store.module.css";

export function TraceSheet() {
  const { blockId = "" } = useParams();
  const trace = useQuery({
    queryKey: ["store", "trace", blockId],
    queryFn: () =>
      got(api.GET("/api/blocks/{block_id}/trace", { params: { path: { block_id: blockId } } })),
  });
  if (trace.isPending) return <Waiting what="where it came from" />;
  if (!trace.data) return <Nothing error={trace.error} retry={trace.refetch} />;
  return <Sheet trace={trace.data} />;
}

function Sheet({ trace }: { trace: Schemas["StoreTrace"] }) {
  const { block: of, origin, parents, parts, went_into } = trace;
  return (
    <>
      <Title>{`${of.mark}, traced`}</Title>
      <div className="roomHead">
        <h1>
          {of.mark} · {of.block.name}
        </h1>
        <span className="quiet">where it came from, where it went</span>
        <div className="actions">
          <Button component={Link} to={`/store/${of.id}`} variant="default" size="md">
            Back to the shelves
          </Button>
          <Button size="md" onClick={() => window.print()}>
            Print
          </Button>
        </div>
      </div>
      <ol className={classes.trace}>
        {origin ? (
          <li>
            <h2>From the dough</h2>
            <Dough of={origin} />
          </li>
        ) : (
          <li>
            <h2>Entered by hand</h2>
            <p>What dough it is of was not said. Allergens: ask the baker.</p>
          </li>
        )}
        {of.block.lots && (
          <li>
            <h2>Lots</h2>
            <p>{of.block.lots}</p>
          </li>
        )}
        {parents.toReversed().map((p) => (
          <li key={p.id}>
            <h2>Cut off the block {p.mark}</h2>
            <Lay of={p} />
          </li>
        ))}
        <li>
          <h2>This block, {of.mark}</h2>
          <Lay of={of} />
        </li>
        {parts.map((p) => (
          <li key={p.id}>
            <h2>Cut off it: {p.mark}</h2>
            <Lay of={p} />
          </li>
        ))}
        {went_into.map((run) => (
          <li key={run.run}>
            <h2>Went on at the bench</h2>
            <Dough of={run} />
          </li>
        ))}
        {went_into.length === 0 && parts.length === 0 && (
          <li>
            <h2>Nothing was made of it yet</h2>
            <p>It lies on its shelf, {of.state}.</p>
          </li>
        )}
      </ol>
    </>
  );
}

function Dough({ of }: { of: Schemas["DoughTraced"] }) {
  const { words } = useSaying();
  return (
    <>
      <p>
        <Link to={`/book/${of.run}`}>{of.name}</Link>, begun {day(of.started_at)}
        {of.by && ` by ${of.by}`}
        {of.dough && `, dough ${of.dough} of that day`}.
      </p>
      <p>
        {of.weighed.length > 0
          ? `Weighed: ${of.weighed.join("; ")}.`
          : "Nobody wrote down what was weighed: by the plan’s sheet."}
      </p>
      {of.contains && <p>All that was weighed for it: {words(of.contains)}</p>}
    </>
  );
}

function Lay({ of }: { of: BlockView }) {
  const { words, say } = useSaying();
  return (
    <>
      <p>
        {say("mass", Math.round(of.block.grams))}, {of.what}, put away {day(of.block.since)}
        {of.by && ` by ${of.by}`}; use by {day(of.standing.best_before)}.
      </p>
      {of.block.contains && <p>{words(of.block.contains)}</p>}
      <ul>
        {of.standing.history
          .filter((h) => !h.undone)
          .map((h) => (
            <li key={h.change}>
              {day(h.at)}: {words(h.says)}
              {of.said_by[h.change] && ` (${of.said_by[h.change]})`}
            </li>
          ))}
      </ul>
    </>
  );
}
