/** Pieces on their tray from above, to scale: as they are shaped, and as large as they get. */
import { useElementSize } from "@mantine/hooks";
import type { Schemas } from "@/api/client";
import { Dimension } from "@/drawings/Dimension";
import { useSaying } from "@/measures/likes";

interface Props {
  on: Schemas["OnTrays"];
  trays: Schemas["WorkedTrays"];
  name: string;
  round: boolean;
}

/** The middles of the pieces on a tray, in rows, spread evenly. */
export function places(on: Schemas["OnTrays"], length: number, width: number) {
  const [along, across] = [Math.max(on.along, 1), Math.max(on.across, 1)];
  const many = on.per_tray > 0 ? Math.min(on.per_tray, along * across) : along * across;
  return Array.from({ length: many }, (_, i) => ({
    x: ((i % along) + 0.5) * (length / along),
    y: (Math.floor(i / along) + 0.5) * (width / across),
  }));
}

export function TrayView({ on, trays, name, round }: Props) {
  const { ref, width: boxWidth, height: boxHeight } = useElementSize();
  const { say } = useSaying();
  const { tray_length_mm: length, tray_width_mm: width } = trays;
  const [wide, high] = [Math.max(boxWidth, 220), Math.max(boxHeight, 220)];
  const scale = Math.min((wide - 110) / length, (high - 80) / width);
  const [x0, y0] = [64 + (wide - 110 - length * scale) / 2, 40];
  const { risen, shaped } = on;
  // Which way round it was laid follows from how many lie along the tray.
  const turned = on.along * (risen.length_mm + 0.01) > length;
  const [rl, rw] = turned ? [risen.width_mm, risen.length_mm] : [risen.length_mm, risen.width_mm];
  const [sl, sw] = turned
    ? [shaped.width_mm, shaped.length_mm]
    : [shaped.length_mm, shaped.width_mm];
  const full = on.per_tray > 0;
  return (
    <div ref={ref} className="drawing" style={{ minHeight: 220 }}>
      <svg
        width="100%"
        height={high}
        viewBox={`0 0 ${wide} ${high}`}
        role="img"
        aria-label={`${on.per_tray} ${name} on a tray of ${length} by ${width} mm, each ${Math.round(risen.length_mm)} by ${Math.round(risen.width_mm)} mm when baked.`}
      >
        <rect
          x={x0}
          y={y0}
          width={length * scale}
          height={width * scale}
          rx={6}
          fill="var(--rail)"
          stroke="var(--quiet)"
          strokeWidth={1.5}
        />
        {full &&
          places(on, length, width).map(({ x, y }) => (
            <g key={`${x} ${y}`} transform={`translate(${x0 + x * scale} ${y0 + y * scale})`}>
              <rect
                x={(-rl / 2) * scale}
                y={(-rw / 2) * scale}
                width={rl * scale}
                height={rw * scale}
                rx={(round ? 0.5 : 0.28) * Math.min(rl, rw) * scale}
                fill="none"
                stroke="var(--crust)"
                strokeDasharray="3 3"
              />
              <rect
                x={(-sl / 2) * scale}
                y={(-sw / 2) * scale}
                width={sl * scale}
                height={sw * scale}
                rx={(round ? 0.5 : 0.28) * Math.min(sl, sw) * scale}
                fill="var(--dough)"
                stroke="var(--dough-edge)"
              />
            </g>
          ))}
        <Dimension from={x0} to={x0 + length * scale} at={y0 - 18} text={say("length", length)} />
        <Dimension
          from={y0}
          to={y0 + width * scale}
          at={x0 - 20}
          text={say("length", width)}
          upright
        />
      </svg>
    </div>
  );
}
