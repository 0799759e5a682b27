/**
 * The strip of stops: its line runs along the bench and dips into the cold for each rest, deeper
 * for colder. Plan, bench and book share it.
 */
import { useElementSize } from "@mantine/hooks";
import { type ReactNode, useEffect, useRef } from "react";
import type { Schemas } from "@/api/client";
import type { Plan, Stop, Worked } from "@/api/steps";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { kindOf } from "./kinds";
import type { Drawn } from "./parts/props";
import classes from "./Strip.module.css";

const DEPTH: Record<Schemas["Place"], number> = { bench: 16, fridge: 38, freezer: 54, proofer: 8 };
const NARROWEST = 104;
const LETTER = 6.6; // px a figure takes under a stop

interface Props {
  plan: Plan;
  worked: Worked;
  selected: string | null;
  onSelect: (key: string) => void;
  /** Under a stop's count, such as when it was done. */
  under?: (stop: Stop) => ReactNode;
  after?: ReactNode;
  /** When each rest may end, where that is known. */
  windows?: Schemas["RestWindow"][];
  /** Carry a step to another place, by hand or with Alt and the arrows. */
  onMove?: (from: number, to: number) => void;
}

const rests = (stop: Stop) => stop.rest && stop.rest.minutes > 0;

function linePath(stops: Stop[], step: number): string {
  const dips = stops.map((stop, i) => {
    if (!rests(stop) || !stop.rest) return "";
    const [x, d] = [(i + 1) * step, DEPTH[stop.rest.place]];
    const half = Math.min(step * 0.34, 38);
    return `H${x - half} c9,0 5,${d} 14,${d} H${x + half - 14} c9,0 5,${-d} 14,${-d}`;
  });
  return `M0,3 ${dips.join(" ")} H${stops.length * step}`;
}

export function Strip(props: Props) {
  const { plan, worked, selected, onSelect, onMove, under, after, windows } = props;
  const { ref, width } = useElementSize();
  const saying = useSaying();
  const { figure, count, countWord } = saying;
  const list = useRef<HTMLDivElement>(null);
  const stops = worked.strip;
  const size = (s: Stop) =>
    s.lies
      ? `${figure("length", Math.round(s.lies.length_mm))} × ${figure("length", Math.round(s.lies.width_mm))}`
      : "";
  // Wide enough for the longest size and count, so that neighbours never touch.
  const longest = Math.max(
    ...stops.map((s) => `${size(s)} · ${count(s.butter_layers, s.leaves)}`.length),
  );
  const narrowest = Math.max(NARROWEST, longest * LETTER + 14);
  const step = Math.max(narrowest, Math.floor(width / stops.length) || 0);
  const sizeAndCount = (s: Stop) => (
    <>
      {size(s)} · <b title={countWord}>{count(s.butter_layers, s.leaves)}</b>
    </>
  );
  const drawn = (stop: Stop): Drawn =>
    ({
      stop,
      plan,
      worked,
      step: plan.steps.find((s) => s.id === stop.key) ?? plan.steps[stop.n],
      made: stop.made ?? undefined,
    }) as Drawn;
  const facts = (stop: Stop) => {
    const own = kindOf(stop.do).facts;
    return own ? own(drawn(stop), saying) : sizeAndCount(stop);
  };

  useEffect(() => {
    const here = list.current?.querySelector<HTMLElement>('[aria-selected="true"]');
    if (selected && here) here.scrollIntoView({ block: "nearest", inline: "nearest" });
  }, [selected]);

  const move = (event: React.KeyboardEvent) => {
    // Where the focus is, not what is selected: keys may come faster than the screen follows.
    const focused = (event.target as HTMLElement).dataset.stop;
    const at = stops.findIndex((s) => s.key === focused);
    const to = { ArrowRight: at + 1, ArrowLeft: at - 1, Home: 0, End: stops.length - 1 }[event.key];
    const stop = to === undefined ? undefined : stops[to];
    if (event.altKey && onMove && event.key.startsWith("Arrow")) {
      event.preventDefault();
      onMove(at, event.key === "ArrowRight" ? at + 1 : at - 1);
      return;
    }
    if (!stop) return;
    event.preventDefault();
    onSelect(stop.key);
    list.current?.querySelector<HTMLElement>(`[data-stop="${stop.key}"]`)?.focus();
  };

  return (
    <div className={classes.strip} ref={ref}>
      <div className={classes.long} style={{ width: step * stops.length }}>
        <div
          className={classes.stops}
          role="tablist"
          aria-label="Steps"
          ref={list}
          onKeyDown={move}
        >
          {stops.map((stop, n) => (
            <button
              type="button"
              role="tab"
              key={stop.key}
              data-stop={stop.key}
              aria-selected={stop.key === selected}
              tabIndex={stop.key === selected || (!selected && stop === stops[0]) ? 0 : -1}
              style={{ width: step }}
              className={classes.stop}
              draggable={onMove !== undefined}
              onDragStart={(e) => e.dataTransfer.setData("text/plain", String(n))}
              onDragOver={(e) => onMove && e.preventDefault()}
              onDrop={(e) => onMove?.(Number(e.dataTransfer.getData("text/plain")), n)}
              onClick={() => onSelect(stop.key)}
            >
              <span className={classes.name} title={stop.name}>
                {stop.name}
              </span>
              <StopGlyph {...drawn(stop)} />
              <span className={classes.facts}>{facts(stop)}</span>
              {under && <span className={classes.under}>{under(stop)}</span>}
            </button>
          ))}
        </div>
        <svg
          className={classes.line}
          width={step * stops.length}
          height={windows ? 94 : 80}
          aria-hidden="true"
        >
          <path d={linePath(stops, step)} fill="none" stroke="var(--cold)" strokeWidth={2} />
          {stops.map((stop, i) => {
            if (!rests(stop) || !stop.rest) return null;
            const depth = DEPTH[stop.rest.place];
            const shallow = depth < 30;
            return (
              <g
                key={stop.key}
                textAnchor="middle"
                fill={stop.rest.place === "proofer" ? "var(--crust)" : "var(--cold)"}
              >
                <text
                  x={(i + 1) * step}
                  y={shallow ? depth + 20 : depth - 6}
                  fontSize={13.5}
                  fontWeight={700}
                >
                  {span(stop.rest.minutes)}
                </text>
                <text x={(i + 1) * step} y={depth + (shallow ? 36 : 18)} fontSize={12.5}>
                  {stop.rest.first ? `${stop.rest.first.place}, ` : ""}
                  {stop.rest.place}
                </text>
                <WindowText
                  window={windows?.find((w) => w.stop === stop.key)}
                  x={(i + 1) * step}
                  y={depth + (shallow ? 52 : 34)}
                />
              </g>
            );
          })}
        </svg>
      </div>
      {after}
    </div>
  );
}

