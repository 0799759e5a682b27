/**
 * The strip of stops: its line runs along the bench and dips into the cold for each rest, deeper
 * for colder. Plan, bench and book share it.
 */
import { useElementSize } from "@mantine/hooks";
import { type ReactNode, useEffect, useRef } from "react";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { StopGlyph } from "./Ribbon";
import classes from "./Strip.module.css";

const DEPTH: Record<Schemas["Place"], number> = { bench: 16, fridge: 38, freezer: 54, proofer: 8 };
const NARROWEST = 104;
const LETTER = 6.6; // px a figure takes under a stop

interface Props {
  plan: Schemas["Plan"];
  worked: Schemas["WorkedPlan"];
  selected: string | null;
  onSelect: (key: string) => void;
  /** Under a stop's count, such as when it was done. */
  under?: (stop: Schemas["Stop"]) => ReactNode;
  after?: ReactNode;
  /** When each rest may end, where that is known. */
  windows?: Schemas["RestWindow"][];
}

const rests = (stop: Schemas["Stop"]) => stop.rest && stop.rest.minutes > 0;

function linePath(stops: Schemas["Stop"][], step: number): string {
  const dips = stops.map((stop, i) => {
    if (!rests(stop) || !stop.rest) return "";
    const [x, d] = [(i + 1) * step, DEPTH[stop.rest.place]];
    const half = Math.min(step * 0.34, 38);
    return `H${x - half} c9,0 5,${d} 14,${d} H${x + half - 14} c9,0 5,${-d} 14,${-d}`;
  });
  return `M0,3 ${dips.join(" ")} H${stops.length * step}`;
}

export function Strip({ plan, worked, selected, onSelect, under, after, windows }: Props) {
  const { ref, width } = useElementSize();
  const { figure, say, count, countWord } = useSaying();
  const list = useRef<HTMLDivElement>(null);
  const stops = worked.strip;
  const size = (s: Schemas["Stop"]) =>
    s.lies
      ? `${figure("length", Math.round(s.lies.length_mm))} × ${figure("length", Math.round(s.lies.width_mm))}`
      : "";
  // Wide enough for the longest size and count, so that neighbours never touch.
  const longest = Math.max(
    ...stops.map((s) => `${size(s)} · ${count(s.butter_layers, s.leaves)}`.length),
  );
  const narrowest = Math.max(NARROWEST, longest * LETTER + 14);
  const step = Math.max(narrowest, Math.floor(width / stops.length) || 0);
  const sizeAndCount = (s: Schemas["Stop"]) => (
    <>
      {size(s)} · <b title={countWord}>{count(s.butter_layers, s.leaves)}</b>
    </>
  );
  const facts: Record<Schemas["StopKind"], (s: Schemas["Stop"]) => ReactNode> = {
    preferment: (s) =>
      say("mass", Math.round(worked.sheets.find((sheet) => sheet.stop === s.key)?.total_g ?? 0)),
    mix: () => say("mass", Math.round(plan.dough.mass_g)),
    dough: () => say("mass", plan.dough.mass_g),
    lock_in: sizeAndCount,
    turn: sizeAndCount,
    final: size,
    cut: () => {
      const { cut } = worked;
      if (!cut) return null;
      const one = cut.products.length === 1;
      return `${cut.pieces} pieces · ${one ? say("mass", cut.piece_g) : `${cut.products.length} kinds`}`;
    },
    shape: () => {
      const trays = worked.finish?.trays.products.flatMap((p) => p.trays).length ?? 0;
      return `${trays} ${trays === 1 ? "tray" : "trays"}`;
    },
    wash: () => worked.finish?.wash.toLowerCase(),
    bake: () => {
      const { bake_min = 0, loads = 1 } = worked.finish ?? {};
      return `${span(bake_min)}${loads > 1 ? ` · ${loads} loads` : ""}`;
    },
    look: () => "and write it down",
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
          {stops.map((stop) => (
            <button
              type="button"
              role="tab"
              key={stop.key}
              data-stop={stop.key}
              aria-selected={stop.key === selected}
              tabIndex={stop.key === selected || (!selected && stop === stops[0]) ? 0 : -1}
              style={{ width: step }}
              className={classes.stop}
              onClick={() => onSelect(stop.key)}
            >
              <span className={classes.name}>{stop.name}</span>
              <StopGlyph stop={stop} plan={plan} />
              <span className={classes.facts}>{facts[stop.kind](stop)}</span>
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

/** From when until when a rest may end, and a word where the plan is outside; empty: nothing to say. */
export function windowWords(w: Schemas["RestWindow"]): { text: string; off: boolean } {
  const soonest = typeof w.soonest_min === "number" ? Math.round(w.soonest_min) : null;
  const latest = typeof w.latest_min === "number" ? Math.round(w.latest_min) : null;
  if (soonest === null) return { text: "never cool", off: true };
  if (soonest === 0 && latest === null) return { text: "", off: false };
  const off = w.verdict !== "good";
  const word = { early: "too soon", late: "too long" }[w.verdict];
  const range =
    latest === null
      ? `from ${span(soonest)}`
      : latest < soonest
        ? "no window"
        : `${soonest}–${span(latest)}`;
  return { text: off ? `${range}, ${word}` : range, off };
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
