/** A sheet rolled up, from its end and from the side, to scale. */
import { useElementSize } from "@mantine/hooks";
import { useSaying } from "@/measures/likes";
import { Dimension } from "./Dimension";

interface Props {
  length_mm: number;
  diameter_mm: number;
  rounds: number;
  core_mm: number;
  /** Slices along the coil, mm from its end; none while it is not sliced. */
  cuts?: number[];
}

/** A spiral of so many rounds, from the core out, as a path round (cx, cy). */
export function spiral(cx: number, cy: number, core: number, radius: number, rounds: number) {
  const steps = Math.max(Math.ceil(rounds * 40), 2);
  const points = Array.from({ length: steps + 1 }, (_, i) => {
    const share = i / steps;
    const r = core + (radius - core) * share;
    const angle = 2 * Math.PI * rounds * share - Math.PI / 2;
    return `${(cx + r * Math.cos(angle)).toFixed(1)},${(cy + r * Math.sin(angle)).toFixed(1)}`;
  });
  return `M${points.join("L")}`;
}

export function CoilDrawn({ length_mm, diameter_mm, rounds, core_mm, cuts = [] }: Props) {
  const { ref, width, height } = useElementSize();
  const { say } = useSaying();
  const [wide, high] = [Math.max(width, 300), Math.max(height, 220)];
  const end = Math.min(high - 110, wide * 0.28, 190);
  const radius = end / 2;
  const thick = radius / Math.max(rounds, 1);
  const middle = high / 2 - 6;
  const cx = 40 + radius;
  const from = cx + radius + 90;
  const scale = Math.min((wide - from - 30) / length_mm, end / diameter_mm);
  const [long, tall] = [length_mm * scale, diameter_mm * scale];
  return (
    <div className="drawing" ref={ref} style={{ minHeight: 220 }}>
      <svg
        width="100%"
        height={high}
        viewBox={`0 0 ${wide} ${high}`}
        role="img"
        aria-label={`A coil ${Math.round(diameter_mm)} mm through and ${Math.round(length_mm)} mm long, ${rounds.toFixed(1)} times round.`}
      >
        <circle cx={cx} cy={middle} r={radius} fill="var(--dough)" stroke="var(--dough-edge)" />
        <path
          d={spiral(cx, middle, (core_mm / diameter_mm) * radius, radius - thick / 2, rounds)}
          fill="none"
          stroke="var(--butter-edge)"
          strokeWidth={Math.max(1, thick * 0.18)}
        />
        <text x={cx} y={middle + radius + 46} textAnchor="middle" fontSize={13} fill="var(--quiet)">
          from its end
        </text>
        <Dimension
          from={cx - radius}
          to={cx + radius}
          at={middle + radius + 20}
          text={say("length", Math.round(diameter_mm))}
          small
        />
        <rect
          x={from}
          y={middle - tall / 2}
          width={long}
          height={tall}
          rx={Math.min(tall / 2, 10)}
          fill="var(--dough)"
          stroke="var(--dough-edge)"
        />
        {cuts.map((at) => (
          <path
            key={at}
            d={`M${from + at * scale},${middle - tall / 2 - 5} v${tall + 10}`}
            stroke="var(--ink)"
            strokeWidth={0.9}
          />
        ))}
        <Dimension
          from={from}
          to={from + long}
          at={middle - tall / 2 - 22}
          text={say("length", Math.round(length_mm))}
        />
      </svg>
    </div>
  );
}
