import { Button, Textarea } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "@/api/client";
import { type RunView, useRunView } from "@/api/runs";
import { useTrade } from "@/api/trade";
import { Nothing, Title, Waiting } from "@/app/states";
import { clock, day } from "@/app/time";
import { useHalfTyped } from "@/drafts/useHalfTyped";
import { Labels } from "@/finish/Labels";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { span } from "@/measures/quantity";
import { say, useOutbox } from "@/offline/outbox";
import { Strip } from "@/steps/Strip";
import { outOf, passed, placesSaid, restMin } from "@/steps/stays";
import classes from "./Book.module.css";
import { Different } from "./Different";
import { Findings } from "./Findings";
import { Photos } from "./Photos";
import { TemperatureChart } from "./TemperatureChart";
import { PiecesWeighed, TrayTable } from "./TrayTable";
import { UsedTable } from "./UsedTable";
import { SCALES } from "./words";

export function BookRecord() {
  const { runId = "" } = useParams();
  const run = useRunView(runId, {
    // The last entries may still be on their way from the bench.
    every: (phase) => (phase === "finished" || phase === "given_up" ? false : 3_000),
  });
  if (run.data) return <Record run={run.data} />;
  if (run.error) return <Nothing error={run.error} retry={run.refetch} />;
  return <Waiting what="the record" />;
}

function Record({ run }: { run: RunView }) {
  const [selected, setSelected] = useState<string | null>(null);
  const { counted } = useSaying();
  const { standing, worked } = run;
  const over = standing.phase === "finished" || standing.phase === "given_up";
  const doneAt = new Map(
    standing.deeds.filter((d) => d.kind === "done").map((d) => [d.stop, d.at]),
  );
  return (
    <>
      <div className="roomHead">
        <Title>{`${run.plan.name} in the book`}</Title>
        <h1>{run.plan.name}</h1>
        <span className="quiet">
          {day(run.started_at)}
          {run.started_by && ` by ${run.started_by}`} ·{" "}
          {counted(worked.layers.butter, worked.layers.total)}
          {standing.phase === "given_up" && ` · ${standing.because ?? "stopped"}`}
        </span>
        <div className="actions">
          {!over && (
            <Button component={Link} to={`/bench/${run.id}`}>
              Back to the bench
            </Button>
          )}
          {standing.phase === "given_up" && standing.undoable && <GoOn run={run} />}
          <Button variant="default" onClick={() => window.print()}>
            Print
          </Button>
        </div>
      </div>
      <Strip
        plan={run.plan}
        worked={worked}
        selected={selected}
        onSelect={(key) => setSelected(key === selected ? null : key)}
        under={(stop) => {
          const at = doneAt.get(stop.key);
          return at ? `done ${clock(at)}` : "";
        }}
      />
      {standing.phase === "finished" && (
        <>
          <Findings run={run.id} />
          <Different run={run.id} name={run.plan.name} />
        </>
      )}
      <div className={classes.page}>
        <section>
          <h2>Planned and actual</h2>
          <Deeds run={run} only={selected} />
        </section>
        <div className={classes.right}>
          <section>
            <h2>Temperatures</h2>
            <TemperatureChart run={run} />
          </section>
          {run.used && <UsedTable used={run.used} />}
          <PutAway run={run} />
          <LeftOver worked={run.worked} />
          <TrayTable run={run} />
          {standing.phase === "finished" && worked.labels.length > 0 && (
            <section>
              <h2>Labels</h2>
              <Labels worked={worked} from={{ run: run.id }} />
            </section>
          )}
          <PiecesWeighed run={run} />
          {over && <VerdictForm run={run} />}
          {over && <Photos run={run} />}
        </div>
      </div>
    </>
  );
}

/** A dough stopped by mistake goes on. */
function GoOn({ run }: { run: RunView }) {
  const undo = useMutation({
    mutationFn: () => say(run.id, { kind: "undo", target: run.standing.undoable }),
  });
  return (
    <Button variant="default" loading={undo.isPending} onClick={() => undo.mutate()}>
      Undo the stop and go on
    </Button>
  );
}

