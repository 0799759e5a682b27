/** A day's timetable: the threads, what could not be had, and the same in words beside it. */
import { Button } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { useEffect, useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "@/api/client";
import { sentence } from "@/api/queries";
import { clock, day as dayOf } from "@/app/time";
import { WouldMove } from "@/app/WouldMove";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { Threads } from "@/threads/Threads";
import { drawn as drawnOf, snapped } from "@/threads/threads";
import { houseTime } from "@/wire/clock";
import classes from "./DayPlan.module.css";
import type { useArranged } from "./useArranged";
import { Whose } from "./Whose";

type Order = Schemas["Order"];

interface Props {
  id: number;
  order: Order;
  arranged: ReturnType<typeof useArranged>;
  readOnly: boolean;
  change: (part: Partial<Order>, path: string) => void;
}

type Timetable = Schemas["Timetable"];

const MISSING = ["hand", "machine", "place", "held"]; // what cannot be had at the minute it is wanted
const FITS_IN = 1_020; // pixels that are there on a small screen, beside the names
const CLOSER = 1.7;
const CLOSEST = 480;

export function DayPlan({ id, order, arranged, readOnly, change }: Props) {
  const { words } = useSaying();
  const found = arranged.kept.data;
  const [asked, ask] = useSearchParams();
  const [zoom, setZoom] = useState<number | null>(null);
  const now = useMinute();
  const chosen = found?.doughs.find((d) => d.dough === asked.get("dough"))?.dough ?? null;
  const choose = (dough: string | null) =>
    ask(
      (params) => {
        if (dough) params.set("dough", dough);
        else params.delete("dough");
        return params;
      },
      { replace: true },
    );
  const proposed = found?.proposed ?? null;
  const shown = proposed ?? found?.timetable;
  const drawn = useMemo(
    () =>
      shown && found
        ? drawnOf(
            shown,
            found.doughs.map((d) => d.dough),
          )
        : null,
    [shown, found],
  );
  // at first the whole day; then closer, as far as the minutes of one hour
  const fitting = drawn ? (60 * FITS_IN) / Math.max(drawn.minutes, 60) : 60;
  const scale = zoom ?? fitting;
  const step = (by: number) =>
    setZoom(Math.min(Math.max(scale * CLOSER ** by, fitting), Math.max(CLOSEST, fitting)));
  useHotkeys([
    ["+", () => step(1)],
    ["-", () => step(-1)],
    ["Escape", () => choose(null)],
  ]);
  if (!found || !shown || !drawn) {
    return (
      <div className="empty">
        <h2>No timetable yet</h2>
        <p>
          {order.hands?.length
            ? "Say when every dough is wanted; the timetable follows."
            : "Say who is there, from when to when: under “Orders and hands”."}
        </p>
        {arranged.failed ? (
          <p role="alert" className="bar mind">
            {sentence(arranged.failed)}
          </p>
        ) : null}
      </div>
    );
  }
  const hold = (task: Schemas["Task"], at: string) =>
    change(
      {
        held: [
          ...(order.held ?? []).filter((h) => h.dough !== task.dough || h.step !== task.step),
          { dough: task.dough, step: task.step, at },
        ],
      },
      "held",
    );
  // keys come faster than timetables: each goes on from what the last one asked for
  const nudge = (task: Schemas["Task"], minutes: number) => {
    const asked = order.held?.find((h) => h.dough === task.dough && h.step === task.step);
    hold(task, moment(Date.parse(asked?.at ?? task.starts) + minutes * 60_000));
  };
  const free = (task: Schemas["Task"]) =>
    change(
      { held: (order.held ?? []).filter((h) => h.dough !== task.dough || h.step !== task.step) },
      "held",
    );
  const nameOf = (dough: string) => found.doughs.find((d) => d.dough === dough)?.name ?? "";
  const tight = shown.gives.filter((g) => g.code === "tight");
  const gives = shown.gives.filter((g) => g.code !== "tight");
  return (
    <div className={classes.plan}>
      <div className={classes.bar}>
        <p className={classes.sum} role="status">
          <b>{found.doughs.length}</b> {found.doughs.length === 1 ? "dough" : "doughs"}, first ready{" "}
          {clock(shown.ready.map((r) => r.at).toSorted()[0] ?? "")}
          {shown.late_min > 0 && (
            <b className={classes.late}> · {span(shown.late_min)} late in all</b>
          )}
          {" · "}
          {given(shown)}
          {arranged.arranging && <span> · looking for a better one</span>}
        </p>
        <div className={classes.tools}>
          {arranged.arranging && (
            <Button variant="default" onClick={arranged.stop}>
              Stop looking
            </Button>
          )}
          {!readOnly && !arranged.arranging && (
            <Button variant="default" onClick={arranged.arrange}>
              Look for a better one
            </Button>
          )}
          <Button variant="default" aria-label="Zoom out" onClick={() => step(-1)} px={14}>
            −
          </Button>
          <Button variant="default" aria-label="Zoom in" onClick={() => step(1)} px={14}>
            +
          </Button>
        </div>
      </div>
      {arranged.failed ? (
        <div className="bar mind" role="alert">
          {sentence(arranged.failed)}
        </div>
      ) : null}
      {proposed && (
        <WouldMove
          proposed={proposed}
          few={6}
          nameOf={nameOf}
          take={() => arranged.doing.mutate("take")}
          leave={() => arranged.doing.mutate("leave")}
        />
      )}
      <Threads
        drawn={drawn}
        hours={shown.hours}
        moved={proposed?.moved ?? []}
        now={found.opened_at ? now : null}
        scale={scale}
        chosen={chosen}
        choose={choose}
        hold={readOnly ? undefined : hold}
        nudge={readOnly ? undefined : nudge}
      />
      <div className={classes.below}>
        <section aria-label="Doughs of the day" className={classes.doughs}>
          {found.doughs.map((dough) => {
            const ready = shown.ready.find((r) => r.dough === dough.dough);
            return (
              <button
                key={dough.dough}
                type="button"
                aria-pressed={chosen === dough.dough}
                className={classes.dough}
                onClick={() => choose(chosen === dough.dough ? null : dough.dough)}
              >
                <b>{dough.dough}</b>
                <span>{dough.name}</span>
                <span className={ready && ready.late_min > 0 ? classes.late : "quiet"}>
                  {ready
                    ? `${clock(ready.at)}${ready.late_min > 0 ? `, ${span(ready.late_min)} late` : ""}`
                    : "stopped"}
                </span>
              </button>
            );
          })}
        </section>
        {chosen ? (
          <InWords
            timetable={shown}
            dough={chosen}
            name={nameOf(chosen)}
            free={readOnly ? undefined : free}
          />
        ) : (
          <section aria-label="What could not be had" className={classes.gives}>
            <h2>{gives.length ? "What could not be had" : "All of it can be had"}</h2>
            {gives.length === 0 && (
              <p>Every dough is ready in time, and every rest is within what it can bear.</p>
            )}
            <ul>
              {gives.map((g) => (
                <li key={g.says}>
                  {words(g.says)} {g.mend && <b>{words(g.mend)}</b>}
                </li>
              ))}
            </ul>
            {tight.length > 0 && (
              <details>
                <summary>
                  {tight.length === 1 ? "One rest is" : `${tight.length} rests are`} tight
                </summary>
                <ul>
                  {tight.map((g) => (
                    <li key={g.says}>{words(g.says)}</li>
                  ))}
                </ul>
              </details>
            )}
          </section>
        )}
      </div>
      <Whose id={id} duties={shown.duties ?? []} />
      <p className="quiet">
        <Link to={`/day/${id}/paper`}>On paper</Link> · as a{" "}
        <a href={`/api/orders/${id}/day.ics`}>calendar</a> · as{" "}
        <a href={`/api/orders/${id}/day.csv`}>rows</a>
      </p>
    </div>
  );
}

/** What is given up, in the words a baker can use; who is late is said beside it. */
export function given(
  t: Pick<Timetable, "late_min" | "outside_min" | "tight_min" | "gives">,
): string {
  const said = [];
  const missing = t.gives.filter((g) => MISSING.includes(g.code)).length;
  if (missing > 0)
    said.push(`${missing === 1 ? "one thing" : `${missing} things`} could not be had`);
  if (t.outside_min > 0) said.push(`${span(t.outside_min)} beyond what rests can bear`);
  if (t.tight_min > 0) said.push(`${span(t.tight_min)} of tight rests`);
  const rest = t.late_min > 0 ? "nothing else had to give" : "everything is ready in its time";
  return said.join(", ") || rest;
}

function InWords({
  timetable,
  dough,
  name,
  free,
}: {
  timetable: Schemas["Timetable"];
  dough: string;
  name: string;
  free?: (task: Schemas["Task"]) => void;
}) {
  const tasks = timetable.tasks.filter((t) => t.dough === dough);
  return (
    <section aria-label={`Dough ${dough} in words`} className={classes.words}>
      <h2>
        Dough {dough} <span className="quiet">{name}</span>
      </h2>
      <ol className={classes.steps}>
        {tasks.map((task) => {
          const rests = timetable.rests.filter((r) => r.dough === dough && r.step === task.step);
          const rest = rests[0];
          return (
            <li key={task.step} className={classes.step}>
              <time dateTime={task.starts} title={dayOf(task.starts)}>
                {clock(task.starts)}
              </time>
              <span>
                <b>{task.name}</b>{" "}
                <span className="quiet">
                  {task.together ? `with dough ${task.together}` : (task.who ?? task.machine ?? "")}
                </span>
                {task.held && free && (
                  <button type="button" className={classes.free} onClick={() => free(task)}>
                    fixed: let it move
                  </button>
                )}
              </span>
              <span
                className={
                  rest && (rest.verdict === "short" || rest.verdict === "long")
                    ? classes.late
                    : "quiet"
                }
              >
                {rest
                  ? `${span(rest.minutes)} ${rests.map((r) => PLACE[r.place]).join(", then ")}${rest.verdict === "good" ? "" : `: ${rest.verdict}`}`
                  : ""}
              </span>
            </li>
          );
        })}
      </ol>
    </section>
  );
}

const PLACE = {
  bench: "on the bench",
  fridge: "in the fridge",
  freezer: "in the freezer",
  proofer: "in the proofer",
} as const;

const moment = (at: number) => new Date(snapped(at / 60_000) * 60_000).toISOString();

function useMinute() {
  const [now, setNow] = useState(houseTime);
  useEffect(() => {
    const each = setInterval(() => setNow(houseTime()), 30_000);
    return () => clearInterval(each);
  }, []);
  return now;
}
