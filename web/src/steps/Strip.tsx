/**
 * The strip of stops: its line runs along the bench and dips into the cold for each rest, deeper
 * for colder. Plan, bench and book share it.
 */
import { VisuallyHidden } from "@mantine/core";
import { useElementSize } from "@mantine/hooks";
import { type ReactNode, useEffect, useRef } from "react";
import type { Schemas } from "@/api/client";
import type { Plan, Stop, Worked } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { Hands } from "@/drawings/Handle";
import { type Grip, useHand } from "@/drawings/hands";
import { useDrag } from "@/drawings/useDrag";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { kindOf } from "./kinds";
import { type Cell, cellsOf, gentle, halfDip, ungentle } from "./outline";
import type { Drawn } from "./parts/props";
import classes from "./Strip.module.css";
import { Marks, StripRest } from "./StripRest";
import { passed, restMin } from "./stays";

export const DEPTH: Record<Schemas["Place"], number> = {
  bench: 16,
  fridge: 38,
  freezer: 54,
  proofer: 8,
};
const NARROWEST = 104;
const CARRIED = 6; // px a mouse moves before it carries a step
const LEDGE = 54; // px a stay is wide at least, so that its minutes stand on it
const LETTER = 6.6; // px a figure takes under a stop
const NAME_LETTER = 7.6; // and one of its name

/** The rest after the chosen stop, as it can be taken hold of. */
export type RestGrip = Pick<Grip, "path" | "label" | "value" | "limits" | "stops" | "put">;

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
  /** How much there is to mind at a stop, by its key. */
  minding?: Map<string, number>;
  restGrip?: RestGrip;
  /** Carry a step to another place, by hand or with Alt and the arrows. */
  onMove?: (from: number, to: number) => void;
}

const rests = (stop: Stop) => restMin(stop.rest) > 0;

type Saying = ReturnType<typeof useSaying>;

/** The size something lies at, in whole millimetres or sixteenths. */
const sizeOf = ({ lies }: Stop, { figure }: Saying) =>
  lies
    ? `${figure("length", Math.round(lies.length_mm))} × ${figure("length", Math.round(lies.width_mm))}`
    : "";

/** What stands under a stop: what its kind says, or the size it lies at and its count. */
export function stopFacts(drawn: Drawn, saying: Saying): ReactNode {
  const { stop } = drawn;
  const own = kindOf(stop.do).facts;
  if (own) return own(drawn, saying);
  return (
    <>
      {sizeOf(stop, saying)} ·{" "}
      <b title={saying.countWord}>{saying.count(stop.butter_layers, stop.leaves)}</b>
    </>
  );
}

/** A stop in its cell: from where, how wide, and whether its cell is folded. */
interface Placed {
  stop: Stop;
  x: number;
  w: number;
  folded: boolean;
}

function placesIn(cells: Cell[]): Placed[] {
  let x = 0;
  return cells.flatMap(({ stops, width, folded }) =>
    stops.map((stop) => {
      const at = { stop, x, w: width / stops.length, folded };
      x += at.w;
      return at;
    }),
  );
}

/** The basin of a rest: a ledge for each stay, deeper for colder. */
function dipOf({ stop, x, w, folded }: Placed) {
  const all = stop.rest ? passed(stop.rest) : [];
  const one = folded ? Math.min(w * 0.3, 9) : halfDip(restMin(stop.rest), w);
  // several want room for the minutes of each
  const half = folded ? one : Math.max(one, Math.min(all.length * LEDGE, w * 0.96) / 2);
  const least = Math.min(LEDGE, (2 * half) / Math.max(all.length, 1));
  const over = 2 * half - least * all.length;
  const sum = all.reduce((many, stay) => many + gentle(stay.minutes), 0) || 1;
  let from = x + w - half;
  const ledges = all.map((stay) => {
    const wide = least + (over * gentle(stay.minutes)) / sum;
    from += wide;
    const depth = DEPTH[stay.place] * (folded ? 0.5 : 1);
    return { stay, from: from - wide, to: from, depth };
  });
  const depth = Math.max(...ledges.map((l) => l.depth), DEPTH.proofer);
  return { middle: x + w, half, depth, ledges };
}

