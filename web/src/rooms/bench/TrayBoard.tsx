/** Trays on their way through proof, wash and oven: each at its own stage, the most pressing first. */
import { Button, Modal } from "@mantine/core";
import { useInterval } from "@mantine/hooks";
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { type Do, made, stepOf } from "@/api/steps";
import { clock as timeOfDay } from "@/app/time";
import { span } from "@/measures/quantity";
import { outOf, spentIn, stayAt } from "@/steps/stays";
import bench from "./BenchRun.module.css";
import { PutRight } from "./GoButton";
import {
  type Event,
  lastOfTrays,
  minutesBetween,
  type RunView,
  type TrayNow,
  urgency,
} from "./now";
import classes from "./TrayBoard.module.css";
import { useClock } from "./useClock";
import type { Saying } from "./useRun";

interface Props {
  view: RunView;
  trays: TrayNow[];
  say: (saying: Saying) => void;
}

type Step = Schemas["TrayStep"];
type Rest = Schemas["Rest"];

/** What a step is called on its button. */
export function stepWords(step: Step, does: Do | null, rest: Rest | null | undefined): string {
  const words: Record<string, string> = {
    "done shape": "Shaped",
    "out shape": outOf(rest),
    "out wash": outOf(rest),
    "done wash": "Washed",
    "in bake": "Into the oven",
    "done bake": "Out of the oven",
    "out bake": "Cooled",
  };
  return words[`${step.kind} ${does}`] ?? "Done";
}

/** What a tray is doing, in a word, and the minutes of it. */
export function stageWords(tray: TrayNow, clock: Date): string {
  if (tray.lost) return "lost";
  if (!tray.next) return "ready";
  if (!tray.since) return "to shape";
  const gone = span(Math.max(Math.round(minutesBetween(tray.since, clock)), 0));
  const whole = tray.until && span(Math.round(minutesBetween(tray.since, tray.until)));
  if (tray.last?.kind === "in") return `in the oven ${gone} of ${whole}`;
  if (tray.next.kind === "out" && tray.does === "bake") return `cooling ${gone} of ${whole}`;
  if (tray.rest && tray.until) {
    const spent = spentIn(tray.rest, tray.gives, tray.since, tray.until);
    const [here, then] = stayAt(spent, clock);
    if (here && then)
      return `${here.stay.place} until ${timeOfDay(here.to)}, then ${then.stay.place}`;
    return `${here?.stay.place === "proofer" ? "proofing" : "resting"} ${gone} of ${whole}`;
  }
  return tray.next.kind === "in" ? "ready for the oven" : "out, to be washed";
}

/** What was done last with the chosen tray, or with those of the last press. */
function trayDeedOf(view: RunView, trays: TrayNow[], chosen: number | null) {
  const last = lastOfTrays(trays, chosen);
  const [first] = last;
  if (!first?.last || !first.since) return null;
  const stop = view.worked.strip.find((s) => s.key === first.last?.stop);
  const does = (stop?.do as Do | undefined) ?? null;
  const done = stepWords(first.last, does, stop?.rest).toLowerCase();
  return {
    entries: last.flatMap((t) => t.entry ?? []),
    what: `${last.length > 1 ? `${last.length} trays` : `Tray ${first.tray}`} ${done}`,
    at: first.since,
    earliest: last.reduce<Date | null>(
      (late, t) => (t.earliest && (!late || t.earliest > late) ? t.earliest : late),
      null,
    ),
  };
}

export function TrayBoard({ view, trays, say, waiting }: Props & { waiting: Event[] }) {
  // the tray whose time is being put right
  const [chosen, setChosen] = useState<number | null>(null);
  const turn = stepOf(view.plan, "bake")?.bake.turn_tray;
  const proofing = trays.some((t) => t.since && t.next?.kind === "out" && t.does === "shape");
  const seen = new Set([
    ...view.standing.remarks.map((r) => r.words),
    ...waiting.map((e) => e.words),
  ]);
  const loads = [...new Set(trays.map((t) => t.load))];
  const latest = trayDeedOf(view, trays, null);
  const lost = trays.filter((t) => t.lost).length;
  const done = trays.filter((t) => !t.next).length - lost;
  const [losing, setLosing] = useState<TrayNow | null>(null);
  return (
    <>
      <p className={classes.lead}>
        <b>{trays.length} trays</b>
        {done > 0 && `, ${done} ready`}
        {lost > 0 && `, ${lost} lost`}
      </p>
      {loads.map((load) => {
        const mine = trays.filter((t) => t.load === load);
        const going = mine.filter((t) => !t.lost);
        const [first] = going;
        const same =
          going.length > 1 &&
          first?.next &&
          going.every((t) => t.next?.kind === first.next?.kind && t.next?.stop === first.next?.stop)
            ? first.next
            : null;
        return (
          <section key={load} className={classes.load} aria-label={`Oven load ${load}`}>
            {(loads.length > 1 || same) && (
              <p>
                {loads.length > 1 ? `load ${load}` : ""}
                {same && (
                  <button
                    type="button"
                    className={classes.all}
                    onClick={() => {
                      for (const t of going) say({ ...same, tray: t.tray });
                    }}
                  >
                    All {going.length}:{" "}
                    {stepWords(same, first?.does ?? null, first?.rest).toLowerCase()}
                  </button>
                )}
              </p>
            )}
            <ul className={classes.trays}>
              {mine.map((tray) => (
                <Tray
                  key={tray.tray}
                  {...{ tray, view, say, turn }}
                  chosen={tray.tray === chosen}
                  choose={() => setChosen(tray.tray === chosen ? null : tray.tray)}
                  move={say}
                  lose={() => setLosing(tray)}
                />
              ))}
            </ul>
          </section>
        );
      })}
      {latest && chosen === null && <PutRight deed={latest} say={say} />}
      {proofing && (
        <section className={classes.signs} aria-label="Is it ready?">
          {made(view.worked, "wash")?.signs.map((sign) => (
            <button
              type="button"
              key={sign}
              className={classes.sign}
              aria-pressed={seen.has(sign)}
              onClick={() => !seen.has(sign) && say({ kind: "note", words: sign })}
            >
              {sign.replace(/\.$/, "")}
            </button>
          ))}
        </section>
      )}
      <Modal
        opened={losing !== null}
        onClose={() => setLosing(null)}
        title={`Tray ${losing?.tray ?? ""} is lost?`}
      >
        <p>
          The bench stops waiting for its {losing?.pieces ?? 0} pieces. Undo brings the tray back.
        </p>
        <div className={bench.quick}>
          <Button
            size="lg"
            color="red"
            onClick={() => {
              if (losing) say({ kind: "lost", tray: losing.tray });
              setLosing(null);
            }}
          >
            Lost
          </Button>
          <Button size="lg" variant="default" onClick={() => setLosing(null)}>
            Keep the tray
          </Button>
        </div>
      </Modal>
    </>
  );
}

