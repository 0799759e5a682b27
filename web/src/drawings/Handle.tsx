/** A line of a drawing that can be taken hold of: by mouse, by touch, by keys. */
import { useRef } from "react";
import { useLit } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import classes from "./Handle.module.css";
import { type Grip, type Hand, useStill } from "./hands";
import { useDrag } from "./useDrag";

interface Props {
  grip: Grip;
  hand: Hand;
  /** From the drawing's own measure to points of the screen. */
  x: (place: number) => number;
  y: (place: number) => number;
}

const MANY = 10;

/** A value as it is said at the hand. */
function useSaid() {
  const { say } = useSaying();
  return (grip: Grip, value: number) => {
    const felt = grip.stops?.find((s) => s.at === value)?.said;
    const size = grip.quantity === "time" ? span(value) : say(grip.quantity, value);
    return [size, felt ?? grip.also].filter(Boolean).join(", ");
  };
}

function Handle({ grip, hand, x, y }: Props) {
  const said = useSaid();
  const began = useRef(0);
  const held = hand.held?.grip.path === grip.path ? hand.held : null;
  const drawn = held?.grip ?? grip;
  const value = held?.value ?? grip.value;
  const along = grip.dir === "x";
  const place = drawn.at(value);
  const knob = drawn.from + (drawn.knob ?? 0.5) * (drawn.to - drawn.from);
  const off = drawn.off ?? 0;
  const at = along ? { x: x(place), y: y(knob) + off } : { x: x(knob) + off, y: y(place) };
  const line = along
    ? `M${at.x},${y(drawn.from)} V${y(drawn.to) + off}`
    : `M${x(drawn.from)},${at.y} H${x(drawn.to) + off}`;
  // Points of the screen for one unit of the drawing, and the unit under a point.
  const [p0, p1] = along ? [x(0), x(1)] : [y(0), y(1)];
  const scale = Math.abs(p1 - p0);

  const dragging = useDrag<Grip>({
    take: (what) => {
      began.current = along ? at.x : at.y;
      hand.take(what);
    },
    move: (what, by) => hand.moveTo((began.current + by[grip.dir] - p0) / (p1 - p0), scale, what),
    drop: () => hand.release(),
    cancel: () => hand.escape(),
  });
  const taken = dragging.hold(grip);
  const down = (event: React.PointerEvent<SVGGElement>) => {
    if (event.button !== 0) return;
    event.preventDefault();
    event.stopPropagation();
    event.currentTarget.focus({ preventScroll: true });
    taken.onPointerDown(event);
  };
  const keys = (event: React.KeyboardEvent) => {
    const steps = {
      ArrowRight: 1,
      ArrowUp: 1,
      ArrowLeft: -1,
      ArrowDown: -1,
      PageUp: MANY,
      PageDown: -MANY,
    }[event.key];
    const end = { Home: grip.limits?.[0], End: grip.limits?.[1] }[event.key];
    if (steps === undefined && end === undefined && event.key !== "Escape") return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === "Escape") hand.escape();
    else {
      if (!held || held.loose) hand.take(grip);
      if (steps !== undefined) hand.stepBy(steps, grip);
      else if (end !== undefined) hand.stepTo(end, grip);
    }
  };
  const self = useStill<SVGGElement>();
  const lit = useLit(grip.path);
  const refused = hand.refused?.path === grip.path;
  return (
    <g
      ref={self}
      className={classes.handle}
      role="slider"
      tabIndex={0}
      aria-label={grip.label}
      aria-orientation={along ? "horizontal" : "vertical"}
      aria-valuenow={value}
      aria-valuemin={grip.limits?.[0]}
      aria-valuemax={grip.limits?.[1]}
      aria-valuetext={said(grip, value)}
      data-grip={grip.path}
      data-dir={grip.dir}
      data-drawn={grip.drawn}
      data-lit={lit || undefined}
      data-held={held !== null || undefined}
      data-refused={refused || undefined}
      {...taken}
      onPointerDown={down}
      onKeyDown={keys}
      onBlur={() => held && !held.loose && hand.release()}
    >
      <path className={classes.reach} d={line} />
      <path className={classes.line} d={line} />
      <g transform={`translate(${at.x} ${at.y})${along ? "" : " rotate(90)"}`}>
        <circle className={classes.touch} r={14} />
        <rect className={classes.knob} x={-6} y={-14} width={12} height={28} rx={6} />
        <path className={classes.ridges} d="M-1.6,-6 v12 M1.6,-6 v12" />
      </g>
    </g>
  );
}

interface HandsProps extends Omit<Props, "grip"> {
  grips: Grip[];
  wide: number;
  high: number;
}

/** Everything that can be taken hold of in a drawing, laid over it, with the value at the hand. */
export function Hands({ grips, wide, high, ...rest }: HandsProps) {
  if (grips.length === 0) return null;
  return (
    <>
      {/* biome-ignore lint/a11y/useSemanticElements: a drawing has no fieldset */}
      <svg
        className={classes.hands}
        width={wide}
        height={high}
        viewBox={`0 0 ${wide} ${high}`}
        role="group"
        aria-label="What can be moved"
      >
        {grips.map((grip) => (
          <Handle key={grip.path + grip.label} grip={grip} {...rest} />
        ))}
      </svg>
      <AtTheHand grips={grips} {...rest} />
    </>
  );
}

function AtTheHand({ hand, grips, x, y }: Omit<Props, "grip"> & { grips: Grip[] }) {
  const said = useSaid();
  const { words } = useSaying();
  const path = hand.held?.grip.path ?? hand.refused?.path;
  const grip = hand.held?.grip ?? grips.find((g) => g.path === path);
  if (!grip) return null;
  const latest = grips.find((g) => g.path === path);
  const value = hand.held?.value ?? grip.value;
  const place = grip.at(value);
  const knob = grip.from + (grip.knob ?? 0.5) * (grip.to - grip.from);
  const at = grip.dir === "x" ? { left: x(place), top: y(knob) } : { left: x(knob), top: y(place) };
  return (
    <div className={classes.tag} style={at} data-refused={hand.refused !== null || undefined}>
      <b>{said({ ...grip, also: latest?.also }, value)}</b>
      {hand.refused && <p role="alert">{words(hand.refused.why)}</p>}
    </div>
  );
}