/** How long the butter stays workable at a stop beside how long the work takes; empty: long enough. */
export function clockWords(c: Schemas["WorkClock"] | undefined): { text: string; off: boolean } {
  if (typeof c?.lasts_min !== "number") return { text: "", off: false };
  const off = c.lasts_min < c.takes_min;
  const minutes = Math.round(c.lasts_min);
  return { text: off ? `only ${minutes} min` : `${minutes} min of work`, off };
}

/** From when until when a rest is good, and a word where the plan is outside; empty: nothing to say. */
export function windowWords(w: Schemas["RestWindow"]): { text: string; off: boolean } {
  const from = w.good_from_min ?? w.possible_from_min;
  const until = w.good_until_min ?? w.possible_until_min;
  if (from === null) return { text: "never ready", off: true };
  if (from === 0 && until === null) return { text: "", off: false };
  const off = w.verdict === "short" || w.verdict === "long";
  const word = { good: "", tight: "tight", short: "too short", long: "too long" }[w.verdict];
  const range =
    until === null
      ? `from ${span(Math.round(from))}`
      : until < from
        ? "no window"
        : `${span(Math.round(from))} to ${span(Math.round(until))}`;
  return { text: [range, word].filter(Boolean).join(", "), off };
}

function WindowText({ window: w, x, y }: { window?: Schemas["RestWindow"]; x: number; y: number }) {
  const said = w && windowWords(w);
  if (!said?.text) return null;
  return (
    <text
      x={x}
      y={y}
      fontSize={11.5}
      fontWeight={said.off ? 700 : 400}
      fill={said.off ? "var(--mind)" : "var(--cold)"}
    >
      {said.text}
    </text>
  );
}

/** The drawing of a stop on the strip. */
export function StopGlyph(drawn: Drawn) {
  const { Glyph } = kindOf(drawn.stop.do);
  return (
    <svg viewBox="-8 0 88 44" width={84} height={42} aria-hidden="true">
      <Glyph {...drawn} />
    </svg>
  );
}
