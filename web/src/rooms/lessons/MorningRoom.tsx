/** A morning to try: four doughs on one bench, each begun when one says, before it is real. */
import { Button, Loader } from "@mantine/core";
import { useElementSize } from "@mantine/hooks";
import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { sentence } from "@/api/queries";
import { Nothing, Title, Waiting } from "@/app/states";
import { clock } from "@/app/time";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { Threads } from "@/threads/Threads";
import { drawn as drawnOf } from "@/threads/threads";
import classes from "./MorningRoom.module.css";
import practice from "./Practice.module.css";
import { Reached } from "./Reached";
import reached from "./Reached.module.css";

type Play = Schemas["MorningPlay"];
type Begins = Schemas["Begins"];

const STEP_MIN = 5;
const LOOKS_S = 8;
const BESIDE = 120; // px that names and edges take beside the hours
const LEAST = 60; // px an hour takes
const KEPT = "eight-turn.play.morning.";

function kept(key: string): Begins[] {
  try {
    return JSON.parse(localStorage.getItem(KEPT + key) ?? "[]");
  } catch {
    return [];
  }
}

export function MorningRoom() {
  const { morningKey = "" } = useParams();
  const view = useQuery({
    queryKey: ["morning", morningKey],
    queryFn: () =>
      got(api.GET("/api/mornings/{morning}", { params: { path: { morning: morningKey } } })),
  });
  if (view.isPending) return <Waiting what="the morning" />;
  if (!view.data) return <Nothing error={view.error} retry={view.refetch} />;
  return <Trying key={morningKey} view={view.data} />;
}

function Trying({ view }: { view: Schemas["MorningView"] }) {
  const key = view.line.key;
  const [begins, setBegins] = useState<Begins[]>(() => kept(key));
  const [chosen, choose] = useState<string | null>(null);
  const [hint, showHint] = useState(false);
  const { words } = useSaying();
  const put = (next: Begins[]) => {
    localStorage.setItem(KEPT + key, JSON.stringify(next));
    setBegins(next);
  };
  const play = useQuery({
    queryKey: ["morning-play", key, begins],
    queryFn: () =>
      got(
        api.POST("/api/mornings/{morning}/play", {
          params: { path: { morning: key } },
          body: { begins, seconds: 0 },
        }),
      ),
    placeholderData: keepPreviousData,
    initialData: begins.length === 0 ? view.play : undefined,
    retry: false,
  });
  const result = useMutation({
    mutationFn: () =>
      got(
        api.POST("/api/mornings/{morning}/outcome", {
          params: { path: { morning: key } },
          body: { begins, seconds: LOOKS_S },
        }),
      ),
  });
  const now: Play = play.data ?? view.play;
  const at = (dough: string) => {
    const mine = begins.find((b) => b.dough === dough)?.at;
    const held = view.begins.find((b) => b.dough === dough)?.at;
    return mine ?? held ?? now.begins.find((b) => b.dough === dough)?.at ?? "";
  };
  const begin = (dough: string, when: string) => {
    result.reset();
    put([...begins.filter((b) => b.dough !== dough), { dough, at: when }]);
  };
  const move = (dough: string, minutes: number) =>
    begin(dough, new Date(Date.parse(at(dough)) + minutes * 60_000).toISOString());
  const first = new Map(now.begins.map((b) => [b.dough, b.step]));
  return (
    <>
      <Title>{view.line.name}</Title>
      <p className={practice.practiceBand} role="note">
        <b>Practice</b> <span>a morning to try: no dough, nothing written into the day</span>
      </p>
      <div className="roomHead">
        <h1>{view.line.name}</h1>
        <div className="actions">
          <Button size="md" variant="default" onClick={() => showHint(true)} disabled={hint}>
            A hint
          </Button>
          <Button
            size="md"
            variant="default"
            disabled={begins.length === 0}
            onClick={() => {
              result.reset();
              put([]);
            }}
          >
            Again from the start
          </Button>
          <Button size="md" variant="default" component={Link} to="/lessons">
            To the lessons
          </Button>
        </div>
      </div>
      <p>{view.line.words}</p>
      {hint && <p className="bar">{view.hint}</p>}
      <div className={classes.morning}>
        <section aria-label="When each dough is begun">
          <h2>Begun at</h2>
          <ul className={classes.begins}>
            {now.begins
              .toSorted((a, b) => a.dough.localeCompare(b.dough))
              .map((one) => (
                <li key={one.dough}>
                  <span>
                    <b>{one.name}</b>
                    <small>
                      wanted at {clock(one.wanted)}
                      {clock(one.at) !== clock(at(one.dough)) &&
                        `; hands are free for it at ${clock(one.at)}`}
                    </small>
                  </span>
                  <Button
                    variant="default"
                    size="md"
                    aria-label={`Begin ${one.name} earlier`}
                    onClick={() => move(one.dough, -STEP_MIN)}
                  >
                    −
                  </Button>
                  <output aria-label={`${one.name} is begun at`}>{clock(at(one.dough))}</output>
                  <Button
                    variant="default"
                    size="md"
                    aria-label={`Begin ${one.name} later`}
                    onClick={() => move(one.dough, STEP_MIN)}
                  >
                    +
                  </Button>
                </li>
              ))}
          </ul>
        </section>
        <Came play={now} />
      </div>
      {play.error && (
        <p className="bar mind" role="alert">
          {sentence(play.error)}
        </p>
      )}
      <Drawn name="Your morning" play={now} chosen={chosen} choose={choose}>
        {(task, when) => task.step === first.get(task.dough) && begin(task.dough, when)}
      </Drawn>
      <div className={practice.actions}>
        <Button size="lg" onClick={() => result.mutate()} loading={result.isPending}>
          How good is it?
        </Button>
        {result.isPending && (
          <span role="status">
            <Loader size="sm" type="dots" color="crust" /> Looking for the best morning.
          </span>
        )}
      </div>
      {result.error && (
        <p className="bar mind" role="alert">
          {sentence(result.error)}
        </p>
      )}
      {result.data && (
        <>
          <section aria-label="What each hour cost" className={classes.hours}>
            <h2>What each hour cost</h2>
            <ol className={reached.costs}>
              {result.data.costs.map((cost) => (
                <li key={cost.dough}>
                  <p>{words(cost.says)}</p>
                </li>
              ))}
            </ol>
          </section>
          <div className={classes.morning}>
            <h2>The best morning that was found</h2>
            <Came play={result.data.best} />
          </div>
          <Drawn name="The best morning" play={result.data.best} chosen={chosen} choose={choose} />
        </>
      )}
    </>
  );
}

