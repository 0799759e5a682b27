/** The simulated bench: a step at a time, decided by what a hand feels, with a clock one can hurry. */
import { Button } from "@mantine/core";
import { IconArrowBackUp, IconBulb } from "@tabler/icons-react";
import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useCallback, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "@/api/client";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { useLostSince } from "@/wire/connection";
import { AskedAll } from "./Asked";
import { FeltNow, FeltResting } from "./Felt";
import { PlayStrip } from "./PlayStrip";
import {
  askedAfter,
  askedBefore,
  asksNow,
  type Bench,
  backTo,
  clockAt,
  courseOf,
  decidedOf,
  lasts,
  type Moment,
  type Play,
  runs,
  SPEEDS,
  takenOut,
  undecided,
  undo,
  workDone,
} from "./play";
import { benchQuery } from "./queries";
import classes from "./SimBench.module.css";
import { useRunning } from "./usePlay";

interface Props {
  view: Schemas["LessonView"];
  play: Play;
  setPlay: (next: Play | ((was: Play | null) => Play | null)) => void;
  leave: () => void;
}

export function SimBench({ view, play, setPlay, leave }: Props) {
  const asked = useQuery(benchQuery(view.line.key, play.decisions));
  const bench: Bench = asked.data ?? view.bench;
  const lost = useLostSince() !== null;
  const stale = asked.isPlaceholderData || !asked.data;
  const moment = bench.moments.find((m) => m.n === play.at) ?? bench.moments[bench.opens];
  const [speed, setSpeed] = useState<number>(60);
  if (!moment) return null;
  const course = courseOf(play, moment);
  const resting = play.phase === "rest";
  const minute = resting ? moment.rests_at_min + play.rested : moment.starts_min;
  const felt =
    resting && course ? (
      <FeltResting course={course} minute={play.rested} bench={bench} />
    ) : (
      moment.before && <FeltNow felt={moment.before} bench={bench} />
    );
  const shared = { moment, play, setPlay, bench, felt };
  return (
    <>
      <header className={classes.head}>
        <Link to="/lessons" className={classes.back} aria-label="All lessons">
          ‹
        </Link>
        <b>{view.line.name}</b>
        <output className={classes.clock} aria-label="Time of the lesson">
          {clockAt(bench, minute)}
        </output>
        <Button variant="default" onClick={leave}>
          Leave it
        </Button>
      </header>
      {lost && stale && (
        <p className="bar" role="status">
          The bakehouse does not answer: these readings are of before your last decision. Go on, and
          the outcome comes when it answers.
        </p>
      )}
      {resting ? (
        <RestNow {...shared} speed={speed} setSpeed={setSpeed} />
      ) : (
        <WorkNow {...shared} />
      )}
    </>
  );
}

interface NowProps {
  moment: Moment;
  play: Play;
  setPlay: Props["setPlay"];
  bench: Bench;
  felt: ReactNode;
}

interface FrameProps extends NowProps {
  go: ReactNode;
  why: string;
  onGo: () => void;
  open: boolean;
  children: ReactNode;
}

/** The bench round what is to be done: what is felt and was decided, a hint, and the one main button. */
function Frame({ moment, play, setPlay, bench, felt, go, why, onGo, open, children }: FrameProps) {
  const [hint, setHint] = useState("");
  const { words } = useSaying();
  const until = play.phase === "rest" ? moment.rests_at_min + play.rested : moment.starts_min;
  const from = bench.moments[bench.opens]?.starts_min ?? 0;
  const soFar = bench.stretches
    .filter((s) => s.from_min < until && s.to_min > from)
    .map((s) => ({ ...s, to_min: Math.min(s.to_min, until) }));
  return (
    <>
      <main className={classes.bench}>
        <section className={classes.now} aria-live="polite">
          {children}
          {hint === moment.stop && <p className={classes.hint}>{words(moment.hint)}</p>}
        </section>
        <aside className={classes.aside}>
          {felt}
          <Decided play={play} bench={bench} setPlay={setPlay} />
        </aside>
      </main>
      {soFar.length > 1 && (
        <div className={classes.soFar}>
          <PlayStrip mine={soFar} best={null} name="So far" />
        </div>
      )}
      <footer className={classes.foot}>
        <button
          type="button"
          className={classes.tile}
          disabled={!moment.hint || hint === moment.stop}
          onClick={() => setHint(moment.stop)}
        >
          <IconBulb size={26} aria-hidden="true" />A hint
        </button>
        <button
          type="button"
          className={classes.tile}
          disabled={play.decisions.length === 0}
          onClick={() => setPlay((was) => was && undo(was, bench))}
        >
          <IconArrowBackUp size={26} aria-hidden="true" />
          Undo
        </button>
        <button type="button" className={classes.go} disabled={open} onClick={onGo}>
          <b>{go}</b>
          <span className={classes.goWhy}>{why}</span>
        </button>
      </footer>
    </>
  );
}

