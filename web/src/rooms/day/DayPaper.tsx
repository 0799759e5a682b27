/** The day on paper: a sheet for everybody and every machine, and what the next shift is told. */
import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Fragment } from "react";
import { Link, useParams } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { Nothing, Title, Waiting } from "@/app/states";
import { clock, day as dayOf } from "@/app/time";
import { span } from "@/measures/quantity";
import classes from "./DayPaper.module.css";

type Task = Schemas["Task"];

const between = (from: string, to: string) => (Date.parse(to) - Date.parse(from)) / 60_000;

export function DayPaper() {
  const order_id = Number(useParams().orderId);
  const found = useQuery({
    queryKey: ["timetable", order_id],
    queryFn: () =>
      got(api.GET("/api/orders/{order_id}/timetable", { params: { path: { order_id } } })),
  });
  const today = useQuery({
    queryKey: ["today"],
    queryFn: () => got(api.GET("/api/today")),
    retry: false,
  });
  if (found.isPending) return <Waiting what="the timetable" />;
  if (!found.data) return <Nothing error={found.error} retry={found.refetch} />;
  const { timetable, doughs } = found.data;
  const nameOf = (dough: string) => doughs.find((d) => d.dough === dough)?.name ?? "";
  const own = timetable.tasks.filter((t) => !t.together);
  const along = (task: Task) => [
    task.dough,
    ...timetable.tasks
      .filter((t) => t.together === task.dough && t.step === task.step)
      .map((t) => t.dough),
  ];
  const people = [...new Set(own.map((t) => t.who).filter((who) => who !== null))].toSorted();
  const machines = [...new Set(own.map((t) => t.machine).filter((m) => m !== null))];
  // before each stretch of work but the first: how long the pause is
  const pauses = new Map<string, string>();
  for (const { who, stretches } of timetable.duties ?? [])
    for (const [i, { starts }] of stretches.entries()) {
      const before = stretches[i - 1];
      if (before)
        pauses.set(`${who} ${starts}`, `${span(between(before.ends, starts))} without work`);
    }
  const sheets: [string, Task[]][] = [
    ...people.map((who): [string, Task[]] => [who ?? "", own.filter((t) => t.who === who)]),
    ...machines.map((m): [string, Task[]] => [m ?? "", own.filter((t) => t.machine === m)]),
  ];
  return (
    <>
      <div className={`roomHead ${classes.screen}`}>
        <Title>{`${timetable.name} on paper`}</Title>
        <h1>{timetable.name}</h1>
        <div className="actions">
          <Button component={Link} to={`/day/${order_id}?view=timetable`} variant="default">
            Back
          </Button>
          <Button onClick={() => window.print()}>Print</Button>
        </div>
      </div>
      {today.data?.order_id === order_id && (
        <article className={classes.sheet}>
          <h2>For the next shift</h2>
          <p className={classes.told}>{today.data.handover}</p>
        </article>
      )}
      {sheets.map(([name, tasks]) => (
        <article key={name} className={classes.sheet} aria-label={name}>
          <header>
            <h2>{name}</h2>
            <span>
              {timetable.name}, from {dayOf(tasks[0]?.starts ?? "")}
            </span>
          </header>
          <table>
            <thead>
              <tr>
                <th scope="col">from</th>
                <th scope="col">to</th>
                <th scope="col">what</th>
                <th scope="col">dough</th>
                <th scope="col">of</th>
              </tr>
            </thead>
            <tbody>
              {tasks.map((task) => (
                <Fragment key={`${task.dough} ${task.step}`}>
                  {task.who === name && pauses.has(`${name} ${task.starts}`) && (
                    <tr className={classes.pause}>
                      <td colSpan={5}>{pauses.get(`${name} ${task.starts}`)}</td>
                    </tr>
                  )}
                  <tr>
                    <td>{clock(task.starts)}</td>
                    <td>{clock(task.ends)}</td>
                    <td>{task.name}</td>
                    <td>{along(task).join(", ")}</td>
                    <td>{nameOf(task.dough)}</td>
                  </tr>
                </Fragment>
              ))}
            </tbody>
          </table>
        </article>
      ))}
    </>
  );
}
