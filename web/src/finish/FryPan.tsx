/** The pieces of one go in the fat, from above, as large as they get. */
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";

interface Props {
  step: Schemas["Frying"];
  made: Schemas["FryFigures"];
  /** A piece as large as it gets, mm. */
  piece?: Schemas["Size"];
}

const [WIDE, HIGH, RIM] = [420, 260, 22];

export function FryPan({ step, made, piece }: Props) {
  const { say } = useSaying();
  const many = Math.min(step.at_once, made.pieces);
  const [long, broad] = [piece?.length_mm ?? 100, piece?.width_mm ?? 60];
  // in as many rows as leave each piece the shape it has
  const across = Math.max(Math.round(Math.sqrt((many * long * HIGH) / (broad * WIDE))), 1);
  const rows = Math.min(across, many);
  const along = Math.ceil(many / rows);
  const [cellX, cellY] = [(WIDE - 2 * RIM) / along, (HIGH - 2 * RIM) / rows];
  const scale = Math.min((cellX * 0.86) / long, (cellY * 0.86) / broad);
  return (
    <div className="drawing">
      <svg
        width="100%"
        style={{ maxHeight: 270 }}
        viewBox={`0 0 ${WIDE} ${HIGH + 34}`}
        role="img"
        aria-label={`${many} of ${made.pieces} pieces in the fat at a time, ${made.goes} goes.`}
      >
        <rect width={WIDE} height={HIGH} rx={26} fill="var(--rail)" stroke="var(--quiet)" />
        <rect x={11} y={11} width={WIDE - 22} height={HIGH - 22} rx={18} fill="var(--butter)" />
        {Array.from({ length: many }, (_, n) => (
          <ellipse
            // biome-ignore lint/suspicious/noArrayIndexKey: a place in the pan
            key={n}
            cx={RIM + ((n % along) + 0.5) * cellX}
            cy={RIM + (Math.floor(n / along) + 0.5) * cellY}
            rx={(long * scale) / 2}
            ry={(broad * scale) / 2}
            fill="var(--dough)"
            stroke="var(--crust)"
            strokeWidth={2}
          />
        ))}
        <text x={WIDE / 2} y={HIGH + 26} fontSize={15} textAnchor="middle" fill="var(--ink)">
          {say("temperature", step.fat_c)}, {step.side_s} s a side, {made.goes}{" "}
          {made.goes === 1 ? "go" : "goes"}
        </text>
      </svg>
    </div>
  );
}