function linePath(places: Placed[], wide: number): string {
  const dips = places.map((place) => {
    if (!rests(place.stop)) return "";
    const { middle, half, ledges } = dipOf(place);
    const bend = (side: number, down: number) =>
      `c${side * 0.64},0 ${side * 0.36},${down} ${side},${down}`;
    const side = Math.min(14, half * 0.8, ...ledges.map((l) => (l.to - l.from) * 0.7));
    let at = 0;
    const down = ledges.map(({ from, depth }, n) => {
      const by = depth - at;
      at = depth;
      return `H${n ? from - side / 2 : from} ${bend(side, by)}`;
    });
    return `${down.join(" ")} H${middle + half - side} ${bend(side, -at)}`;
  });
  return `M0,3 ${dips.join(" ")} H${wide}`;
}

export function Strip(props: Props) {
  const { plan, worked, selected, onSelect, onMove, under, after, windows, minding } = props;
  const { ref, width } = useElementSize();
  const saying = useSaying();
  const { said } = useTrade();
  const { count } = saying;
  const list = useRef<HTMLDivElement>(null);
  const follow = useRef<string | null>(null);
  const hand = useHand();
  const stops = worked.strip;
  const size = (s: Stop) => sizeOf(s, saying);
  // Wide enough for the longest size and count, so that neighbours never touch.
  const longest = Math.max(
    ...stops.map((s) => `${size(s)} · ${count(s.butter_layers, s.leaves)}`.length),
  );
  const cells = cellsOf(stops, selected, width, Math.max(NARROWEST, longest * LETTER + 14));
  const places = placesIn(cells);
  const wide = cells.reduce((sum, c) => sum + c.width, 0);
  const high = windows ? 94 : 80;
  const drawn = (stop: Stop): Drawn =>
    ({
      stop,
      plan,
      worked,
      step: plan.steps.find((s) => s.id === stop.key) ?? plan.steps[stop.n],
      made: stop.made ?? undefined,
    }) as Drawn;
  useEffect(() => {
    const here = list.current?.querySelector<HTMLElement>('[aria-selected="true"]');
    if (selected && here) here.scrollIntoView({ block: "nearest", inline: "nearest" });
    // What the keys chose lay folded: it is another button now. Keys may be ahead of the screen, so
    // that a step passed on the way is not the one to stop at.
    if (follow.current !== selected) return;
    here?.focus();
    follow.current = null;
  }, [selected]);

  /** Which step one is put down at that is carried so far: where its middle comes to lie. */
  const putAt = (from: number, by: number) => {
    const place = places[from];
    const x = (place?.x ?? 0) + (place?.w ?? 0) / 2 + by;
    return (places.find((p) => x < p.x + p.w) ?? places.at(-1))?.stop.n ?? 0;
  };
  const carrying = useDrag<number>({
    slack: CARRIED,
    scrolls: list,
    drop: (from, by) => {
      const to = putAt(from, by.x);
      if (to !== from) onMove?.(from, to);
    },
  });
  const carried = carrying.dragged && {
    from: carrying.dragged.what,
    to: putAt(carrying.dragged.what, carrying.dragged.by.x),
    by: carrying.dragged.by.x,
  };

  const move = (event: React.KeyboardEvent) => {
    // Where the focus is, not what is selected: keys may come faster than the screen follows.
    const focused = follow.current ?? (event.target as HTMLElement).dataset.stop;
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
    follow.current = stop.key;
    onSelect(stop.key);
  };

  const chosen = places.find((p) => p.stop.key === selected);
  const grip = props.restGrip && chosen && rests(chosen.stop) && restGripAt(props.restGrip, chosen);
  const grips = grip ? [grip] : [];
  return (
    <div className={classes.strip} ref={ref}>
      <div className={classes.long} style={{ width: wide }}>
        <div
          className={classes.stops}
          role="tablist"
          aria-label="Steps"
          data-two={cells.some(longNamed) || undefined}
          ref={list}
          onKeyDown={move}
          onPointerDown={() => {
            follow.current = null;
          }}
          onClickCapture={carrying.onClickCapture}
        >
          {carried && <PutDown carried={carried} places={places} />}
          {cells.map((cell) =>
            cell.folded ? (
              <FoldedCell
                key={cell.stops[0]?.key}
                cell={cell}
                name={said("chapter", cell.stops[0]?.chapter ?? "")}
                minding={cell.stops.reduce((n, s) => n + (minding?.get(s.key) ?? 0), 0)}
                open={onSelect}
              />
            ) : (
              cell.stops.map((stop) => (
                <button
                  type="button"
                  role="tab"
                  key={stop.key}
                  data-stop={stop.key}
                  aria-selected={stop.key === selected}
                  tabIndex={stop.key === selected || (!selected && stop === stops[0]) ? 0 : -1}
                  style={{
                    width: cell.width / cell.stops.length,
                    ...(carried?.from === stop.n && { translate: `${carried.by}px 0` }),
                  }}
                  className={classes.stop}
                  data-carried={carried?.from === stop.n || undefined}
                  {...(onMove && carrying.hold(stop.n))}
                  onClick={() => onSelect(stop.key)}
                >
                  <span className={classes.name} title={stop.name}>
                    {stop.name}
                  </span>
                  <StopGlyph {...drawn(stop)} />
                  <span className={classes.facts}>{stopFacts(drawn(stop), saying)}</span>
                  {under && <span className={classes.under}>{under(stop)}</span>}
                  <ToMind many={minding?.get(stop.key) ?? 0} />
                </button>
              ))
            ),
          )}
        </div>
        <div className={classes.below}>
          <svg className={classes.line} width={wide} height={high} aria-hidden="true">
            <path d={linePath(places, wide)} fill="none" stroke="var(--cold)" strokeWidth={2} />
            {grip && hand.held && <Marks grip={hand.held.grip} y={dipOf(chosen).depth + 12} />}
            {places.map((place) => {
              const { stop } = place;
              if (!rests(stop) || place.folded) return null;
              return (
                <StripRest
                  key={stop.key}
                  stop={stop}
                  {...dipOf(place)}
                  held={hand.held !== null && stop.key === selected}
                  window={windows?.find((w) => w.stop === stop.key)}
                />
              );
            })}
          </svg>
          <Hands {...{ grips, hand, wide, high }} x={(at) => at} y={(at) => at} />
        </div>
      </div>
      {after}
    </div>
  );
}

