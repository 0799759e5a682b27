/** The sheet from above, to scale, on the bench it must fit. */
import { useElementSize } from "@mantine/hooks";
import { useRef } from "react";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import { Dimension } from "./Dimension";
import { Hands } from "./Handle";
import { type Grip, useHand } from "./hands";
import { type Above, outlineKey, outlinePath } from "./views";

type Size = Schemas["Size"];

interface Props extends Above {
  bench?: { length_mm: number; width_mm: number };
  minHeight?: number;
  /** What can be taken hold of, in mm from the sheet's corner. */
  grips?: Grip[];
}

/** So many times as long as the sheet the bench is drawn at most; more of it lies outside. */
const MOST_BENCH = 2.4;

/** Which flap goes where: pairs of places along the length, as shares, in the order of folding. */
const FLAPS: Record<Schemas["Fold"], [number, number][]> = {
  half: [[0.97, 0.05]],
  letter: [
    [0.97, 0.38],
    [0.03, 0.62],
  ],
  book: [
    [0.98, 0.54],
    [0.02, 0.46],
  ],
  offset_book: [
    [0.98, 0.7],
    [0.02, 0.62],
  ],
};

export function FromAbove({
  sheet,
  creases = [],
  fold,
  block,
  inside_out,
  edge,
  outlines,
  notches,
  marks,
  describe,
  bench,
  minHeight = 220,
  grips = [],
}: Props) {
  const { ref, width: boxWidth, height: boxHeight } = useElementSize();
  const { say, figure } = useSaying();
  const [left, top, right, bottom] = [84, 40, grips.length ? 44 : 18, 46];
  const wide = Math.max(boxWidth, 200);
  const high = Math.max(boxHeight, minHeight);
  // The bench is seen whole, unless the sheet would be lost on it.
  const reach = {
    length: Math.max(
      sheet.length_mm,
      Math.min(bench?.length_mm ?? 0, MOST_BENCH * sheet.length_mm),
    ),
    width: Math.max(sheet.width_mm, Math.min(bench?.width_mm ?? 0, MOST_BENCH * sheet.width_mm)),
  };
  const fits = Math.min((wide - left - right) / reach.length, (high - top - bottom) / reach.width);
  const hand = useHand();
  // The sheet lies in the middle of the bench, as it would; the bench is drawn round it.
  const benchX = left + (wide - left - right - fits * reach.length) / 2;
  const y0 = top + Math.max((high - top - bottom - fits * reach.width) / 2, 0);
  const placed = {
    scale: fits,
    reach,
    benchX,
    y0,
    x0: benchX + (fits * (reach.length - sheet.length_mm)) / 2,
    sheetY: y0 + (fits * (reach.width - sheet.width_mm)) / 2,
  };
  // Nothing moves under the hand that holds an edge: it is laid out anew when it is let go.
  const lies = useRef(placed);
  if (!hand.held) lies.current = placed;
  const { scale, x0, sheetY } = lies.current;
  const px = (mm: number) => mm * scale;
  const end = { x: x0 + px(sheet.length_mm), y: sheetY + px(sheet.width_mm) };
  const held = lies.current;
  const onBench = {
    x: held.benchX + px(held.reach.length - (bench?.length_mm ?? 0)) / 2,
    y: held.y0 + px(held.reach.width - (bench?.width_mm ?? 0)) / 2,
  };
  const panels = [0, ...creases, sheet.length_mm];
  const over =
    bench && (sheet.length_mm > bench.length_mm + 1 || sheet.width_mm > bench.width_mm + 1);
  return (
    <div ref={ref} className="drawing" style={{ minHeight }}>
      <svg
        width="100%"
        height={high}
        viewBox={`0 0 ${wide} ${high}`}
        overflow="visible"
        role="img"
        aria-label={describe}
      >
        <defs>
          <marker
            id="flap"
            viewBox="0 0 8 8"
            refX="6"
            refY="4"
            markerWidth="9"
            markerHeight="9"
            orient="auto"
          >
            <path d="M0,0 L8,4 L0,8" fill="none" stroke="#2b2420" />
          </marker>
        </defs>
        {bench && (
          <g>
            <rect
              x={onBench.x}
              y={onBench.y}
              width={px(bench.length_mm)}
              height={px(bench.width_mm)}
              fill="none"
              stroke={over ? "var(--mind)" : "var(--line)"}
              strokeWidth={1.5}
              strokeDasharray="6 5"
            />
            <text
              x={onBench.x}
              y={Math.max(onBench.y + px(bench.width_mm), creases.length ? end.y + 24 : 0) + 17}
              fontSize={12.5}
              fill={over ? "var(--mind)" : "var(--quiet)"}
            >
              {over ? "does not fit the bench, " : "bench "}
              {figure("length", bench.length_mm)} × {say("length", bench.width_mm)}
            </text>
          </g>
        )}
        <path
          d={outlinePath(
            edge ?? [
              { x_mm: 0, y_mm: 0 },
              { x_mm: sheet.length_mm, y_mm: 0 },
              { x_mm: sheet.length_mm, y_mm: sheet.width_mm },
              { x_mm: 0, y_mm: sheet.width_mm },
            ],
            (mm) => x0 + px(mm),
            (mm) => sheetY + px(mm),
          )}
          fill={inside_out ? "var(--butter)" : "var(--dough)"}
          stroke={inside_out ? "var(--butter-edge)" : "var(--dough-edge)"}
          strokeWidth={1.5}
          strokeLinejoin="round"
        />
        {block && (
          <BlockAbove block={block} dough={inside_out} sheet={sheet} x0={x0} y0={sheetY} px={px} />
        )}
        {outlines?.map((outline) => (
          <path
            key={outlineKey(outline)}
            d={outlinePath(
              outline,
              (mm) => x0 + px(mm),
              (mm) => sheetY + px(mm),
            )}
            fill="var(--surface)"
            fillOpacity={0.45}
            fillRule="evenodd"
            stroke="#2b2420"
            strokeWidth={0.8}
          />
        ))}
        {notches?.map(({ from, to }) => (
          <path
            key={`${from.x_mm} ${from.y_mm} ${to.x_mm} ${to.y_mm}`}
            d={`M${x0 + px(from.x_mm)},${sheetY + px(from.y_mm)} L${x0 + px(to.x_mm)},${sheetY + px(to.y_mm)}`}
            stroke="#2b2420"
            strokeWidth={1.2}
          />
        ))}
        {creases.map((at) => (
          <g key={at} strokeDasharray={fold?.endsWith("book") && at === creases[1] ? "9 4" : "2 4"}>
            <path d={`M${x0 + px(at)},${sheetY} V${end.y}`} stroke="#2b2420" />
            <path
              d={`M${x0 + px(at)},${sheetY - 8} v8 M${x0 + px(at)},${end.y} v8`}
              stroke="var(--ink)"
            />
          </g>
        ))}
        {fold &&
          FLAPS[fold].map(([from, to]) => {
            const [a, b] = [x0 + px(from * sheet.length_mm), x0 + px(to * sheet.length_mm)];
            const y = sheetY + px(sheet.width_mm) * 0.55;
            const lift = Math.min(px(sheet.width_mm) * 0.45, 54);
            return (
              <path
                key={from}
                d={`M${a},${y} C${a},${y - lift} ${b},${y - lift} ${b},${y}`}
                fill="none"
                stroke="#2b2420"
                strokeWidth={1.3}
                markerEnd="url(#flap)"
              />
            );
          })}
        {Array.from({ length: marks ?? 0 }, (_, i) => `mark ${i}`).map((key, i) => (
          <ellipse
            key={key}
            cx={x0 + 16 + i * 15}
            cy={end.y - 14}
            rx={4.6}
            ry={5.6}
            fill="none"
            stroke="#8a6f3c"
            strokeWidth={2}
          />
        ))}
        <Dimension
          from={x0}
          to={end.x}
          at={sheetY - 24}
          text={say("length", Math.round(sheet.length_mm))}
        />
        <Dimension
          from={sheetY}
          to={end.y}
          at={x0 - 24}
          text={say("length", Math.round(sheet.width_mm))}
          upright
        />
        {creases.length > 0 &&
          panels.slice(1).map((at, i) => {
            const from = panels[i] as number;
            if (px(at - from) < 34) return null;
            return (
              <text
                key={at}
                x={x0 + px((at + from) / 2)}
                y={end.y + 20}
                fontSize={12.5}
                fill="var(--quiet)"
                className="onPaper"
                textAnchor="middle"
              >
                {figure("length", Math.round(at - from))}
              </text>
            );
          })}
      </svg>
      <Hands {...{ grips, hand, wide, high }} x={(mm) => x0 + px(mm)} y={(mm) => sheetY + px(mm)} />
    </div>
  );
}