interface TrayProps {
  tray: TrayNow;
  view: RunView;
  say: Props["say"];
  lose: () => void;
  chosen: boolean;
  choose: () => void;
  /** Say that it happened earlier or later; it stays the chosen one. */
  move: Props["say"];
  turn?: boolean;
}

function Tray({ tray, view, say, lose, chosen, choose, move, turn }: TrayProps) {
  const clock = useClock();
  const left = tray.until && !tray.lost ? minutesBetween(clock, tray.until) : null;
  const whole = tray.since && tray.until ? minutesBetween(tray.since, tray.until) : 0;
  const share = left === null || !whole ? 0 : Math.min(Math.max(1 - left / whole, 0), 1);
  const over = left !== null && left <= 0;
  const baking = tray.last?.kind === "in";
  const product = stepOf(view.plan, "cut")?.products[tray.product]?.name;
  const deed = chosen ? trayDeedOf(view, [tray], tray.tray) : null;
  return (
    <li
      className={classes.tray}
      data-over={(over && !tray.lost) || undefined}
      data-hot={(baking && !tray.lost) || undefined}
      data-lost={tray.lost || undefined}
    >
      <b className={classes.number}>{tray.tray}</b>
      <div className={classes.stage}>
        <span>
          {tray.pieces} {product}
          {tray.since && !tray.lost && (
            <button
              type="button"
              className={classes.when}
              aria-expanded={chosen}
              aria-label={`Put right when: tray ${tray.tray}`}
              onClick={choose}
            >
              since {timeOfDay(tray.since)}
            </button>
          )}
        </span>
        <b>{stageWords(tray, clock)}</b>
        {left !== null && (
          <i className={classes.bar} aria-hidden="true">
            <i style={{ width: `${100 * share}%` }} />
          </i>
        )}
        {baking && turn && share >= 0.5 && share < 0.8 && <em>turn the tray now</em>}
        {over && <em>{left > -1 ? "now" : `${span(Math.floor(-left))} over`}</em>}
      </div>
      {tray.next && (
        <button
          type="button"
          className={classes.lose}
          onClick={lose}
          aria-label={`Tray ${tray.tray} is lost`}
        >
          Lost
        </button>
      )}
      {tray.next && (
        <button
          type="button"
          className={classes.step}
          onClick={() => tray.next && say({ ...tray.next, tray: tray.tray })}
          aria-label={`Tray ${tray.tray}: ${stepWords(tray.next, tray.does, tray.rest).toLowerCase()}`}
        >
          {stepWords(tray.next, tray.does, tray.rest)}
        </button>
      )}
      {deed && (
        <div className={classes.putRight}>
          <PutRight deed={deed} say={move} />
        </div>
      )}
    </li>
  );
}

/** The tray that wants hands most. */
export const firstTray = (trays: TrayNow[], clock: Date): TrayNow | undefined =>
  trays
    .filter((t) => t.next)
    .toSorted((a, b) => urgency(a, clock) - urgency(b, clock) || a.tray - b.tray)[0];

/** The main button: what that tray is to go through next. */
export function TrayGo({ trays, say }: Pick<Props, "trays" | "say">) {
  const clock = useClock();
  const [held, setHeld] = useState(false);
  const release = useInterval(() => setHeld(false), 700);
  const tray = firstTray(trays, clock);
  if (!tray?.next) return null;
  const { next } = tray;
  const left = tray.until ? minutesBetween(clock, tray.until) : 0;
  return (
    <button
      type="button"
      className={bench.go}
      data-early={left > 0 || undefined}
      onClick={() => {
        if (held) return;
        setHeld(true);
        release.start();
        say({ ...next, tray: tray.tray });
      }}
    >
      <b>
        Tray {tray.tray}: {stepWords(next, tray.does, tray.rest).toLowerCase()}
      </b>
      <small>
        {left > 0 ? `${span(Math.ceil(left))} before its time` : stageWords(tray, clock)}
      </small>
    </button>
  );
}