const WORDS: Record<string, string> = {
  late_min: "late",
  outside_min: "of rests outside what they bear",
  tight_min: "of rests only tight",
};

/** What a morning comes to: the goal's lines, and what could not be had. */
function Came({ play }: { play: Play }) {
  const { words } = useSaying();
  return (
    <section aria-label="What it comes to">
      <Reached
        lines={play.goal.map((line) => ({
          of: line.of,
          reached: line.reached,
          says: (
            <>
              <b>{span(Math.round(line.came))}</b> {WORDS[line.of]}
              {line.reached ? ": reached" : `, at most ${span(line.wanted)}: not reached`}
            </>
          ),
        }))}
      />
      <ul className={reached.harms}>
        {play.gives.slice(0, 4).map((give) => (
          <li key={give}>{words(give)}</li>
        ))}
      </ul>
    </section>
  );
}

interface DrawnProps {
  name: string;
  play: Play;
  chosen: string | null;
  choose: (dough: string | null) => void;
  children?: (task: Schemas["Task"], at: string) => void;
}

function Drawn({ name, play, chosen, choose, children }: DrawnProps) {
  const order = play.begins.map((b) => b.dough).toSorted();
  const { ref, width } = useElementSize();
  const drawn = drawnOf(play.timetable, order);
  return (
    <section aria-label={name} ref={ref}>
      <Threads
        drawn={drawn}
        hours={play.timetable.hours}
        moved={[]}
        now={null}
        scale={Math.max((60 * (width - BESIDE)) / Math.max(drawn.minutes, 60), LEAST)}
        chosen={chosen}
        choose={choose}
        hold={children}
      />
    </section>
  );
}