/** The part of this dough that was put away, and until when it keeps there. */
function PutAway({ run }: { run: RunView }) {
  const { say } = useSaying();
  const { said } = useTrade();
  const parts = run.standing.put_away;
  if (parts.length === 0) return null;
  return (
    <section>
      <h2>Put away</h2>
      {parts.map(({ stop, part, at, until }) => (
        <p key={stop}>
          {say("mass", Math.round(part.grams))} {part.place === "bench" ? "on" : "in"} the{" "}
          {said("place", part.place)} since {day(at)}, of it{" "}
          {say("mass", Math.round(part.butter_g))} butter, with {part.turns}{" "}
          {part.turns === 1 ? "turn" : "turns"}.
          {until && ` It keeps until about ${day(until)}; your own date comes first.`}
        </p>
      ))}
    </section>
  );
}

/** What this dough leaves for the next one, with the butter that is in it. */
function LeftOver({ worked }: { worked: Schemas["WorkedPlan"] }) {
  const { say } = useSaying();
  if (worked.scrap.length === 0) return null;
  const names = new Map(worked.strip.map((s) => [s.key, s.name]));
  return (
    <section>
      <h2>Left over, for the next dough</h2>
      <p>
        {worked.scrap
          .map(
            (s) =>
              `${names.get(s.stop)}: ${say("mass", Math.round(s.grams))}, of it ${say("mass", Math.round(s.butter_g))} butter`,
          )
          .join("; ")}
        .
      </p>
    </section>
  );
}

