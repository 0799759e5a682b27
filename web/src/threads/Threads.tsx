/** The day drawn: time to the right, the bench above, each dough a thread that lies under it. */
import type { Schemas } from "@/api/client";
import { clock, weekday } from "@/app/time";
import { useDrag } from "@/drawings/useDrag";
import { span } from "@/measures/quantity";
import classes from "./Threads.module.css";
import {
  type Drawn,
  firstNamed,
  graspable,
  hours,
  type Knot,
  snapped,
  type Thread,
} from "./threads";
import { useSight } from "./useSight";

interface Props {
  drawn: Drawn;
  hours: Schemas["Hours"][];
  moved: Schemas["Shifted"][];
  now: number | null;
  /** Pixels an hour takes. */
  scale: number;
  chosen: string | null;
  choose: (dough: string | null) => void;
  /** A step taken hold of and let go at another minute; not given to who may only read. */
  hold?: (task: Schemas["Task"], at: string) => void;
  /** A step moved on by so many minutes from where it is held, or else lies. */
  nudge?: (task: Schemas["Task"], minutes: number) => void;
}

const LEFT = 74;
const RIGHT = 30;
const CROWD = 10; // doughs from which the ways between rests step back
const AXIS = 46;
const LANE = 21;
const ROW_GAP = 5;
const NUDGE_MIN = 5;
const TONES = ["var(--tone-1)", "var(--tone-2)", "var(--tone-3)", "var(--tone-4)", "var(--tone-5)"];
const DEEP: Record<string, number> = { proofer: 58, bench: 58, fridge: 108, freezer: 78 };
const NAMES: Record<string, string> = { bench: "room", proofer: "proofer" };

