/** What came out, why, and what each decision cost; hers and the best play over one another. */
import { Button, Progress } from "@mantine/core";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, got, Offline, type Schemas } from "@/api/client";
import { sentence, useSession } from "@/api/queries";
import { LeafMap } from "@/drawings/LeafMap";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { put } from "@/offline/outbox";
import { houseTime } from "@/wire/clock";
import { GoalLines, NAMES, plain, said } from "./GoalLines";
import classes from "./Outcome.module.css";
import { PieceDrawn } from "./PieceDrawn";
import { PlayStrip } from "./PlayStrip";
import practice from "./Practice.module.css";
import { backTo, type Play } from "./play";
import { outcomeOf } from "./queries";
import reached from "./Reached.module.css";

interface Props {
  view: Schemas["LessonView"];
  play: Play;
  setPlay: (next: Play | ((was: Play | null) => Play | null)) => void;
  again: () => void;
  leave: () => void;
}

const SLICE_S = 1.5;
const AGAIN_MS = 3_000;

/** The outcome at once, and then the best play of the day, searched in slices until its end or a stop. */
function useResult(view: Schemas["LessonView"], play: Play) {
  const key = view.line.key;
  const [result, setResult] = useState<Schemas["PlayResult"] | null>(null);
  const [error, setError] = useState<unknown>(null);
  const [stopped, stop] = useState(false);
  const stopping = useRef(false);
  stopping.current = stopped;
  const { decisions } = play;
  useEffect(() => {
    let gone = false;
    let later: ReturnType<typeof setTimeout> | undefined;
    const ask = async (seconds: number) => {
      try {
        const next = await outcomeOf(key, decisions, seconds);
        if (gone) return;
        setResult(next);
        setError(null);
        if (!next.done && !stopping.current) await ask(SLICE_S);
      } catch (wrong) {
        if (gone) return;
        setError(wrong);
        if (wrong instanceof Offline) later = setTimeout(() => ask(seconds), AGAIN_MS);
      }
    };
    void ask(0);
    return () => {
      gone = true;
      clearTimeout(later);
    };
  }, [key, decisions]);
  return { result, error, stopped, stop: () => stop(true) };
}

export function OutcomeView({ view, play, setPlay, again, leave }: Props) {
  const { result, error, stopped, stop } = useResult(view, play);
  const kept = useRef("");
  useEffect(() => {
    // a play is kept once it is over, whether the house answers or not
    if (kept.current === play.id) return;
    kept.current = play.id;
    const at = new Date(houseTime()).toISOString();
    const body = { id: play.id, lesson: view.line.key, decisions: play.decisions, at };
    void put(view.line.key, { what: "play", body }, play.id).catch(() => undefined);
  }, [play, view.line.key]);
  if (!result)
    return (
      <main className={practice.intro}>
        <h1>{error ? "The outcome is not there yet" : "It is in the oven"}</h1>
        <p className={practice.lead} role="status">
          {error
            ? error instanceof Offline
              ? "The bakehouse does not answer. Your play is kept on this tablet, and the outcome comes when it answers."
              : sentence(error)
            : "The leaves are counted."}
        </p>
        <Button variant="default" size="lg" onClick={leave}>
          Leave it
        </Button>
      </main>
    );
  return (
    <Result
      view={view}
      play={play}
      setPlay={setPlay}
      again={again}
      leave={leave}
      result={result}
      stopped={stopped}
      stop={stop}
    />
  );
}

interface ResultProps extends Props {
  result: Schemas["PlayResult"];
  stopped: boolean;
  stop: () => void;
}

