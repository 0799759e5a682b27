/** A block as it lies on its shelf: as wide as it is heavy, its turns as pressed marks over it. */
import type { Schemas } from "@/api/client";
import classes from "./Package.module.css";

type Holds = Schemas["Holds"];

interface Props {
  holds: Holds;
  grams: number;
  turns: number;
  pieces?: number | null;
  /** Its date is near or past: the edges dry. */
  urgent?: boolean;
}

const HIGH = 34;
const ABOVE = 14;
const PER_KG = 46;
const NARROWEST = 44;
const WIDEST = 190;

const wide = (grams: number) => Math.min(Math.max((grams / 1000) * PER_KG, NARROWEST), WIDEST);

export function Package({ holds, grams, turns, pieces, urgent }: Props) {
  const w = wide(grams);
  return (
    <svg
      className={classes.package}
      width={w + 4}
      height={HIGH + ABOVE + 2}
      viewBox={`-2 0 ${w + 4} ${HIGH + ABOVE + 2}`}
      aria-hidden="true"
    >
      <g transform={`translate(0 ${ABOVE})`}>
        {holds === "dough" && <Folded w={w} />}
        {holds === "butter" && (
          <rect className={classes.butter} width={w} height={HIGH - 8} y="8" />
        )}
        {holds === "trimmings" && <Strips w={w} />}
        {(holds === "raw" || holds === "baked") && (
          <Pieces w={w} many={pieces ?? 6} baked={holds === "baked"} />
        )}
        {urgent && <Dry w={w} />}
      </g>
      {holds === "dough" &&
        Array.from({ length: Math.min(turns, 8) }, (_, n) => (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: dots have no other name
            key={n}
            className={classes.turn}
            cx={w - 6 - n * 11}
            cy="6"
            r="3.8"
          />
        ))}
    </svg>
  );
}

function Folded({ w }: { w: number }) {
  return (
    <>
      <rect className={classes.dough} width={w} height={HIGH} rx="9" />
      {[8.5, 17, 25.5].map((y) => (
        <path key={y} className={classes.leaf} d={`M6 ${y}H${w - 6}`} />
      ))}
    </>
  );
}

function Strips({ w }: { w: number }) {
  return [0, 1, 2, 3].map((n) => (
    <rect
      key={n}
      className={classes.dough}
      x={n * 2 + 1}
      y={HIGH - 8 - n * 8}
      width={w - 8 - (n % 2) * 5}
      height="7"
      transform={`rotate(${n % 2 ? 1.6 : -1.6} ${w / 2} ${HIGH - n * 8})`}
    />
  ));
}

function Pieces({ w, many, baked }: { w: number; many: number; baked: boolean }) {
  const shown = Math.min(many, Math.floor(w / 14));
  return (
    <>
      {Array.from({ length: shown }, (_, n) => (
        <ellipse
          // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no other name
          key={n}
          className={baked ? classes.baked : classes.dough}
          cx={9 + (n * (w - 18)) / Math.max(shown - 1, 1)}
          cy={HIGH - 11 - (n % 2) * 2}
          rx="8"
          ry="9"
        />
      ))}
      <path className={classes.tray} d={`M0 ${HIGH - 1}H${w}`} />
    </>
  );
}

/** Edges that dry and crack. */
function Dry({ w }: { w: number }) {
  const edge = (x: number, way: number) =>
    `M${x} 2q${4 * way} 4 0 8q${-4 * way} 4 0 8q${4 * way} 4 0 8`;
  return <path className={classes.dry} d={edge(1, 1) + edge(w - 1, -1)} />;
}