/** What is done at a step, and what of that is to be decided. */
function WorkNow(props: NowProps) {
  const { moment, play, setPlay, bench } = props;
  const { words } = useSaying();
  const open = undecided(play, moment);
  const [title, ...rest] = moment.does;
  return (
    <Frame
      {...props}
      go="Done"
      why={
        open.length > 0
          ? `First decide: ${open.map((a) => a.said).join(", ")}`
          : `${span(Math.round(moment.takes_min))} of work`
      }
      open={open.length > 0}
      onGo={() => setPlay((was) => was && workDone(was, moment, bench))}
    >
      <p className={classes.stopName}>{moment.name}</p>
      <h1>{words(title ?? moment.name)}</h1>
      {moment.call_min !== null && (
        <p className={classes.call}>Somebody calls: it will take {span(moment.call_min)}.</p>
      )}
      <ul className={classes.does}>
        {rest.slice(0, 3).map((line) => (
          <li key={line}>{words(line)}</li>
        ))}
      </ul>
      <AskedAll of={asksNow(moment)} stop={moment.stop} play={play} setPlay={setPlay} />
    </Frame>
  );
}

/** A dough at rest: where it goes, and until somebody takes it out. */
function RestNow(props: NowProps & { speed: number; setSpeed: (speed: number) => void }) {
  const { moment, play, setPlay, bench, speed, setSpeed } = props;
  const course = courseOf(play, moment);
  const most = lasts(course);
  const before = askedBefore(moment);
  const open = before.filter(
    (a) => a.options.length > 0 && decidedOf(play, moment.stop, a.field) === undefined,
  );
  const timed = runs(moment);
  const [paused, pause] = useState(false);
  const full = play.rested >= most;
  const running = timed && open.length === 0 && !paused && !full;
  const pass = useCallback(
    (minutes: number) =>
      setPlay((was) => was && { ...was, rested: Math.min(was.rested + minutes, most) }),
    [setPlay, most],
  );
  useRunning(running, speed, pass);
  const asks = (of: Schemas["AskedChoice"][]) => (
    <AskedAll of={of} stop={moment.stop} play={play} setPlay={setPlay} />
  );
  return (
    <Frame
      {...props}
      go={moment.proofs ? "Bake it now" : "Take it out"}
      why={
        open.length > 0
          ? `First decide: ${open.map((a) => a.said).join(", ")}`
          : timed
            ? `after ${span(Math.round(play.rested))}`
            : `after ${span(Math.round(moment.rest_min))}, as the plan has it`
      }
      open={open.length > 0}
      onGo={() => setPlay((was) => was && takenOut(was, moment, bench))}
    >
      <p className={classes.stopName}>after {moment.name.toLowerCase()}</p>
      <h1>{open.length > 0 ? "Where does it rest?" : `It lies ${course?.said ?? moment.where}`}</h1>
      {asks(before)}
      {open.length === 0 && timed && (
        <>
          <output className={classes.big} aria-label="It has rested">
            {span(Math.floor(play.rested))}
          </output>
          <div className={classes.pace}>
            <Choice
              label="Time runs"
              tight
              value={paused ? "0" : String(speed)}
              options={[
                { value: "0", label: "Pause" },
                ...SPEEDS.map((s) => ({ value: String(s), label: `× ${s}` })),
              ]}
              onChange={(value) => {
                pause(value === "0");
                if (value !== "0") setSpeed(Number(value));
              }}
            />
            <button type="button" className={classes.tile} onClick={() => pass(5)} disabled={full}>
              5 min on
            </button>
          </div>
          {full && <p className={classes.open}>That is as long as this lesson lets it rest.</p>}
        </>
      )}
      {open.length === 0 && asks(askedAfter(moment))}
    </Frame>
  );
}

/** What was decided so far; each can be gone back to. */
function Decided({
  play,
  bench,
  setPlay,
}: {
  play: Play;
  bench: Bench;
  setPlay: Props["setPlay"];
}) {
  if (play.decisions.length === 0) return null;
  const nameOf = (step: string) => bench.moments.find((m) => m.stop === step)?.name ?? step;
  return (
    <section aria-label="Decided so far" className={classes.decided}>
      <h2>Decided so far</h2>
      <ol>
        {play.decisions.map((made) => (
          <li key={`${made.step} ${made.field}`}>
            <span>
              {nameOf(made.step)}, {askedOf(bench, made)?.said ?? made.field}:{" "}
              <b>{saidOf(bench, made)}</b>
            </span>
            <Button
              variant="default"
              onClick={() => setPlay((was) => was && backTo(was, made.step, made.field, bench))}
              aria-label={`Back to ${nameOf(made.step)}, ${made.field}`}
            >
              Back
            </Button>
          </li>
        ))}
      </ol>
    </section>
  );
}

function askedOf(bench: Bench, made: Schemas["Decision"]) {
  const moment = bench.moments.find((m) => m.stop === made.step);
  return [...(moment?.asked ?? []), ...(moment?.asked_rest ?? [])].find(
    (a) => a.field === made.field,
  );
}

/** What was decided, in words: the option's name, or the value with its unit. */
function saidOf(bench: Bench, made: Schemas["Decision"]): string {
  const asked = askedOf(bench, made);
  const option = asked?.options.find((o) => o.value === made.value)?.said;
  if (option) return option;
  if (asked?.unit === "min") return span(Math.round(Number(made.value)));
  return `${made.value} ${asked?.unit ?? ""}`.trim();
}
