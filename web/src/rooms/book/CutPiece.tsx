/** A piece cut across, drawn with what is wrong with it. */
import type { Schemas } from "@/api/client";
import classes from "./Findings.module.css";

type Finding = Schemas["Finding"];

const W = 74;
const H = 46;
/** Cells of a good piece: where, how wide and how high. */
const CELLS: [number, number, number, number][] = [
  [20, 22, 6, 4.5],
  [30, 17, 6, 5],
  [41, 16, 6.5, 5],
  [52, 20, 5.5, 4.5],
  [25, 30, 5.5, 3.5],
  [36, 27, 6.5, 4.5],
  [47, 29, 6, 4],
  [15, 28, 3.5, 3],
  [58, 27, 4, 3],
];

const FEW = new Set<Finding>(["bready", "dense", "sour", "flat", "pale"]);

export function CutPiece({ of }: { of: Finding }) {
  const flat = of === "flat";
  const ry = flat ? 10 : 15;
  const cy = flat ? 30 : 25;
  return (
    <svg viewBox={`0 0 ${W} ${H}`} className={classes.piece} aria-hidden="true">
      <g transform={of === "leans" ? "skewX(-14) translate(7 0)" : undefined}>
        <ellipse
          className={of === "pale" ? classes.pale : classes.crust}
          cx="37"
          cy={cy}
          rx="29"
          ry={ry}
        />
        {of === "band" && <ellipse className={classes.band} cx="37" cy={cy} rx="25" ry={ry - 4} />}
        <Inside of={of} cy={cy} />
        {of === "dense" && <path className={classes.base} d="M12 32q25 12 50 0l-3 5q-22 7-44 0z" />}
        {of === "burst" && <path className={classes.tear} d="M40 9l-3 8 5 4-4 7" />}
        {of === "opens" && <path className={classes.open} d="M58 33q9 2 13 7" />}
        {of === "skin" && <path className={classes.skin} d="M12 20q24-18 50 0" />}
        {of === "ragged" && (
          <path className={classes.tear} d="M10 21l4 3-3 3 4 3M64 20l-4 3 3 3-4 3" />
        )}
      </g>
      {of === "fat" && <path className={classes.fat} d="M6 43q15-4 30-1t32-1" />}
      {of === "weights" && (
        <>
          <ellipse className={classes.crust} cx="14" cy="39" rx="8" ry="4" />
          <ellipse className={classes.crust} cx="60" cy="38" rx="12" ry="6" />
        </>
      )}
    </svg>
  );
}

function Inside({ of, cy }: { of: Finding; cy: number }) {
  if (of === "hole") return <ellipse className={classes.cell} cx="40" cy={cy - 4} rx="14" ry="7" />;
  if (of === "islands")
    return [
      [22, 27, 10],
      [38, 20, 12],
      [48, 30, 9],
    ].map(([x = 0, y = 0, w = 0]) => (
      <rect key={`${x}`} className={classes.fatIn} x={x} y={y} width={w} height="3" rx="1.5" />
    ));
  const some = FEW.has(of) ? CELLS.filter((_, n) => n % 3 === 0) : CELLS;
  return some.map(([x, y, rx, ry], n) => (
    <ellipse
      key={`${x} ${y}`}
      className={classes.cell}
      cx={x}
      cy={of === "flat" ? 22 + y / 3.4 : y}
      rx={FEW.has(of) ? rx / 2 : of === "uneven" && n % 2 ? rx * 1.4 : rx}
      ry={FEW.has(of) ? ry / 2 : of === "uneven" && n % 2 ? ry / 2.4 : ry}
    />
  ));
}
