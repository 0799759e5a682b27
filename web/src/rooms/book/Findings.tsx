/** What was seen of the bake, why it may have come out so, and the one thing to change next time. */
import { Button } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { queries, sentence, useSession } from "@/api/queries";
import { useTrade } from "@/api/trade";
import { Waiting } from "@/app/states";
import { useSaying } from "@/measures/likes";
import { capital } from "@/measures/words";
import { CutPiece } from "./CutPiece";
import classes from "./Findings.module.css";

type View = Schemas["FindingsView"];
type Finding = Schemas["Finding"];
type Cause = Schemas["BakeCause"];

const key = (run: string) => ["run-findings", run];
const at = (run_id: string) => ({ params: { path: { run_id } } });

/** How the findings of a run are read and changed. */
function useFindings(run: string) {
  const view = useQuery({
    queryKey: key(run),
    queryFn: () => got(api.GET("/api/runs/{run_id}/findings", at(run))),
  });
  const keep = (found: View) => queries.setQueryData(key(run), found);
  const see = useMutation({
    mutationFn: (seen: Finding[]) =>
      got(api.PUT("/api/runs/{run_id}/findings", { ...at(run), body: { seen } })),
    onSuccess: keep,
  });
  const itWas = useMutation({
    mutationFn: (cause: Cause | null) =>
      got(api.PUT("/api/runs/{run_id}/cause", { ...at(run), body: { cause } })),
    onSuccess: keep,
  });
  return { view, see, itWas };
}

export function Findings({ run }: { run: string }) {
  const { view, see, itWas } = useFindings(run);
  const { options } = useTrade();
  if (view.isPending) return <Waiting what="what was seen" />;
  if (!view.data) return <p role="alert">{sentence(view.error)}</p>;
  const seen = view.data.seen;
  const wrong = see.error ?? itWas.error;
  return (
    <div className={classes.findings}>
      <section aria-label="What was seen">
        <h2>What was seen</h2>
        <p className="quiet">
          Press what you see, at the cut piece or on the tray; several, if so.
        </p>
        <div className={classes.seen}>
          {options<Finding>("finding").map(({ value, label }) => (
            <button
              type="button"
              key={value}
              aria-pressed={seen.includes(value)}
              disabled={see.isPending}
              onClick={() =>
                see.mutate(
                  seen.includes(value) ? seen.filter((s) => s !== value) : [...seen, value],
                )
              }
            >
              <CutPiece of={value} />
              {label}
            </button>
          ))}
        </div>
        {wrong ? (
          <p role="alert" className={classes.mind}>
            {sentence(wrong)}
          </p>
        ) : null}
      </section>
      <section aria-label="Why it may have come out so">
        <h2>Why it may have come out so</h2>
        {seen.length === 0 ? (
          <p className="quiet">
            Say what you saw, and the likeliest causes stand here, with what this record says for
            each and against it.
          </p>
        ) : (
          <>
            {view.data.why.causes.slice(0, 5).map((one) => (
              <OneCause
                key={one.cause}
                one={one}
                was={view.data.cause === one.cause}
                itWas={(yes) => itWas.mutate(yes ? one.cause : null)}
              />
            ))}
            <NextTime run={run} view={view.data} />
          </>
        )}
      </section>
    </div>
  );
}

interface OneProps {
  one: Schemas["Ranked"];
  was: boolean;
  itWas: (yes: boolean) => void;
}

function OneCause({ one, was, itWas }: OneProps) {
  const { words } = useSaying();
  const { said } = useTrade();
  return (
    <article className={classes.cause} data-was={was || undefined}>
      <h3>
        {one.name} <span className="quiet">{was ? "it was that" : one.word}</span>
      </h3>
      <div
        className={classes.bar}
        role="img"
        aria-label={`${Math.round(one.p * 100)} of a hundred`}
      >
        <i style={{ inlineSize: `${Math.max(one.p * 100, 1)}%` }} />
      </div>
      <ul>
        {one.supports.map((e) => (
          <li key={e.says} data-way="for">
            {capital(words(e.says))}
          </li>
        ))}
        {one.goes_with.length > 0 && (
          <li data-way="for">
            {capital(one.goes_with.map((f) => said("finding", f)).join(", "))}{" "}
            {one.goes_with.length > 1 ? "go" : "goes"} with it
          </li>
        )}
        {one.opposes.map((e) => (
          <li key={e.says} data-way="against">
            {capital(words(e.says))}
          </li>
        ))}
        {one.undecided.map((text) => (
          <li key={text} data-way="open">
            {text}: not measured
          </li>
        ))}
      </ul>
      <Button size="compact-sm" variant="default" aria-pressed={was} onClick={() => itWas(!was)}>
        {was ? "Take that back" : "It was that"}
      </Button>
    </article>
  );
}

function NextTime({ run, view }: { run: string; view: View }) {
  const { words } = useSaying();
  const head = useSession().data?.me?.role === "head";
  const put = useMutation({
    mutationFn: () => got(api.POST("/api/runs/{run_id}/next-time", at(run))),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["plans"] }),
  });
  const next = view.why.next_time;
  if (!next) return null;
  return (
    <div className={classes.next}>
      <div>
        <b>Next time: {words(next.says)}</b>
        {next.measure && <p>And find out: {next.measure.toLowerCase()}. It would decide more.</p>}
        {put.isError && (
          <p role="alert" className={classes.mind}>
            {sentence(put.error)}
          </p>
        )}
        {put.data && (
          <p role="status">
            It stands in <Link to={`/plans/${put.data.plan_id}`}>the plan</Link>, with why.
          </p>
        )}
      </div>
      {head && next.fix && !put.data && (
        <Button size="md" loading={put.isPending} onClick={() => put.mutate()}>
          Put it into the plan
        </Button>
      )}
    </div>
  );
}
