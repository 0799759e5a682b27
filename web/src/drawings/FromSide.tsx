/** The package or sheet from the side: true leaves, and a loupe where they are thin. */
import { useElementSize } from "@mantine/hooks";
import { useRef } from "react";
import type { Schemas } from "@/api/client";
import { LEAVES, useLit } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { Dimension } from "./Dimension";
import { Hands } from "./Handle";
import { type Grip, useHand } from "./hands";

interface Props {
  section: Schemas["Section"];
  layers: Pick<Schemas["Layers"], "butter" | "total" | "butter_um" | "dough_um">;
  size: Schemas["Size"];
  /** What is drawn: "folded", "as it lies" … */
  state: string;
  /** Its warmth at a chosen moment, °C, from the bottom up: the drawing is tinted by it. */
  cells_c?: number[];
  /** What can be taken hold of, in mm from the bottom up. */
  grips?: Grip[];
}

interface Band {
  from: number;
  to: number;
  butter: boolean;
}

/** Leaves from the bottom up, as heights in µm from the bottom. */
function bands(section: Schemas["Section"]): Band[] {
  let at = 0;
  return section.thickness_um.map((um, i) => {
    const from = at;
    at += um;
    return { from, to: at, butter: (section.bottom === "butter") === (i % 2 === 0) };
  });
}

const FINE = 3; // px; a butter leaf drawn thinner than this wants the loupe

export function FromSide({ section, layers, size, state, cells_c, grips = [] }: Props) {
  const { ref, width: boxWidth, height: boxHeight } = useElementSize();
  const { say, counted, leaf } = useSaying();
  const wide = Math.max(boxWidth, 200);
  const high = Math.max(boxHeight, 170);
  const leaves = bands(section);
  const lit = useLit(LEAVES);
  const total = size.thickness_mm * 1000;
  const loupe = !section.whole || (layers.butter_um / total) * 110 < FINE;
  const hand = useHand();
  const fits = loupe ? Math.min(104, high * 0.42) : Math.min(high - 100, 240);
  // While it is held it grows and shrinks from its foot; let go, it fills its place again.
  const lies = useRef({ foot: 14 + fits, per_um: fits / total });
  if (!hand.held) lies.current = { foot: 14 + fits, per_um: fits / total };
  const h = total * lies.current.per_um;
  const body = { x: 48, y: lies.current.foot - h, w: wide - 48 - 16, h };
  const y = (um: number) => body.y + body.h - (um / total) * body.h;
  const label = `${counted(layers.butter, layers.total)} in ${say("length", size.thickness_mm)}, ${state}: butter leaves ${leaf(layers.butter_um)}, dough leaves ${leaf(layers.dough_um)}.`;
  return (
    <div ref={ref} className="drawing">
      <svg width="100%" height={high} viewBox={`0 0 ${wide} ${high}`} role="img" aria-label={label}>
        <rect
          x={body.x}
          y={body.y}
          width={body.w}
          height={body.h}
          fill="var(--dough)"
          stroke="var(--dough-edge)"
          strokeWidth={1.2}
        />
        {section.whole ? (
          leaves
            .filter((b) => b.butter)
            .map((b) => (
              <rect
                key={b.from}
                x={body.x}
                y={y(b.to)}
                width={body.w}
                height={Math.max(y(b.from) - y(b.to), 0.4)}
                fill="var(--butter)"
              />
            ))
        ) : (
          <>
            <rect
              x={body.x}
              y={body.y}
              width={body.w}
              height={body.h}
              fill="var(--butter)"
              opacity={0.35}
            />
            <text
              x={body.x + body.w / 2}
              y={body.y + body.h * 0.28}
              textAnchor="middle"
              fontSize={13}
              fill="#2b2420"
            >
              {layers.total} leaves, too fine to draw
            </text>
          </>
        )}
        {lit && (
          <rect
            x={body.x}
            y={body.y}
            width={body.w}
            height={body.h}
            fill="none"
            stroke="var(--crust)"
            strokeWidth={3.5}
            data-lit
          />
        )}
        {cells_c?.map((c, i) => (
          <g
            // biome-ignore lint/suspicious/noArrayIndexKey: cells have no identity but their place
            key={i}
          >
            <rect
              x={body.x}
              y={body.y + body.h * (1 - (i + 1) / cells_c.length)}
              width={body.w}
              height={body.h / cells_c.length + 0.5}
              fill={c < 12 ? "var(--cold)" : "var(--mind)"}
              opacity={Math.min(Math.abs(c - 12) / 18, 0.75)}
            />
            {i % 2 === 0 && (
              <text
                x={body.x + body.w - 8}
                y={body.y + body.h * (1 - (i + 0.5) / cells_c.length) + 4}
                textAnchor="end"
                fontSize={12}
                fontWeight={650}
                fill="#2b2420"
                className="onPaper"
              >
                {say("temperature", c)}
              </text>
            )}
          </g>
        ))}
        <Dimension
          from={body.y}
          to={body.y + body.h}
          at={body.x - 18}
          text={say("length", size.thickness_mm)}
          upright
        />
        {loupe ? (
          <Loupe
            leaves={leaves}
            layers={layers}
            wide={wide}
            top={body.y + body.h + 24}
            from={{ x: body.x + body.w * 0.3, y: body.y + body.h * 0.66 }}
            room={high - body.y - body.h - 30}
          />
        ) : (
          <LeafLabels layers={layers} x={body.x} y={body.y + body.h + 48} />
        )}
      </svg>
      <Hands
        {...{ grips, hand, wide, high }}
        x={(share) => body.x + share * body.w}
        y={(mm) => lies.current.foot - mm * 1000 * lies.current.per_um}
      />
    </div>
  );
}

