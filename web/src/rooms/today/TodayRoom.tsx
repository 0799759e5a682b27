/** What needs hands now: the first screen of whoever is on. */
import { Button, NativeSelect, Textarea } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { queries, sentence, today as todayQuery } from "@/api/queries";
import { SoundSwitch } from "@/app/SoundSwitch";
import { Nothing, Title, Waiting } from "@/app/states";
import { clock } from "@/app/time";
import { WouldMove } from "@/app/WouldMove";
import { storeQuery } from "@/blocks/blocks";
import { MovesDue } from "@/blocks/MovesDue";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { say } from "@/offline/outbox";
import { started } from "@/offline/useStartRun";
import { houseTime } from "@/wire/clock";
import { newId } from "@/wire/id";
import { lateBy, pressing } from "./pressing";
import classes from "./Today.module.css";
import { useCalls } from "./useCalls";

type Today = Schemas["TodayView"];
type Due = Schemas["Due"];

const MOVES_FROM_MIN = 5; // minutes late from which the rest of the day is arranged again by itself

export function TodayRoom() {
  const today = useQuery({ ...todayQuery, refetchInterval: 10_000 });
  const moves = useMovesSoon();
  if (today.isPending) return <Waiting what="the day" />;
  if (today.isError && !today.data) return <Nothing error={today.error} retry={today.refetch} />;
  if (!today.data) {
    return (
      <div className="empty">
        <h2>No day is started</h2>
        <p>Open a day, look at its timetable, and press “Start the day”.</p>
        <Link to="/day">To the days</Link>
        {moves.length > 0 && <OutOfTheCold moves={moves} />}
      </div>
    );
  }
  return <Day today={today.data} moves={moves} />;
}

const SOON_MS = 24 * 3_600_000;

/** What is to be taken out of the freezer within a day. */
function useMovesSoon(): Schemas["ThawMove"][] {
  const store = useQuery(storeQuery);
  return (store.data?.moves ?? []).filter((m) => Date.parse(m.at) < houseTime() + SOON_MS);
}

function OutOfTheCold({ moves }: { moves: Schemas["ThawMove"][] }) {
  return (
    <section aria-label="Out of the cold" className={classes.cold}>
      <h2>Out of the cold</h2>
      <MovesDue moves={moves} large />
    </section>
  );
}