export function Threads(props: Props) {
  const { drawn, scale, chosen, choose, hold, nudge, now } = props;
  const x = (minute: number) => LEFT + (minute / 60) * scale;
  const width = Math.ceil(x(drawn.minutes)) + RIGHT;

  let top = AXIS;
  const rowAt: Record<string, number> = {};
  const bands = drawn.rows.map((row) => {
    const y = top;
    rowAt[row.key] = y;
    top += row.lanes * LANE + ROW_GAP;
    return { ...row, y, high: row.lanes * LANE };
  });
  const surface = top + 6;
  let below = surface + 12;
  const placeAt: Record<string, { y: number; high: number }> = {};
  for (const place of drawn.places) {
    const high = (DEEP[place] ?? 60) + drawn.threads.length * 2.5;
    placeAt[place] = { y: below, high };
    below += high + 8;
  }
  const height = below + 8;
  const spread = Math.max(drawn.threads.length - 1, 1);
  const depth = (thread: Thread, place: string) => {
    const at = placeAt[place] ?? { y: surface, high: 40 };
    return at.y + 12 + ((at.high - 22) * thread.slot) / spread;
  };
  const knotY = (knot: Knot) => (rowAt[knot.row] ?? AXIS) + knot.lane * LANE + LANE / 2;
  const tone = (thread: Thread) => TONES[thread.slot % TONES.length];
  const every = scale >= 60 ? 1 : scale >= 26 ? 2 : scale >= 12 ? 6 : 12;
  const marks = hours(drawn.begins, drawn.minutes, every, (at) => Number(clock(at).slice(0, 2)));
  const minuteOf = (at: number) => (at - drawn.begins) / 60_000;
  const gone = now === null ? -1 : minuteOf(now);
  const minute = gone >= 0 && gone <= drawn.minutes ? gone : null;
  const sight = useSight(scale, minute);

  const ordered = drawn.threads.toSorted(
    (a, b) => Number(a.dough === chosen) - Number(b.dough === chosen),
  );
  const dragging = useDrag<Knot>({
    slack: 3,
    scrolls: sight,
    drop: (knot, by) => {
      const minutes = (by.x / scale) * 60;
      if (Math.abs(minutes) >= 3) letGo(knot, knot.from + minutes);
    },
  });
  const letGo = (knot: Knot, minute: number) => {
    const at = snappedClock(drawn.begins + minute * 60_000);
    hold?.(knot.task, new Date(at).toISOString());
  };
  const key = (event: React.KeyboardEvent, knot: Knot, n: number) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (!by) return;
    event.preventDefault();
    if (event.shiftKey && nudge && !knot.task.done) nudge(knot.task, by * NUDGE_MIN);
    else {
      const group = event.currentTarget.closest("g[data-thread]");
      group?.querySelectorAll<SVGElement>("[data-knot]")[n + by]?.focus();
    }
  };

  return (
    <div className={classes.frame}>
      <svg width={LEFT} height={height} className={classes.aside} aria-hidden="true">
        <g className={classes.names}>
          <rect x={0} y={0} width={LEFT} height={height} className={classes.ground} />
          {bands.map((band) => (
            <text
              key={band.key}
              x={LEFT - 10}
              y={band.y + band.high / 2 + 4}
              textAnchor="end"
              className={classes.rowName}
            >
              {band.key}
            </text>
          ))}
          {drawn.places.map((place) => (
            <text
              key={place}
              x={LEFT - 10}
              y={(placeAt[place]?.y ?? 0) + (placeAt[place]?.high ?? 0) / 2 + 4}
              textAnchor="end"
            >
              {NAMES[place] ?? place}
            </text>
          ))}
        </g>
      </svg>
      <div className={classes.wide} ref={sight}>
        <svg
          width={width}
          height={height}
          className={classes.day}
          data-crowd={drawn.threads.length > CROWD || undefined}
        >
          <title>
            {`The day as threads: ${drawn.threads.length} doughs from ${clock(drawn.begins)}. The list beside it says the same in words.`}
          </title>
          <defs>
            <linearGradient id="deeper" x1="0" y1="0" x2="0" y2="1">
              <stop offset="0" stopColor="var(--ground)" />
              <stop offset="1" stopColor="#c3d3dc" />
            </linearGradient>
          </defs>
          <rect
            x={LEFT}
            y={surface}
            width={width - LEFT}
            height={height - surface}
            fill="url(#deeper)"
          />
          {marks.map((at) => (
            <g key={at}>
              <line
                x1={x(minuteOf(at))}
                x2={x(minuteOf(at))}
                y1={AXIS - 12}
                y2={height}
                className={clock(at) === "00:00" ? classes.midnight : classes.hour}
              />
              {x(minuteOf(at)) > LEFT + 16 && (
                <text
                  x={x(minuteOf(at))}
                  y={AXIS - 18}
                  textAnchor="middle"
                  className={classes.clock}
                >
                  {clock(at)}
                </text>
              )}
              {clock(at) === "00:00" && (
                <text x={x(minuteOf(at))} y={13} textAnchor="middle" className={classes.weekday}>
                  {weekday(at)}
                </text>
              )}
            </g>
          ))}
          {marks.every((at) => clock(at) !== "00:00" || firstNamed(x(minuteOf(at)) - LEFT)) && (
            <text x={LEFT + 4} y={13} className={classes.weekday}>
              {weekday(drawn.begins)}
            </text>
          )}
          <Hands {...props} x={x} y={AXIS - 7} />
          {bands.map((band) => (
            <g key={band.key}>
              <rect
                x={LEFT}
                y={band.y}
                width={width - LEFT}
                height={band.high}
                className={classes.band}
              />
            </g>
          ))}
          <line x1={LEFT} x2={width} y1={surface} y2={surface} className={classes.surface} />
          {ordered.map((thread) => {
            const strong = thread.dough === chosen;
            return (
              <g
                key={thread.dough}
                className={strong ? classes.strong : chosen ? classes.faint : classes.thread}
                style={{ "--tone": tone(thread) } as React.CSSProperties}
              >
                <path
                  d={threadPath(thread, x, knotY, depth)}
                  className={classes.line}
                  onPointerDown={() => choose(strong ? null : thread.dough)}
                />
                <path
                  d={thread.rests
                    .map((r) => `M${x(r.from)} ${depth(thread, r.place)}H${x(r.to)}`)
                    .join("")}
                  className={classes.lies}
                />
                {thread.rests
                  .filter((rest) => rest.told)
                  .map((rest) => {
                    const long = ((rest.to - rest.from) / 60) * scale;
                    const y = depth(thread, rest.place);
                    if (strong && long > 30)
                      return (
                        <text
                          key={rest.step}
                          x={x((rest.from + rest.to) / 2)}
                          y={y - 5}
                          textAnchor="middle"
                          className={
                            rest.verdict === "short" || rest.verdict === "long"
                              ? classes.bad
                              : classes.minutes
                          }
                        >
                          {span(rest.minutes)}
                        </text>
                      );
                    if (long < 22) return null;
                    return (
                      <text
                        key={rest.step}
                        x={x(rest.from) + 13}
                        y={y - 3}
                        className={classes.number}
                      >
                        {thread.dough}
                      </text>
                    );
                  })}
              </g>
            );
          })}
          {/* the knots lie on all threads */}
          {ordered.map((thread) => {
            const strong = thread.dough === chosen;
            return (
              <g
                key={`knots of ${thread.dough}`}
                data-thread={thread.dough}
                className={strong ? classes.strong : chosen ? classes.faint : classes.thread}
                style={{ "--tone": tone(thread) } as React.CSSProperties}
              >
                {graspable(thread, strong).map((knot, n) => {
                  const { dragged } = dragging;
                  const by = dragged?.what.task === knot.task ? (dragged.by.x / scale) * 60 : 0;
                  const wide = Math.max(((knot.to - knot.from) / 60) * scale, 4);
                  const name = `Dough ${knot.task.dough}, ${knot.task.name}, ${clock(knot.task.starts)}${knot.task.who ? `, ${knot.task.who}` : ""}${knot.task.held ? ", fixed" : ""}`;
                  return (
                    // biome-ignore lint/a11y/useSemanticElements: a knot in a drawing
                    <g
                      key={knot.task.step}
                      data-knot=""
                      role="button"
                      tabIndex={strong || (!chosen && n === 0) ? 0 : -1}
                      aria-label={name}
                      className={classes.knot}
                      data-done={knot.task.done || undefined}
                      data-held={knot.task.held || undefined}
                      {...dragging.hold(knot)}
                      onPointerDown={(e) => {
                        choose(knot.task.dough);
                        if (hold && !knot.task.done) dragging.hold(knot).onPointerDown(e);
                      }}
                      onKeyDown={(e) => key(e, knot, n)}
                      onFocus={() => chosen !== thread.dough && choose(thread.dough)}
                    >
                      <rect
                        x={x(knot.from + by)}
                        y={knotY(knot) - LANE / 2 + 2}
                        width={wide}
                        height={LANE - 4}
                        rx={3}
                      />
                      {wide > 13 && (
                        <text
                          x={x(knot.from + by) + wide / 2}
                          y={knotY(knot) + 4}
                          textAnchor="middle"
                          className={classes.inKnot}
                        >
                          {knot.task.dough}
                        </text>
                      )}
                      {by !== 0 && (
                        <text
                          x={x(knot.from + by)}
                          y={knotY(knot) - 14}
                          className={classes.minutes}
                        >
                          {clock(snappedClock(drawn.begins + (knot.from + by) * 60_000))}
                        </text>
                      )}
                    </g>
                  );
                })}
              </g>
            );
          })}
          {props.moved.map((one) => {
            const knot = drawn.threads
              .find((t) => t.dough === one.dough)
              ?.knots.find((k) => k.task.step === one.step);
            if (!knot) return null;
            return (
              <rect
                key={`${one.dough} ${one.step}`}
                x={x(minuteOf(Date.parse(one.was)))}
                y={knotY(knot) - LANE / 2 + 2}
                width={Math.max(((knot.to - knot.from) / 60) * scale, 4)}
                height={LANE - 4}
                rx={3}
                className={classes.ghost}
              />
            );
          })}
          {now !== null && minute !== null && (
            <g className={classes.now}>
              <line x1={x(minute)} x2={x(minute)} y1={AXIS - 12} y2={height} />
              <text x={x(minute) + 5} y={height - 6}>{`now ${clock(now)}`}</text>
            </g>
          )}
        </svg>
      </div>
    </div>
  );
}

