/** Pieces as they lie along the sheet, each by its weight; the target with what it may be off. */
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import classes from "./PieceWeights.module.css";

interface Props {
  grams: number[];
  target: number;
  judged?: Schemas["Weighed"];
}

/** The range the chart shows: all the weights and the limits, with a little air. */
export function reach(grams: number[], limits: number[]): [number, number] {
  const low = Math.min(...limits, ...grams);
  const high = Math.max(...limits, ...grams);
  const air = Math.max((high - low) * 0.12, 0.5);
  return [low - air, high + air];
}

export function WeightChart({ grams, target, judged }: Props) {
  const { say, figure } = useSaying();
  const [wide, high] = [400, 170];
  const { lowest_g = target, highest_g = target } = judged ?? {};
  const limits = [lowest_g, target, highest_g];
  const [low, top] = reach(grams, limits);
  const x = (i: number) => 52 + ((i + 0.5) / Math.max(grams.length, 6)) * (wide - 64);
  const y = (g: number) => 12 + ((top - g) / (top - low)) * (high - 34);
  const out = new Set(judged?.out);
  const last = grams.length - 1;
  return (
    <svg
      viewBox={`0 0 ${wide} ${high}`}
      width="100%"
      role="img"
      aria-label={
        grams.length
          ? `${grams.length} pieces along the sheet, ${say("mass", judged?.mean_g ?? target)} on average, aimed at ${say("mass", target)}.`
          : `No piece weighed yet; wanted ${say("mass", target)}.`
      }
    >
      <rect
        x={46}
        y={y(highest_g)}
        width={wide - 52}
        height={y(lowest_g) - y(highest_g)}
        fill="var(--line)"
        opacity={0.55}
      />
      <path d={`M46,${y(target)} H${wide - 6}`} stroke="var(--quiet)" strokeDasharray="4 4" />
      {[...new Set(limits)].map((g) => (
        <text key={g} x={40} y={y(g) + 4} textAnchor="end" className={classes.tick}>
          {figure("mass", Math.round(10 * g) / 10)}
        </text>
      ))}
      {judged?.drifts && last > 0 && (
        <path
          d={`M${x(0)},${y(judged.first_g)} L${x(last)},${y(judged.last_g)}`}
          stroke="var(--crust)"
          strokeWidth={2}
        />
      )}
      {grams.map((g, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no identity but their place
        <g key={i} transform={`translate(${x(i)} ${y(g)})`}>
          {out.has(i) ? (
            <path d="M-5,-5 L5,5 M5,-5 L-5,5" stroke="var(--mind)" strokeWidth={2.4} />
          ) : (
            <circle r={4.2} fill="var(--dough)" stroke="var(--ink)" strokeWidth={1.3} />
          )}
        </g>
      ))}
      <text x={46} y={high - 4} className={classes.tick}>
        first along the sheet
      </text>
      <text x={wide - 6} y={high - 4} textAnchor="end" className={classes.tick}>
        last
      </text>
    </svg>
  );
}