function Deeds({ run, only }: { run: RunView; only: string | null }) {
  const { words, say } = useSaying();
  const { standing, worked, order } = run;
  const stops = new Map(worked.strip.map((s) => [s.key, s]));
  const start = new Date(run.started_at).getTime();
  const rows = order
    .map((planned, i) => ({ planned, actual: standing.deeds[i], stop: stops.get(planned.stop) }))
    .filter((row) => !only || row.planned.stop === only);
  const said = [
    ...standing.readings.map((r) => ({
      ...r,
      text: `${r.probe} ${say("temperature", r.value_c)}`,
    })),
    ...standing.remarks.map((r) => ({ ...r, text: `“${r.words}”` })),
    ...standing.away.map((a) => ({ ...a, text: a.says })),
  ].sort((a, b) => a.at.localeCompare(b.at));
  const doneAt = new Map(
    standing.deeds.filter((d) => d.kind === "done").map((d) => [d.stop, d.at]),
  );
  // What was said at a stop belongs to its work until that was done, and then to its rest.
  const saidAt = (key: string, resting: boolean) =>
    said.filter((s) => s.stop === key && s.at > (doneAt.get(key) ?? "9") === resting);
  return (
    <table className={classes.deeds}>
      <thead>
        <tr>
          <th scope="col">Step</th>
          <th scope="col">Planned</th>
          <th scope="col">Actual</th>
          <th scope="col">Off by</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ planned, actual, stop }) => {
          const plannedAt = new Date(start + planned.minute * 60_000);
          const off = actual
            ? (new Date(actual.at).getTime() - plannedAt.getTime()) / 60_000
            : null;
          const out = planned.kind === "out";
          return (
            <tr key={`${planned.kind}${planned.stop}`}>
              <td>
                {out ? outOf(stop?.rest) : <b>{stop?.name}</b>}
                {!out && <span className="quiet"> {words(stop?.does[0] ?? "").toLowerCase()}</span>}
                {out && stop?.rest && (
                  <span className="quiet">
                    {" "}
                    after {span(restMin(stop.rest))}
                    {passed(stop.rest).length > 1 && `: ${placesSaid(stop.rest)}`}
                  </span>
                )}
                {saidAt(planned.stop, out).map((s) => (
                  <span key={s.event_id} className={classes.said}>
                    {clock(s.at)} {s.text}
                    {run.by[s.event_id] && <span className="quiet"> {run.by[s.event_id]}</span>}
                  </span>
                ))}
              </td>
              <td>{clock(plannedAt)}</td>
              <td>
                {actual ? clock(actual.at) : "not yet"}
                {actual?.assumed && <span className="quiet"> as planned</span>}
                {actual && !actual.assumed && run.by[actual.event_id] && (
                  <span className="quiet"> {run.by[actual.event_id]}</span>
                )}
              </td>
              <td>
                {off !== null && (
                  <span className={off >= 10 ? classes.late : undefined}>
                    {Math.round(off) === 0
                      ? "on time"
                      : off > 0
                        ? `${span(off)} late`
                        : `${span(-off)} early`}
                  </span>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** What a piece lost in the oven, in words; empty where it was not weighed both times. */
export function lost(verdict: Schemas["Verdict"]): string {
  const { before_g, after_g } = verdict;
  if (!before_g || !after_g) return "";
  const pct = Math.round(1000 * (1 - after_g / before_g)) / 10;
  return pct >= 0 ? `It lost ${pct} % in the oven.` : "It weighs more than before: look again.";
}

function VerdictForm({ run }: { run: RunView }) {
  const waits = useOutbox().findLast(
    (e) => e.run === run.id && e.what === "event" && e.body.kind === "verdict" && !e.aside,
  );
  const waiting = waits?.what === "event" ? waits.body.verdict : null;
  const kept = waiting ?? run.standing.verdict;
  const half = useHalfTyped<Schemas["Verdict"]>(`verdict.${run.id}`, kept ?? { words: "" });
  const [verdict, setVerdict] = [half.value, half.set];
  const keep = useMutation({
    mutationFn: () => say(run.id, { kind: "verdict", verdict }),
    onSuccess: half.clear,
  });
  const changed =
    verdict.words !== (kept?.words ?? "") ||
    (["before_g", "after_g"] as const).some((w) => (verdict[w] ?? null) !== (kept?.[w] ?? null)) ||
    SCALES.some(([key]) => (verdict[key] ?? null) !== (kept?.[key] ?? null));
  return (
    <form
      className={classes.verdict}
      aria-label="How it came out"
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate();
      }}
    >
      <h2>How it came out</h2>
      {SCALES.map(([key, word, poor, best]) => (
        <fieldset key={key} className={classes.scale}>
          <legend>{word}</legend>
          <div className={classes.marks}>
            {[1, 2, 3, 4, 5].map((n) => (
              <label key={n}>
                <input
                  type="radio"
                  name={key}
                  aria-label={`${word} ${n}`}
                  checked={verdict[key] === n}
                  onChange={() => setVerdict({ ...verdict, [key]: n })}
                />
                <span>{n}</span>
              </label>
            ))}
          </div>
          <span className={classes.ends}>
            <span>{poor}</span>
            <span>{best}</span>
          </span>
        </fieldset>
      ))}
      <div className={classes.weights}>
        <MeasureInput
          label="One piece before the oven"
          quantity="mass"
          path="verdict.before_g"
          value={verdict.before_g}
          emptyMeans="not weighed"
          onChange={(before_g) => setVerdict({ ...verdict, before_g })}
        />
        <MeasureInput
          label="The same piece, cooled"
          quantity="mass"
          path="verdict.after_g"
          value={verdict.after_g}
          emptyMeans="not weighed"
          onChange={(after_g) => setVerdict({ ...verdict, after_g })}
        />
        {lost(verdict) && <p className="quiet">{lost(verdict)}</p>}
      </div>
      <Textarea
        label="In words: what was different?"
        autosize
        minRows={2}
        value={verdict.words}
        onChange={(e) => setVerdict({ ...verdict, words: e.currentTarget.value })}
      />
      <Button type="submit" mt={10} disabled={!changed} loading={keep.isPending}>
        {kept ? "Keep the change" : "Keep the verdict"}
      </Button>
      {!changed && (waiting || keep.isSuccess) && (
        <span role="status">
          {waiting ? " Kept on this tablet, and sent when the bakehouse answers." : " Kept."}
        </span>
      )}
    </form>
  );
}
