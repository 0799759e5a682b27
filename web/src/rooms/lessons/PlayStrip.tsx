/** Two plays over one another: each a line that dips into the cold, deeper for colder, along one time. */
import { useElementSize } from "@mantine/hooks";
import type { Schemas } from "@/api/client";
import { span } from "@/measures/quantity";
import { DEPTH } from "@/steps/Strip";
import classes from "./PlayStrip.module.css";
import { playLine } from "./play";

type Stretches = Schemas["Stretch"][];
const LEFT = 92;
const ROW = 84;

/** From where the two differ: nights before the lock-in take no room. */
function fromOf(mine: Stretches, best: Stretches | null): number {
  if (!best) return mine.find((s) => s.working)?.from_min ?? 0;
  const at = mine.findIndex((s, n) => {
    const other = best[n];
    return !other || other.place !== s.place || Math.abs(other.to_min - s.to_min) > 0.5;
  });
  const first = Math.max(at - 2, 0);
  return mine[first]?.from_min ?? 0;
}

interface Props {
  mine: Stretches;
  best: Stretches | null;
  name?: string;
}

export function PlayStrip({ mine, best, name = "Yours" }: Props) {
  const { ref, width } = useElementSize();
  const from = fromOf(mine, best);
  const shown = (all: Stretches) => all.filter((s) => s.to_min > from);
  const until = Math.max(...[...mine, ...(best ?? [])].map((s) => s.to_min), from + 1);
  const wide = Math.max(width, 320);
  const x = (minute: number) =>
    LEFT + ((wide - LEFT - 12) * (Math.max(minute, from) - from)) / (until - from);
  const rows: [string, Stretches][] = [[name, mine]];
  if (best) rows.push(["The best play", best]);
  const words = rows
    .map(
      ([of, all]) =>
        `${of}: ${shown(all)
          .filter((s) => !s.working && s.to_min - s.from_min > 1)
          .map((s) => `${span(Math.round(s.to_min - s.from_min))} ${s.place}`)
          .join(", ")}`,
    )
    .join(". ");
  return (
    <div ref={ref} className={classes.strip}>
      <svg width={wide} height={rows.length * ROW + 8} role="img" aria-label={words}>
        {rows.map(([of, all], n) => (
          <g key={of} transform={`translate(0 ${n * ROW + 16})`}>
            <text x={0} y={4} className={classes.stripName}>
              {of}
            </text>
            <path
              d={playLine(shown(all), DEPTH, x)}
              fill="none"
              stroke="var(--cold)"
              strokeWidth={2.5}
            />
            {shown(all)
              .filter((s) => !s.working && x(s.to_min) - x(s.from_min) > 34)
              .map((s) => (
                <text
                  key={s.from_min}
                  x={(x(s.from_min) + x(s.to_min)) / 2}
                  y={DEPTH[s.place] + 15}
                  textAnchor="middle"
                  className={classes.stripMin}
                >
                  {span(Math.round(s.to_min - s.from_min))}
                </text>
              ))}
          </g>
        ))}
      </svg>
    </div>
  );
}