function BlockAbove({
  block,
  dough,
  sheet,
  x0,
  y0,
  px,
}: {
  block: NonNullable<Above["block"]>;
  dough?: boolean;
  sheet: Size;
  x0: number;
  y0: number;
  px: (mm: number) => number;
}) {
  const { figure, say } = useSaying();
  const turned = block.method === "envelope" || block.method === "diamond";
  const size = { w: px(block.length_mm), h: px(block.width_mm) };
  const middle = { x: x0 + px(sheet.length_mm / 2), y: y0 + px(sheet.width_mm / 2) };
  const x = turned ? middle.x - size.w / 2 : x0 + px(block.at_mm);
  const y = turned ? middle.y - size.h / 2 : y0 + px(block.margin_mm);
  const text = `${figure("length", block.width_mm)} × ${figure("length", block.length_mm)}`;
  const roomy = size.w > 90;
  return (
    <g>
      <rect
        x={x}
        y={y}
        width={size.w}
        height={size.h}
        fill={dough ? "var(--dough)" : "var(--butter)"}
        stroke={dough ? "var(--dough-edge)" : "var(--butter-edge)"}
        transform={turned ? `rotate(45 ${middle.x} ${middle.y})` : undefined}
      />
      {roomy && (
        <text
          x={x + size.w / 2}
          y={y + size.h / 2}
          textAnchor="middle"
          fontSize={13.5}
          fontWeight={650}
          fill="#2b2420"
        >
          {text}
          <tspan x={x + size.w / 2} dy={18} fontWeight={500}>
            {say("length", block.thickness_mm)} thick
          </tspan>
        </text>
      )}
    </g>
  );
}