function Result({ view, play, setPlay, again, leave, result, stopped, stop }: ResultProps) {
  const { words } = useSaying();
  const { mine, best, costs } = result;
  const passed = mine.goal.every((line) => line.reached);
  const harms = [...mine.outcome.harms].sort((a, b) => b.pct - a.pct);
  return (
    <main className={classes.outcome}>
      <div className={classes.outHead}>
        <h1>{passed ? "Reached" : "Not reached yet"}</h1>
        <GoalLines goal={view.lesson.goal ?? {}} came={mine.goal} />
        <div className={`${practice.actions} ${classes.outActions}`}>
          <Button size="lg" onClick={again}>
            Again from the start
          </Button>
          <Button
            size="lg"
            variant="default"
            component={Link}
            to={`/lessons/${view.line.key}/class`}
          >
            The class
          </Button>
          <Button size="lg" variant="default" onClick={leave}>
            Leave it
          </Button>
        </div>
      </div>
      <section aria-label="The piece, cut across" className={classes.cutPieces}>
        <PieceDrawn name="Yours" view={mine} />
        {best && <PieceDrawn name="The best play" view={best} />}
      </section>
      <Figures mine={mine.outcome} best={best?.outcome ?? null} />
      {!result.done && (
        <div className={classes.searching} role="status">
          <span>
            {stopped
              ? "The search was stopped: this is the best so far."
              : "Looking for the best play of this day."}
          </span>
          {!stopped && (
            <>
              <Progress value={100 * result.searched} className={classes.progress} />
              <Button variant="default" onClick={stop}>
                Stop
              </Button>
            </>
          )}
        </div>
      )}
      {harms.length > 0 && (
        <section aria-label="What happened">
          <h2>What happened</h2>
          <ul className={reached.harms}>
            {harms.map((harm) => (
              <li key={`${harm.stop} ${harm.harm}`}>{words(harm.says)}</li>
            ))}
          </ul>
        </section>
      )}
      {costs.length > 0 && (
        <section aria-label="What each decision cost">
          <h2>What each decision cost</h2>
          <p className="quiet">
            Each changed alone to the best play’s. Two mistakes on the same leaves cost less
            together than apart, so these do not add up.
          </p>
          <ol className={reached.costs}>
            {costs
              .filter((cost) => cost.value !== cost.instead)
              .map((cost) => (
                <CostRow key={cost.decision} cost={cost} most={costs[0]?.worth ?? 1}>
                  <Button
                    variant="default"
                    onClick={() =>
                      setPlay((was) => was && backTo(was, cost.step, cost.field, view.bench))
                    }
                  >
                    From here again
                  </Button>
                </CostRow>
              ))}
          </ol>
          <IntoPlan view={view} best={best} />
        </section>
      )}
      <section aria-label="Where it lay, and when">
        <h2>Where it lay, and when</h2>
        <PlayStrip mine={mine.stretches} best={best?.stretches ?? null} />
      </section>
      <section aria-label="The last sheet from above" className={classes.map}>
        <h2>The last sheet from above</h2>
        <Sheet view={mine} />
      </section>
      {play.decisions.length === 0 && (
        <p className="quiet">Nothing was decided: it went by the plan.</p>
      )}
    </main>
  );
}

function Sheet({ view }: { view: Schemas["PlayView"] }) {
  const [place, look] = useState({ x: 0.5, y: 0.5 });
  const { sheet, map, layers } = view.drawn;
  return (
    <LeafMap
      sheet={sheet}
      map={map}
      layers={layers}
      place={place}
      look={(x, y) => look({ x, y })}
    />
  );
}

function Figures({ mine, best }: { mine: Schemas["Outcome"]; best: Schemas["Outcome"] | null }) {
  const { say } = useSaying();
  const rows: [string, (o: Schemas["Outcome"]) => string][] = [
    [NAMES.lift, (o) => said.lift(o.lift)],
    [NAMES.openness_pct, (o) => said.openness_pct(o.openness_pct)],
    [NAMES.fat_lost_pct, (o) => said.fat_lost_pct(o.fat_lost_pct)],
    [NAMES.evenness_pct, (o) => said.evenness_pct(o.evenness_pct)],
    ["Leaves whole", (o) => `${plain(o.whole_pct)} %`],
    [NAMES.butter_layers, (o) => plain(o.butter_layers)],
    ["A baked piece", (o) => say("mass", o.mass_g)],
    ["From start to end", (o) => span(Math.round(o.takes_min))],
    ["Worth", (o) => plain(o.worth)],
  ];
  return (
    <table className={classes.figures}>
      <thead>
        <tr>
          <th scope="col">
            <span className={classes.hidden}>Figure</span>
          </th>
          <th scope="col">Yours</th>
          <th scope="col">{best ? "The best play" : ""}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, of]) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td>{of(mine)}</td>
            <td>{best ? of(best) : ""}</td>
          </tr>
        ))}
      </tbody>
      <caption>
        Worth: openness, lift and evenness by their weights, less the butter and the minutes lost.
        The weights are the Kitchen’s, under “lesson”.
      </caption>
    </table>
  );
}

function CostRow({
  cost,
  most,
  children,
}: {
  cost: Schemas["Cost"];
  most: number;
  children: React.ReactNode;
}) {
  const { words } = useSaying();
  return (
    <li>
      <span
        className={reached.costBar}
        style={{ width: `${Math.max((100 * cost.worth) / Math.max(most, 0.01), 0)}%` }}
        aria-hidden="true"
      />
      <p>{words(cost.says)}</p>
      {children}
    </li>
  );
}

/** The best play is advice where the lesson is of a plan of this house: one press puts it there. */
function IntoPlan({
  view,
  best,
}: {
  view: Schemas["LessonView"];
  best: Schemas["PlayView"] | null;
}) {
  const head = useSession().data?.me?.role === "head";
  const queries = useQueryClient();
  const go = useNavigate();
  const into = useMutation({
    mutationFn: () =>
      got(
        api.POST("/api/lessons/{key}/into-plan", {
          params: { path: { key: view.line.key } },
          body: { decisions: best?.decisions ?? [], seconds: 0 },
        }),
      ),
    onSuccess: (there) => {
      queries.invalidateQueries({ queryKey: ["plans"] });
      queries.invalidateQueries({ queryKey: ["plan", there.plan_id] });
      go(`/plans/${there.plan_id}`);
    },
  });
  if (!best || view.line.plan_id === null || !head) return null;
  return (
    <div className={practice.actions}>
      <Button size="lg" onClick={() => into.mutate()} loading={into.isPending}>
        Put the best play into the plan
      </Button>
      {into.error && <p role="alert">{sentence(into.error)}</p>}
    </div>
  );
}
