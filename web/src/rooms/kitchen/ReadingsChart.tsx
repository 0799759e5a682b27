/** Readings of a rest, with the model before and after it learned from them. */
import { useElementSize } from "@mantine/hooks";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";

interface Props {
  readings: Schemas["ProbeReading"][];
  fit?: Schemas["Fit"];
}

const HIGH = 240;

export function ReadingsChart({ readings, fit }: Props) {
  const { ref, width } = useElementSize();
  const { figure, say } = useSaying();
  const wide = Math.max(width, 280);
  const last = Math.max(...readings.map((r) => r.minute), 75);
  const temperatures = readings.map((r) => r.t_c);
  const [low, top] = [
    Math.floor(Math.min(...temperatures, 4) / 5) * 5,
    Math.ceil(Math.max(...temperatures) / 5) * 5,
  ];
  const x = (minute: number) => 48 + (minute / last) * (wide - 64);
  const y = (c: number) => 14 + ((top - c) / (top - low)) * (HIGH - 50);
  const left = new Set(fit?.left_out);
  const line = (of: number[]) =>
    of.map((c, i) => `${x(fit?.minutes[i] ?? 0).toFixed(1)},${y(c).toFixed(1)}`).join(" ");
  const first = readings[0];
  const end = readings.at(-1);
  const words =
    first && end
      ? `From ${say("temperature", first.t_c)} to ${say("temperature", end.t_c)} in ${Math.round(end.minute)} minutes.`
      : "";
  return (
    <div ref={ref}>
      <svg width={wide} height={HIGH} role="img" aria-label={`Readings of the probe. ${words}`}>
        {Array.from({ length: (top - low) / 5 + 1 }, (_, i) => low + 5 * i).map((c) => (
          <g key={c}>
            <path d={`M48,${y(c)} H${wide - 16}`} stroke="var(--line)" />
            <text x={40} y={y(c) + 4} textAnchor="end" fontSize={12} fill="var(--quiet)">
              {figure("temperature", c)}
            </text>
          </g>
        ))}
        {[0, 15, 30, 45, 60, 75].map((minute) => (
          <text
            key={minute}
            x={x(minute)}
            y={HIGH - 14}
            textAnchor="middle"
            fontSize={12}
            fill="var(--quiet)"
          >
            {minute} min
          </text>
        ))}
        {fit && (
          <>
            <polyline
              points={line(fit.before_c)}
              fill="none"
              stroke="var(--quiet)"
              strokeDasharray="6 5"
              strokeWidth={1.6}
            />
            <polyline
              points={line(fit.after_c)}
              fill="none"
              stroke="var(--crust)"
              strokeWidth={2.4}
            />
            <text
              x={x(last * 0.56)}
              y={y(fit.before_c[34] ?? 0) - 8}
              fontSize={12.5}
              fill="var(--quiet)"
            >
              before
            </text>
            <text
              x={x(last * 0.42)}
              y={y(fit.after_c[26] ?? 0) + 20}
              fontSize={12.5}
              fill="var(--crust)"
            >
              after
            </text>
          </>
        )}
        {readings.map((r, i) =>
          left.has(i) ? (
            <path
              key={r.minute}
              d={`M${x(r.minute) - 4},${y(r.t_c) - 4} l8,8 m0,-8 l-8,8`}
              stroke="var(--mind)"
              strokeWidth={1.8}
            />
          ) : (
            <circle key={r.minute} cx={x(r.minute)} cy={y(r.t_c)} r={2.8} fill="var(--cold)" />
          ),
        )}
      </svg>
    </div>
  );
}
