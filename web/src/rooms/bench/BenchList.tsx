import { Button, TextInput } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "@/api/client";
import { sentence, today, usePlans, useRuns } from "@/api/queries";
import { numbered } from "@/api/runs";
import { useTrade } from "@/api/trade";
import { Nothing, Title, Waiting } from "@/app/states";
import { span } from "@/measures/quantity";
import { useStartRun } from "@/offline/useStartRun";
import { houseTime } from "@/wire/clock";
import classes from "./BenchList.module.css";
import { minutesBetween } from "./now";

/** The doughs under way, and the plans one may take to the bench. */
export function BenchList() {
  const runs = useRuns();
  const plans = usePlans();
  const start = useStartRun();
  const { said } = useTrade();
  const under = runs.data?.runs;
  const [sought, seek] = useState("");
  const due = new Set(useQuery(today).data?.doughs.map((d) => d.plan_id));
  return (
    <>
      <div className="roomHead">
        <Title>Bench</Title>
        <h1>Bench</h1>
      </div>
      {runs.isPending && <Waiting what="the doughs" />}
      {runs.isError && <Nothing error={runs.error} retry={runs.refetch} />}
      {start.isError && (
        <div className="bar mind" role="alert">
          {sentence(start.error)}
        </div>
      )}
      {under?.length === 0 && (
        <div className="empty">
          <h2>No dough under way</h2>
          <p>Take a plan to the bench below.</p>
        </div>
      )}
      <ul className="ruled">
        {under?.toSorted(sooner).map((run) => (
          <li key={run.id}>
            <Link to={`/bench/${run.id}`} className={classes.run}>
              <b>{numbered(run)}</b>
              <State run={run} />
              <span className={classes.turns}>
                {run.turns_done} of {run.turns} turns
              </span>
            </Link>
          </li>
        ))}
      </ul>
      {plans.data && plans.data.length > 0 && (
        <>
          <h2 className={classes.next}>Take a plan to the bench</h2>
          {plans.data.length > MANY && (
            <TextInput
              label="Find a plan"
              size="md"
              value={sought}
              onChange={(e) => seek(e.currentTarget.value)}
            />
          )}
          <ul className="ruled">
            {found(plans.data, sought, due).map((plan) => (
              <li key={plan.id} className={classes.plan}>
                <span>
                  <b>{plan.name}</b> <span className="quiet">{said("family", plan.family)}</span>
                  {due.has(plan.id) && <span className={classes.due}>for today</span>}
                </span>
                <Button
                  variant="default"
                  size="lg"
                  disabled={start.isPending}
                  aria-label={`Start ${plan.name}`}
                  onClick={() => start.mutate({ plan_id: plan.id })}
                >
                  Start
                </Button>
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}

/** Beyond so many plans one wants to look for one. */
const MANY = 6;

/** The plans of a name or family that is looked for; those that today's doughs are made of come first. */
export function found<P extends { id: number; name: string; family: string }>(
  plans: P[],
  sought: string,
  due: Set<number>,
): P[] {
  const words = sought.trim().toLowerCase().split(/\s+/);
  const all = plans.filter((p) =>
    words.every((word) => `${p.name} ${p.family}`.toLowerCase().includes(word)),
  );
  return all.toSorted((a, b) => Number(due.has(b.id)) - Number(due.has(a.id)));
}

/** What is ready first comes first, and what waits for hands after it. */
export const sooner = (a: Schemas["RunLine"], b: Schemas["RunLine"]): number => {
  const due = (run: Schemas["RunLine"]) =>
    run.until ? Date.parse(run.until) : Number.POSITIVE_INFINITY;
  return due(a) === due(b) ? Date.parse(a.since) - Date.parse(b.since) : due(a) - due(b);
};

function State({ run }: { run: Schemas["RunLine"] }) {
  if (run.phase === "work" && !run.until) {
    return (
      <span>
        <b>{run.stop_name}</b> on the bench since{" "}
        {span(minutesBetween(new Date(run.since), new Date(houseTime())))}
      </span>
    );
  }
  const left = run.until ? minutesBetween(new Date(houseTime()), new Date(run.until)) : 0;
  return (
    <span className={left > 0 ? classes.cold : classes.late}>
      {run.tray ? `tray ${run.tray}, ` : "resting after "}
      {run.stop_name?.toLowerCase()}:{" "}
      <b>{left > 0 ? `${span(left)} more` : `${span(-left)} over`}</b>
    </span>
  );
}
