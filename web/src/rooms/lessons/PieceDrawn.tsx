/** A baked piece cut across: its true leaves, the air between them, and where they ran together. */
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import classes from "./PieceDrawn.module.css";

const WIDE = 340;
const HIGH = 250;
const POINTS = 60;
const WAVES = 2.6;
/** A piece so many times as high as it was shaped fills the drawing: two of them are drawn to one scale. */
const FULL_LIFT = { rolled: 3.3, flat: 6 };

interface Props {
  name: string;
  view: Schemas["PlayView"];
}

export function PieceDrawn({ name, view }: Props) {
  const { say } = useSaying();
  const { drawn, outcome } = view;
  const words = `${name}: a piece cut across, ${say("length", Math.round(drawn.height_mm))} high and ${say("length", Math.round(drawn.width_mm))} wide; ${Math.round(outcome.whole_pct)} % of its leaves are whole.`;
  return (
    <figure className={classes.piece}>
      <svg viewBox={`0 0 ${WIDE} ${HIGH}`} role="img" aria-label={words}>
        {drawn.rounds > 0 ? (
          <Rolled drawn={drawn} lift={outcome.lift} />
        ) : (
          <Flat drawn={drawn} lift={outcome.lift} />
        )}
      </svg>
      <figcaption>
        <b>{name}</b>{" "}
        {drawn.every > 1 && <span className="quiet">one leaf in {drawn.every} is drawn</span>}
      </figcaption>
    </figure>
  );
}

interface DrawnProps {
  drawn: Schemas["DrawnPiece"];
  lift: number;
}

/** Leaves lying flat, on the tray. */
function Flat({ drawn, lift }: DrawnProps) {
  const high = (HIGH - 34) * Math.min(lift / FULL_LIFT.flat, 1);
  const wide = WIDE - 60;
  const floor = HIGH - 16;
  const place = (share: number, y: number): Point => [30 + share * wide, floor - y];
  return (
    <g>
      <rect
        x={26}
        y={floor - high - 4}
        width={wide + 8}
        height={high + 6}
        rx={7}
        className={classes.crust}
      />
      <LeavesDrawn lines={heightsOf(drawn, high)} place={place} points={POINTS} />
    </g>
  );
}

/** The band rolled up: its leaves one beside the other along a spiral. */
function Rolled({ drawn, lift }: DrawnProps) {
  // the section grows with the lift, its radius with the root of that
  const radius = (HIGH / 2 - 12) * Math.min(Math.sqrt(lift / FULL_LIFT.rolled), 1);
  const turns = Math.min(drawn.rounds, 4);
  const band = radius / (turns + 1.25);
  const total = turns * 2 * Math.PI;
  const place = (share: number, y: number): Point => {
    // the tail lies underneath
    const angle = share * total - total + Math.PI / 2;
    const r = (band * (share * total)) / (2 * Math.PI) + band * 0.2 + y;
    return [r * Math.cos(angle), r * Math.sin(angle)];
  };
  const middle = `translate(${WIDE / 2} ${HIGH / 2}) scale(1.3 1)`;
  return (
    <g transform={middle}>
      <path
        className={classes.crust}
        d={`${along((share) => place(1 - (1 - share) / turns, band), POINTS)} Z`}
      />
      <LeavesDrawn lines={heightsOf(drawn, band * 0.94)} place={place} points={POINTS * 4} />
    </g>
  );
}

type Point = [number, number];

interface Line {
  /** Where the leaf lies and how thick it is, and how far it is to the next, px. */
  y: number;
  thick: number;
  room: number;
  joined: readonly Schemas["JoinedStretch"][];
}

/** Leaves as lines with air between; where two ran together the air between them is crumb. */
function LeavesDrawn({
  lines,
  place,
  points,
}: {
  lines: Line[];
  place: (share: number, y: number) => Point;
  points: number;
}) {
  return (
    <g fill="none" strokeLinejoin="round">
      {lines.map(({ y, room, joined }, n) =>
        joined.map(({ start, end }) => (
          <path
            key={`${y} ${start}`}
            stroke="var(--dough-edge)"
            strokeWidth={room + 0.6}
            d={along(
              (share) => place(start + share * (end - start), y + room / 2 + wave(share, n)),
              Math.max(Math.round(points * (end - start)), 2),
            )}
          />
        )),
      )}
      {lines.map(({ y, thick }, n) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: leaves lie in order and never move
          key={n}
          stroke="var(--dough)"
          strokeWidth={Math.max(thick, 0.8)}
          d={along((share) => place(share, y + wave(share, n)), points)}
        />
      ))}
    </g>
  );
}

/** Where each leaf lies in a height, px: leaves and air to the scale of what they are. */
function heightsOf(drawn: Schemas["DrawnPiece"], high: number): Line[] {
  const all = drawn.leaves.reduce((sum, leaf) => sum + leaf.leaf_um + leaf.air_um, 0) || 1;
  const scale = high / all;
  let at = 0;
  return drawn.leaves.map((leaf) => {
    const thick = leaf.leaf_um * scale;
    const y = at + thick / 2;
    at += (leaf.leaf_um + leaf.air_um) * scale;
    return { y, thick: Math.min(thick, 7), room: leaf.air_um * scale, joined: leaf.joined };
  });
}

/** Leaves are never straight: each goes its own small way, the same each time. */
const wave = (share: number, n: number) =>
  1.1 * Math.sin(share * WAVES * 2 * Math.PI + n * 1.7) * Math.min(1, 8 * share * (1 - share));

function along(at: (share: number) => Point, points: number): string {
  return Array.from({ length: points + 1 }, (_, i) => {
    const [x, y] = at(i / points);
    return `${i ? "L" : "M"}${x.toFixed(1)},${y.toFixed(1)}`;
  }).join(" ");
}
