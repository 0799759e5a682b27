/** A thing of the bakehouse from above, in line and flat tone. */
import type { SVGProps } from "react";
import type { Schemas } from "@/api/client";
import { useStill } from "@/drawings/hands";
import classes from "./RoomPlan.module.css";

export type Drawn = Schemas["Furnished"];

interface Props {
  thing: Drawn;
  x: number;
  y: number;
  scale: number;
  chosen: boolean;
  handlers: SVGProps<SVGGElement>;
}

const COLD = new Set(["fridge", "freezer"]);
const WARM = new Set(["oven", "proofer"]);

/** What is drawn in each: lines within a box of so many points, from its near corner. */
const INSIDE: Partial<Record<Drawn["what"], (w: number, h: number) => string>> = {
  pins: (w, h) =>
    [0.28, 0.72]
      .map(
        (at) =>
          `M0,${h * at} H${w * 0.16} M${w * 0.84},${h * at} H${w} M${w * 0.16},${h * at - h * 0.14} h${w * 0.68} v${h * 0.28} h${-w * 0.68} z`,
      )
      .join(" "),
  frames: (w, h) => `M${w * 0.14},${h * 0.16} h${w * 0.72} v${h * 0.68} h${-w * 0.72} z`,
  sheeter: (w, h) =>
    `M${w * 0.44},0 V${h} M${w * 0.56},0 V${h} M8,${h / 2} H${w * 0.4} M${w * 0.6},${h / 2} H${w - 8}`,
  crank: (w, h) => `M0,${h * 0.4} H${w} M0,${h * 0.6} H${w} M${w},${h / 2} h7 v8`,
  mixer: (w, h) =>
    `M${w * 0.5},${h * 0.6} m${-w * 0.3},0 a${w * 0.3},${w * 0.3} 0 1 0 ${w * 0.6},0 a${w * 0.3},${w * 0.3} 0 1 0 ${-w * 0.6},0 M${w * 0.5},${h * 0.1} V${h * 0.6}`,
  scales: (w, h) =>
    `M${w * 0.2},${h * 0.15} h${w * 0.6} v${h * 0.45} h${-w * 0.6} z M${w * 0.3},${h * 0.8} h${w * 0.4}`,
  tubs: (w, h) =>
    `M4,4 h${w / 2 - 6} v${h - 8} h${6 - w / 2} z M${w / 2 + 2},4 h${w / 2 - 6} v${h - 8} h${6 - w / 2} z`,
  fridge: (w, h) => `M0,${h * 0.88} H${w} M${w * 0.2},${h * 0.88} v${h * 0.08}`,
  freezer: (w, h) => `M0,${h * 0.88} H${w} M${w * 0.2},${h * 0.88} v${h * 0.08}`,
  butters: (w, h) =>
    `M${w * 0.1},${h * 0.25} h${w * 0.22} v${h * 0.5} h${-w * 0.22} z M${w * 0.42},${h * 0.25} h${w * 0.22} v${h * 0.5} h${-w * 0.22} z`,
  rack: (w, h) => [0.2, 0.4, 0.6, 0.8].map((at) => `M4,${h * at} H${w - 4}`).join(" "),
  proofer: (w, h) => `M0,${h * 0.88} H${w} M${w * 0.5},${h * 0.2} c-6,6 6,10 0,16 c-6,6 6,10 0,16`,
  oven: (w, h) =>
    `M${w * 0.12},${h * 0.15} h${w * 0.76} v${h * 0.6} h${-w * 0.76} z M0,${h * 0.88} H${w}`,
};

const LETTER = 6.5; // points a letter of a label takes
const ROOM_ASIDE = 40; // and as many more than its thing it may be wide

export function Thing({ thing, x, y, scale, chosen, handlers }: Props) {
  // what is chosen moves under a finger; over the others the page scrolls
  const self = useStill<SVGGElement>(chosen);
  const [w, h] = [thing.length_mm * scale, thing.width_mm * scale];
  const beside = thing.turned ? { x: 0, y: h } : { x: w, y: 0 };
  const long = Math.round(thing.length_mm);
  const wide = Math.round(thing.width_mm);
  return (
    // biome-ignore lint/a11y/useSemanticElements: a thing of a drawing has no other element
    <g
      ref={self}
      className={classes.thing}
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={
        thing.there ? `${thing.said}, ${long} by ${wide} mm` : `${thing.said}, none here yet`
      }
      data-chosen={chosen || undefined}
      data-there={thing.there}
      data-cold={COLD.has(thing.what) || undefined}
      data-warm={WARM.has(thing.what) || undefined}
      transform={`translate(${x} ${y})`}
      {...handlers}
    >
      {Array.from({ length: thing.many }, (_, i) => `one ${i}`).map((key, i) => (
        <g key={key} transform={`translate(${beside.x * i} ${beside.y * i})`}>
          <rect width={w} height={h} rx={3} />
          <path d={INSIDE[thing.what]?.(w, h) ?? ""} />
        </g>
      ))}
      <text
        x={w / 2}
        y={h + 15}
        textAnchor="middle"
        // longer than its thing, it would run into its neighbour's
        data-long={thing.said.length * LETTER > w + ROOM_ASIDE || undefined}
      >
        {thing.said}
      </text>
    </g>
  );
}
