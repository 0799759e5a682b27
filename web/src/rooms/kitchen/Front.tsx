/** A thing from the front, with its places one below another: how many there are is taken hold of. */
import { Hands } from "@/drawings/Handle";
import { type Grip, linear, useHand } from "@/drawings/hands";
import { capital } from "@/measures/words";
import classes from "./Front.module.css";

interface Props {
  label: string;
  path: string;
  value: number;
  /** What is in force: the drawing keeps its scale while others are tried. */
  kept: number;
  limits: readonly [number, number];
  cold: boolean;
  put?: (value: number) => void;
}

const [WIDE, HIGH, TOP, SIDE] = [180, 190, 10, 14];
const LEAST = 12; // places there is room for in any case

export function Front({ label, path, value, kept, limits, cold, put }: Props) {
  const hand = useHand();
  const each = (HIGH - TOP - 12) / Math.max(LEAST, Math.ceil(kept * 1.5));
  const room = Math.min(value, Math.floor((HIGH - TOP - 6) / each));
  const grip: Grip = {
    path,
    label: capital(label),
    quantity: "count",
    value,
    limits: [Math.max(limits[0], 0), limits[1]],
    dir: "y",
    ...linear(TOP, each),
    from: SIDE,
    to: WIDE - SIDE,
    drawn: true,
    put: (v) => put?.(v),
  };
  const places = Array.from(
    { length: room },
    (_, i) => `M${SIDE + 4},${TOP + (i + 1) * each} H${WIDE - SIDE - 4}`,
  );
  return (
    <figure className={classes.front} data-cold={cold || undefined}>
      <div className={classes.drawn}>
        <svg width={WIDE} height={HIGH} viewBox={`0 0 ${WIDE} ${HIGH}`} aria-hidden="true">
          <rect x={SIDE} y={TOP} width={WIDE - 2 * SIDE} height={HIGH - TOP - 4} rx={3} />
          <path d={places.join(" ")} />
          {value === 0 && limits[0] === 0 && (
            <text x={WIDE / 2} y={HIGH / 2} textAnchor="middle">
              not counted
            </text>
          )}
        </svg>
        {put && (
          <Hands grips={[grip]} hand={hand} wide={WIDE} high={HIGH} x={(v) => v} y={(v) => v} />
        )}
      </div>
      <figcaption>
        <b>{value}</b> <small className="quiet">{label}</small>
      </figcaption>
    </figure>
  );
}
