/** Temperatures as they were entered, over the time of the run: one line for each thing measured. */
import { useElementSize } from "@mantine/hooks";
import type { Schemas } from "@/api/client";
import type { RunView } from "@/api/runs";
import { clock } from "@/app/time";
import { useSaying } from "@/measures/likes";

const SERIES: { probe: Schemas["Probe"]; color: string; dashes?: string }[] = [
  { probe: "dough", color: "var(--crust)" },
  { probe: "butter", color: "#a87c05", dashes: "7 4" },
  { probe: "room", color: "var(--cold)", dashes: "2 4" },
];
const HIGH = 220;
const PAD = { left: 52, right: 14, top: 26, bottom: 26 };
const STEP_C = 5;

/** A handful of times, far enough apart to be read. */
export function ticks(from: number, to: number, most: number): number[] {
  if (from === to) return [from];
  const few = Math.max(most, 2);
  return Array.from({ length: few }, (_, i) => from + ((to - from) * i) / (few - 1));
}

export function TemperatureChart({ run }: { run: RunView }) {
  const { ref, width } = useElementSize();
  const { say, figure } = useSaying();
  const readings = [...run.standing.readings].sort((a, b) => a.at.localeCompare(b.at));
  if (readings.length === 0) {
    return <p className="quiet">No temperature was entered in this run.</p>;
  }
  const wide = Math.max(width, 280);
  const times = readings.map((r) => Date.parse(r.at));
  const [from, to] = [Math.min(...times), Math.max(...times)];
  const all = readings.map((r) => r.value_c);
  const low = Math.floor(Math.min(...all) / STEP_C) * STEP_C;
  const top = Math.ceil((Math.max(...all) + 0.1) / STEP_C) * STEP_C;
  const x = (at: number) =>
    PAD.left + ((at - from) / Math.max(to - from, 1)) * (wide - PAD.left - PAD.right);
  const y = (c: number) => PAD.top + ((top - c) / (top - low)) * (HIGH - PAD.top - PAD.bottom);
  const spoken = readings.map((r) => `${clock(r.at)} ${r.probe} ${say("temperature", r.value_c)}`);
  const levels = Array.from({ length: (top - low) / STEP_C + 1 }, (_, i) => low + STEP_C * i);
  return (
    <div ref={ref}>
      <svg
        width={wide}
        height={HIGH}
        role="img"
        aria-label={`Temperatures: ${spoken.join("; ")}.`}
        fontSize={12}
      >
        {levels.map((c) => (
          <g key={c}>
            <path d={`M${PAD.left},${y(c)} H${wide - PAD.right}`} stroke="var(--line)" />
            <text x={PAD.left - 8} y={y(c) + 4} textAnchor="end" fill="var(--quiet)">
              {figure("temperature", c)}
            </text>
          </g>
        ))}
        {ticks(from, to, Math.floor(wide / 90)).map((at, i, of) => (
          <text
            key={at}
            x={x(at)}
            y={HIGH - 6}
            textAnchor={i === 0 ? "start" : i === of.length - 1 ? "end" : "middle"}
            fill="var(--quiet)"
          >
            {clock(at)}
          </text>
        ))}
        {SERIES.map(({ probe, color, dashes }, n) => {
          const mine = readings.filter((r) => r.probe === probe);
          const points = mine.map((r) => `${x(Date.parse(r.at))},${y(r.value_c)}`).join(" ");
          return (
            <g key={probe} stroke={color} fill="none" strokeWidth={2}>
              <polyline points={points} strokeDasharray={dashes} />
              {mine.map((r) => (
                <circle
                  key={r.event_id}
                  cx={x(Date.parse(r.at))}
                  cy={y(r.value_c)}
                  r={3.6}
                  fill="var(--surface)"
                />
              ))}
              <path d={`M${PAD.left + n * 90},10 h24`} strokeDasharray={dashes} />
              <text x={PAD.left + n * 90 + 30} y={14} fill="var(--ink)" stroke="none">
                {probe}
              </text>
            </g>
          );
        })}
      </svg>
    </div>
  );
}