function LeafLabels({ layers, x, y }: { layers: Props["layers"]; x: number; y: number }) {
  const { leaf } = useSaying();
  return (
    <g fontSize={13.5} fill="var(--ink)" fontWeight={650}>
      <rect
        x={x}
        y={y - 11}
        width={14}
        height={12}
        fill="var(--butter)"
        stroke="var(--butter-edge)"
        strokeWidth={0.8}
      />
      <text x={x + 22} y={y}>
        butter {leaf(layers.butter_um)}
      </text>
      <rect
        x={x}
        y={y + 13}
        width={14}
        height={12}
        fill="var(--dough)"
        stroke="var(--dough-edge)"
        strokeWidth={0.8}
      />
      <text x={x + 22} y={y + 24}>
        dough {leaf(layers.dough_um)}
      </text>
    </g>
  );
}

interface LoupeProps {
  leaves: Band[];
  layers: Props["layers"];
  wide: number;
  top: number;
  room: number;
  from: { x: number; y: number };
}

function Loupe({ leaves, layers, wide, top, room, from }: LoupeProps) {
  const r = Math.max(Math.min(room / 2 - 6, 120, (wide - 172) / 2), 30);
  const c = { x: 22 + r, y: top + r };
  const inner = leaves.slice(1, -1);
  const butters = inner.filter((b) => b.butter);
  const centre = butters[Math.floor(butters.length / 2)] ?? leaves.find((b) => b.butter);
  if (!centre) return null;
  // Three butter leaves and the dough between them fill the glass.
  const reach = (layers.butter_um + layers.dough_um) * 3;
  const scale = (2 * r) / reach;
  const middle = (centre.from + centre.to) / 2;
  const y = (um: number) => c.y - (um - middle) * scale;
  const seen = leaves.filter((b) => b.to > middle - reach && b.from < middle + reach);
  return (
    <g>
      <path
        d={`M${from.x - 9},${from.y + 4} L${c.x - r * 0.86},${c.y - r * 0.5} M${from.x + 9},${from.y + 4} L${c.x + r * 0.86},${c.y - r * 0.5}`}
        stroke="var(--quiet)"
        strokeWidth={0.8}
      />
      <circle cx={from.x} cy={from.y} r={9} fill="none" stroke="#2b2420" strokeWidth={1.3} />
      <clipPath id="glass">
        <circle cx={c.x} cy={c.y} r={r} />
      </clipPath>
      <g clipPath="url(#glass)">
        <rect x={c.x - r} y={c.y - r} width={2 * r} height={2 * r} fill="var(--dough)" />
        {seen
          .filter((b) => b.butter)
          .map((b) => (
            <rect
              key={b.from}
              x={c.x - r}
              y={y(b.to)}
              width={2 * r}
              height={Math.max(y(b.from) - y(b.to), 0.8)}
              fill="var(--butter)"
            />
          ))}
      </g>
      <circle cx={c.x} cy={c.y} r={r} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
      <LeafLabels layers={layers} x={c.x + r + 16} y={c.y - 6} />
    </g>
  );
}