function Day({ today, moves }: { today: Today; moves: Schemas["ThawMove"][] }) {
  const { words } = useSaying();
  const { first, next, done } = pressing(today.due);
  const again = useMutation({
    mutationFn: (only_if_it_moves: boolean) =>
      got(
        api.POST("/api/orders/{order_id}/again", {
          params: { path: { order_id: today.order_id }, query: { only_if_it_moves } },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["today"] }),
  });
  const decide = useMutation({
    mutationFn: (what: "take" | "leave") =>
      got(
        api.POST(`/api/orders/{order_id}/${what}`, {
          params: { path: { order_id: today.order_id } },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["today"] }),
  });
  const { who, setWho } = useCalls(today.due);
  const names = [...new Set(today.due.flatMap((d) => d.who ?? []))].toSorted();
  // More is late than when it was last asked what has to move: ask again. Nothing moves by itself.
  const overdue = lateBy(today.due, MOVES_FROM_MIN);
  const asked = useRef("");
  const ask = again.mutate;
  useEffect(() => {
    if (!overdue || overdue === asked.current || today.proposed) return;
    asked.current = overdue;
    ask(true);
  }, [overdue, today.proposed, ask]);
  const late = first.filter((d) => d.when === "late");
  return (
    <>
      <div className="roomHead">
        <Title>Today</Title>
        <h1>Today</h1>
        <span className="quiet">
          {today.name} · {done} of {today.due.length} steps done
        </span>
        <div className="actions">
          {names.length > 1 && (
            <NativeSelect
              aria-label="Who is at this tablet"
              size="md"
              value={names.includes(who) ? who : ""}
              data={[{ value: "", label: "Everybody here" }, ...names]}
              onChange={(e) => setWho(e.currentTarget.value)}
            />
          )}
          <SoundSwitch small />
          <Button
            component={Link}
            to={`/day/${today.order_id}?view=timetable`}
            variant="default"
            size="md"
          >
            Timetable
          </Button>
        </div>
      </div>
      {today.proposed && (
        <WouldMove
          proposed={today.proposed}
          few={4}
          large
          nameOf={(dough) => today.doughs.find((d) => d.dough === dough)?.name ?? ""}
          take={() => decide.mutate("take")}
          leave={() => decide.mutate("leave")}
        />
      )}
      {again.isError || decide.isError ? (
        <div className="bar mind" role="alert">
          {sentence(again.error ?? decide.error)}
        </div>
      ) : null}
      <div className={classes.today}>
        <section aria-label="Needs hands now">
          <h2>Needs hands now</h2>
          {first.length === 0 && (
            <p className={classes.calm}>
              Nothing. {next[0] ? `Next at ${clock(next[0].starts)}.` : "All is done."}
            </p>
          )}
          <ul className={classes.first}>
            {first.map((due) => (
              <Row key={`${due.doughs[0]} ${due.step}`} due={due} today={today} big />
            ))}
          </ul>
          {late.length > 0 && !today.proposed && (
            <Button
              size="lg"
              variant="default"
              loading={again.isPending}
              onClick={() => again.mutate(false)}
            >
              What has to move?
            </Button>
          )}
          {moves.length > 0 && <OutOfTheCold moves={moves} />}
          <h2>Next</h2>
          <ul className={classes.next}>
            {next.map((due) => (
              <Row key={`${due.doughs[0]} ${due.step}`} due={due} today={today} />
            ))}
          </ul>
        </section>
        <section aria-label="At rest">
          <h2>At rest</h2>
          <ul className={classes.lying}>
            {today.lying.map((one) => (
              <li key={one.dough} data-over={one.minutes < 0 || undefined}>
                <b className={classes.number}>{one.dough}</b>
                <span>
                  {one.place}, then {one.following.toLowerCase()}
                </span>
                <b>{one.minutes > 0 ? span(one.minutes) : "may come out"}</b>
              </li>
            ))}
          </ul>
          {(today.gives.length > 0 || today.short.length > 0) && (
            <>
              <h2>To mind</h2>
              <ul className={classes.gives}>
                {[...today.short, ...today.gives].slice(0, 5).map((says) => (
                  <li key={says}>{words(says)}</li>
                ))}
              </ul>
            </>
          )}
          <h2>On</h2>
          <p>
            {today.on.length === 0 && "Nobody is on shift now."}
            {today.on
              .map(
                (s) =>
                  `${s.name}${(s.count ?? 1) > 1 ? `, ${s.count} hands` : ""} until ${clock(s.ends)}`,
              )
              .join("; ")}
            {today.next_on && ` · next ${today.next_on.name} at ${clock(today.next_on.starts)}`}
          </p>
          <Handover today={today} />
        </section>
      </div>
    </>
  );
}

/** One task: how urgent it is in word and shape, and one press to its dough. */
function Row({ due, today, big }: { due: Due; today: Today; big?: boolean }) {
  const go = useNavigate();
  const runs = due.doughs.map((dough) => today.runs.find((r) => r.dough === dough));
  const begin = useMutation({
    mutationFn: async () => {
      const begun = due.doughs.map((dough) => ({
        id: newId(),
        plan_id: today.doughs.find((d) => d.dough === dough)?.plan_id ?? 0,
        day: today.order_id,
        dough,
      }));
      const sent = await Promise.all(begun.map(started));
      return sent[0] ? begun[0]?.id : undefined;
    },
    onSuccess: (run) => {
      queries.invalidateQueries({ queryKey: ["today"] });
      if (run) go(`/bench/${run}`);
    },
  });
  const done = useMutation({
    mutationFn: () =>
      Promise.all(
        runs
          .filter((run) => run !== undefined)
          .map((run) => say(run.run, { kind: "done", stop: due.step })),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["today"] }),
  });
  const run = runs[0];
  const names = [...new Set(due.doughs.map((d) => today.doughs.find((n) => n.dough === d)?.name))];
  const failed = begin.error ?? done.error;
  return (
    <li className={classes.row} data-when={due.when} data-big={big || undefined}>
      <time dateTime={due.starts}>{clock(due.starts)}</time>
      <span className={classes.numbers}>{due.doughs.join(" ")}</span>
      <span className={classes.what}>
        <b>{due.name}</b>
        <span className="quiet">
          {names.join(", ")}
          {due.who ? ` · ${due.who}` : ""}
        </span>
        {failed ? (
          <span role="alert" className={classes.late}>
            {sentence(failed)}
          </span>
        ) : null}
      </span>
      <span className={due.when === "late" ? classes.late : "quiet"}>{due.says}</span>
      {run && due.begun && !due.by_tray && due.doughs.length > 1 && runs.every(Boolean) ? (
        <Button size={big ? "lg" : "md"} loading={done.isPending} onClick={() => done.mutate()}>
          Done, all {due.doughs.length}
        </Button>
      ) : run ? (
        <Button
          component={Link}
          to={`/bench/${run.run}`}
          size={big ? "lg" : "md"}
          variant={big ? "filled" : "default"}
          aria-label={`To the dough, ${due.doughs[0]}`}
        >
          To the dough
        </Button>
      ) : due.first ? (
        <Button
          size={big ? "lg" : "md"}
          variant={big ? "filled" : "default"}
          loading={begin.isPending}
          onClick={() => begin.mutate()}
          aria-label={`${due.doughs.length > 1 ? `Begin all ${due.doughs.length}` : "Begin"}: dough ${due.doughs.join(", ")}`}
        >
          {due.doughs.length > 1 ? `Begin all ${due.doughs.length}` : "Begin"}
        </Button>
      ) : (
        <span />
      )}
    </li>
  );
}

/** What the next shift is told: written by itself, changed by hand, printed. */
function Handover({ today }: { today: Today }) {
  const [text, setText] = useState<string | null>(null);
  const keep = useMutation({
    mutationFn: (said: string) =>
      got(
        api.PUT("/api/orders/{order_id}/handover", {
          params: { path: { order_id: today.order_id } },
          body: { text: said },
        }),
      ),
    onSuccess: () => {
      setText(null);
      queries.invalidateQueries({ queryKey: ["today"] });
    },
  });
  return (
    <section aria-label="Handover" className={classes.handover}>
      <h2>For the next shift</h2>
      {text === null ? (
        <p className={classes.told}>{today.handover}</p>
      ) : (
        <Textarea
          aria-label="For the next shift"
          autosize
          minRows={4}
          value={text}
          onChange={(e) => setText(e.currentTarget.value)}
        />
      )}
      <div className={classes.tools}>
        {text === null ? (
          <Button variant="default" onClick={() => setText(today.handover)}>
            Change it
          </Button>
        ) : (
          <Button loading={keep.isPending} onClick={() => keep.mutate(text)}>
            Keep it
          </Button>
        )}
        {today.handover_is_own && (
          <Button variant="default" onClick={() => keep.mutate("")}>
            Discard this text, write it automatically
          </Button>
        )}
        <Button variant="default" component={Link} to={`/day/${today.order_id}/paper`}>
          Print
        </Button>
      </div>
    </section>
  );
}
