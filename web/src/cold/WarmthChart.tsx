/** The plan's warmth over time: middle, face and butter, with the butter's range as a band. */
import { useElementSize } from "@mantine/hooks";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { type Axis, onAxis, shown } from "./axis";
import classes from "./WarmthChart.module.css";

interface Props {
  warmth: Schemas["WorkedWarmth"];
  names: Map<string, string>;
  /** The moment looked at, minutes from the start. */
  moment: number;
  look: (minute: number) => void;
}

const PAD = { left: 44, right: 12, top: 18, bottom: 36 };
const PLACES: Record<Schemas["Place"], string> = {
  bench: "transparent",
  fridge: "var(--cold-ground)",
  freezer: "color-mix(in srgb, var(--cold) 34%, var(--surface))",
  proofer: "var(--rail)",
};

export function WarmthChart({ warmth, names, moment, look }: Props) {
  const { ref, width, height } = useElementSize();
  const { say, figure } = useSaying();
  const [wide, high] = [Math.max(width, 280), Math.max(height, 200)];
  const { trace, stretches, butter } = warmth;
  const axis: Axis = onAxis(stretches, PAD.left, wide - PAD.right);
  const all = [...trace.middle_c, ...trace.face_c, butter?.plastic_to_c ?? 0, 0];
  const [low, top] = [Math.floor(Math.min(...all) / 5) * 5, Math.ceil(Math.max(...all) / 5) * 5];
  const y = (c: number) =>
    high - PAD.bottom - ((c - low) / (top - low)) * (high - PAD.top - PAD.bottom);
  const line = (of: (number | null)[]) =>
    of
      .map((c, i) =>
        c === null ? "" : `${axis.x(trace.minutes[i] ?? 0).toFixed(1)},${y(c).toFixed(1)}`,
      )
      .filter(Boolean)
      .join(" ");
  const at = shown(trace, moment);
  const here = stretches.find((s) => moment <= s.to_min) ?? stretches.at(-1);
  const butterNow = trace.butter_c[at];
  const riseNow = trace.rise_pct[at];
  const words = here
    ? `${span(Math.round(trace.minutes[at] ?? 0))} after the start, ${here.working ? "work at" : "resting after"} ${names.get(here.stop)}${here.working ? "" : `, ${here.place}`}: middle ${say("temperature", trace.middle_c[at] ?? 0)}, face ${say("temperature", trace.face_c[at] ?? 0)}${butterNow === null || butterNow === undefined ? "" : `, butter ${say("temperature", butterNow)}`}${riseNow ? `, risen ${Math.round(riseNow)} % of a proof` : ""}.`
    : "";
  const go = (e: React.PointerEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    look(axis.minute(e.clientX - box.left));
  };
  // Two stretches meet at one minute: a step always goes to another.
  const step = (forward: boolean) => {
    const here = trace.minutes[at] ?? 0;
    const next = forward
      ? trace.minutes.find((m) => m > here)
      : trace.minutes.findLast((m) => m < here);
    look(next ?? here);
  };
  return (
    <>
      <div className={`drawing ${classes.chart}`} ref={ref}>
        <svg
          width={wide}
          height={high}
          role="img"
          aria-label={`Temperatures over the plan. ${words}`}
          // biome-ignore lint/a11y/noNoninteractiveTabindex: the arrow keys move its moment
          tabIndex={0}
          onKeyDown={(e) => {
            if (e.key === "ArrowRight") step(true);
            if (e.key === "ArrowLeft") step(false);
          }}
          onPointerDown={go}
          onPointerMove={(e) => (e.pointerType === "mouse" || e.buttons ? go(e) : undefined)}
        >
          {stretches.map((s) => (
            <rect
              key={`${s.from_min} ${s.place}`}
              x={axis.x(s.from_min)}
              y={PAD.top}
              width={Math.max(axis.x(s.to_min) - axis.x(s.from_min), 0)}
              height={high - PAD.top - PAD.bottom}
              fill={PLACES[s.place]}
            />
          ))}
          {butter && (
            <g>
              <rect
                x={PAD.left}
                y={y(butter.plastic_to_c)}
                width={wide - PAD.left - PAD.right}
                height={y(butter.plastic_from_c) - y(butter.plastic_to_c)}
                fill="var(--butter)"
                opacity={0.34}
              />
              <path
                d={`M${PAD.left},${y(butter.brittle_c)} H${wide - PAD.right}`}
                stroke="var(--butter-edge)"
                strokeDasharray="2 4"
              />
              <text x={PAD.left + 6} y={y(butter.plastic_to_c) + 14} className={classes.note}>
                butter works
              </text>
              <text x={PAD.left + 6} y={y(butter.brittle_c) + 14} className={classes.note}>
                brittle
              </text>
            </g>
          )}
          {Array.from({ length: (top - low) / 5 + 1 }, (_, i) => low + 5 * i).map((c) => (
            <g key={c}>
              <path d={`M${PAD.left},${y(c)} h-5`} stroke="var(--quiet)" />
              <text x={PAD.left - 9} y={y(c) + 4} textAnchor="end" className={classes.tick}>
                {figure("temperature", c)}
              </text>
            </g>
          ))}
          {axis.labels.map((l) => (
            <text key={l.stop} x={l.x} y={high - 18} textAnchor="middle" className={classes.tick}>
              {names.get(l.stop)}
            </text>
          ))}
          <polyline points={line(trace.face_c)} className={classes.face} />
          <polyline
            points={line(trace.butter_c.map((c) => c ?? null))}
            className={classes.butter}
          />
          <polyline points={line(trace.middle_c)} className={classes.middle} />
          <g pointerEvents="none">
            <path
              d={`M${axis.x(trace.minutes[at] ?? 0)},${PAD.top} V${high - PAD.bottom}`}
              stroke="var(--ink)"
            />
            <circle
              cx={axis.x(trace.minutes[at] ?? 0)}
              cy={y(trace.middle_c[at] ?? 0)}
              r={5}
              fill="var(--surface)"
              stroke="var(--ink)"
              strokeWidth={2}
            />
          </g>
          <path
            d={`M${PAD.left},${high - PAD.bottom} H${wide - PAD.right}`}
            stroke="var(--quiet)"
          />
        </svg>
      </div>
      <p className={classes.said}>{words}</p>
      <p className={classes.legend}>
        <i className={classes.keyMiddle} /> middle <i className={classes.keyFace} /> face{" "}
        <i className={classes.keyButter} /> butter · long rests are drawn shorter
      </p>
    </>
  );
}