const snappedClock = (at: number) => snapped(at / 60_000) * 60_000;

/** Down from the end of a task into its place, along, and up to the next one. */
export function threadPath(
  thread: Thread,
  x: (minute: number) => number,
  knotY: (knot: Knot) => number,
  depth: (thread: Thread, place: string) => number,
): string {
  const parts: string[] = [];
  thread.knots.forEach((knot, n) => {
    const y = knotY(knot);
    parts.push(n === 0 ? `M${x(knot.from)},${y}` : `L${x(knot.from)},${y}`, `L${x(knot.to)},${y}`);
    const next = thread.knots[n + 1];
    if (!next) return;
    let at = { x: x(knot.to), y };
    for (const rest of thread.rests.filter(
      (r) => r.from >= knot.to - 0.01 && r.to <= next.from + 0.01,
    )) {
      const deep = depth(thread, rest.place);
      const bend = Math.min(9, (x(rest.to) - x(rest.from)) / 3);
      parts.push(
        `C${at.x + bend * 0.7},${at.y} ${at.x + bend * 0.2},${deep} ${x(rest.from) + bend},${deep}`,
        `L${x(rest.to) - bend},${deep}`,
      );
      at = { x: x(rest.to) - bend, y: deep };
    }
    if (at.y !== y) {
      const bend = x(next.from) - at.x;
      parts.push(
        `C${at.x + bend * 0.8},${at.y} ${at.x + bend * 0.3},${knotY(next)} ${x(next.from)},${knotY(next)}`,
      );
    }
  });
  return parts.join(" ");
}

/** The hands as a band that fills: how many are there, and how many of them are at work. */
function Hands({ hours: steps, drawn, x, y }: Props & { x: (m: number) => number; y: number }) {
  const most = Math.max(...steps.map((s) => s.there), 1);
  const end = drawn.begins + drawn.minutes * 60_000;
  return (
    <g>
      {steps.map((step, n) => {
        const from = Math.max(Date.parse(step.at), drawn.begins);
        const next = steps[n + 1];
        const to = Math.min(next ? Date.parse(next.at) : end, end);
        if (to <= from || !step.there) return null;
        const a = x((from - drawn.begins) / 60_000);
        const wide = x((to - drawn.begins) / 60_000) - a;
        return (
          <g key={step.at}>
            <rect x={a} y={y} width={wide} height={5} className={classes.there} />
            <rect
              x={a}
              y={y + 5 - (5 * Math.min(step.busy, most)) / most}
              width={wide}
              height={(5 * Math.min(step.busy, most)) / most}
              className={step.busy > step.there ? classes.over : classes.busy}
            />
          </g>
        );
      })}
    </g>
  );
}