/** How far a hand goes for a rest: so that an hour's marks are felt apart, and a night is in reach. */
const REACH = 90;

/** The end of the chosen rest's dip, in points of the strip. */
function restGripAt(rest: RestGrip, place: Placed): Grip {
  const { middle, half, depth } = dipOf(place);
  const start = middle + half - REACH * gentle(rest.value);
  return {
    ...rest,
    quantity: "time",
    dir: "x",
    at: (minutes) => start + REACH * gentle(minutes),
    value_at: (x) => ungentle((x - start) / REACH),
    from: 3,
    to: depth,
    knob: 0.5,
  };
}

/** Whether a step of what stands open has a name that wants two lines. */
const longNamed = (cell: Cell) =>
  !cell.folded &&
  cell.stops.some((s) => s.name.length * NAME_LETTER > cell.width / cell.stops.length);

/** Where a step that is carried would be put down. */
function PutDown({ carried, places }: { carried: { from: number; to: number }; places: Placed[] }) {
  const there = places[carried.to];
  if (!there || carried.to === carried.from) return null;
  const x = there.x + (carried.to > carried.from ? there.w : 0);
  return <span className={classes.putDown} style={{ left: x }} aria-hidden="true" />;
}

/** How much there is to mind at a stop: a word and a figure, not a colour alone. */
function ToMind({ many }: { many: number }) {
  if (many === 0) return null;
  return (
    <span className={classes.mind}>
      <span aria-hidden="true">{many === 1 ? "!" : `! ${many}`}</span>
      <VisuallyHidden>, {many} to mind</VisuallyHidden>
    </span>
  );
}

interface FoldedProps {
  cell: Cell;
  name: string;
  minding: number;
  open: (key: string) => void;
}

/** A chapter as its outline: its name, how many steps, how long; each step is a slice of it. */
function FoldedCell({ cell, name, minding, open }: FoldedProps) {
  const [first] = cell.stops;
  const last = cell.stops.at(-1);
  if (!first || !last) return null;
  const minutes = last.starts_min + last.bench_min + restMin(last.rest) - first.starts_min;
  return (
    <div className={classes.folded} style={{ width: cell.width }} role="presentation">
      {cell.stops.map((stop) => (
        <button
          type="button"
          role="tab"
          key={stop.key}
          data-stop={stop.key}
          aria-selected={false}
          tabIndex={-1}
          title={stop.name}
          onClick={() => open(stop.key)}
        >
          <VisuallyHidden>{stop.name}</VisuallyHidden>
        </button>
      ))}
      <span className={classes.outline} aria-hidden="true">
        <span className={classes.foldedName}>{name}</span>
        <span className={classes.facts}>
          {cell.stops.length} {cell.stops.length === 1 ? "step" : "steps"}
        </span>
        <span className={classes.facts}>{span(minutes)}</span>
        <ToMind many={minding} />
      </span>
    </div>
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
