/** The step at hand: what to do, what lies there, and the end of it. */
import { memo, type ReactNode } from "react";
import { made, type Stop, stepOf } from "@/api/steps";
import { FromAbove } from "@/drawings/FromAbove";
import { ShapingCardView } from "@/finish/ShapingCardView";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { capital } from "@/measures/words";
import { aboveOf } from "@/steps/above";
import { kindOf } from "@/steps/kinds";
import classes from "./BenchRun.module.css";
import { minutesBetween, type Now, type RunView } from "./now";
import { firstTray } from "./TrayBoard";
import { useClock } from "./useClock";

/** What is to be done now. */
export function Working({ now, children }: { now: Now; children?: ReactNode }) {
  const clock = useClock();
  const { words } = useSaying();
  if (!now.stop) return null;
  const [first] = now.stop.does;
  // Where there is only weighing, what to do stands beside the scales.
  const scalesOnly = now.stop.do === "mix" || now.stop.do === "preferment";
  return (
    <>
      <p className={classes.stopName}>{now.stop.name}</p>
      <h1>{words(first ?? "")}</h1>
      {children}
      {!scalesOnly && <Does stop={now.stop} small={children !== undefined} />}
      <p className={classes.since}>
        <b>{span(Math.max(minutesBetween(now.since, clock), 0))}</b> on the bench,{" "}
        {span(now.stop.bench_min)} planned
      </p>
    </>
  );
}

function Does({ stop, small }: { stop: Stop; small?: boolean }) {
  const { words } = useSaying();
  return (
    <ul className={classes.does} data-small={small || undefined}>
      {stop.does.slice(1).map((line) => (
        <li key={line}>{words(line)}</li>
      ))}
    </ul>
  );
}

interface AheadProps {
  now: Now;
  view: RunView;
  children: ReactNode;
}

/** What lies there, or comes next. */
export function Ahead({ now, view, children }: AheadProps) {
  const clock = useClock();
  // Where trays go their own ways, it is about what the next press is about.
  const tray = firstTray(now.trays, clock);
  const stop = view.worked.strip.find((s) => s.key === tray?.next?.stop) ?? now.next;
  return stop ? (
    <AheadOf stop={stop} view={view} resting={now.phase === "rest"} working={now.phase === "work"}>
      {children}
    </AheadOf>
  ) : null;
}

interface AheadOfProps {
  stop: Stop;
  view: RunView;
  resting: boolean;
  working: boolean;
  children: ReactNode;
}

/** Drawn when it is about something else, not each second. */
const AheadOf = memo(function AheadOf({ stop, view, resting, working, children }: AheadOfProps) {
  const { words } = useSaying();
  const drawn = kindOf(stop.do).views !== undefined && stop.lies !== null;
  const product = stepOf(view.plan, "cut")?.products[0];
  return (
    <aside className={classes.aside}>
      <p>
        {resting ? "Next: " : "This: "}
        <b>{stop.name}</b>
      </p>
      {resting && <p>{words(stop.does[0] ?? "")}</p>}
      {drawn ? (
        <FromAbove {...aboveOf(stop, view.plan, view.worked)} minHeight={260} />
      ) : (
        working && <Does stop={stop} small />
      )}
      {stop.do === "shape" && product && <ShapingCardView product={product} brief />}
      {children}
    </aside>
  );
});

/** The end of it. */
export function Over({ now, view }: { now: Now; view: RunView }) {
  const cut = made(view.worked, "cut");
  const given = now.phase === "given_up";
  return (
    <>
      <h1>{given ? capital(view.standing.because ?? "stopped") : "Done"}</h1>
      <p className={classes.why}>
        {given
          ? "The book has what was done so far. Undo starts the dough again."
          : cut
            ? `${cut.pieces} pieces. Say in the book how they came out.`
            : "The sheet is ready. Say in the book how it comes out."}
      </p>
    </>
  );
}
