/** The bake over time: the oven's heat in steps, steam, the turn of the tray, and when it is done. */
import { useElementSize } from "@mantine/hooks";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import classes from "./Finish.module.css";

/** Where each stage begins and ends, minutes. */
export function stretched(stages: Schemas["Stage"][]) {
  let at = 0;
  return stages.map((stage) => {
    const from = at;
    at += stage.minutes;
    return { ...stage, from, to: at };
  });
}

export function BakeCurve({ bake, loads }: { bake: Schemas["Bake"]; loads: number }) {
  const { ref, width, height } = useElementSize();
  const { say } = useSaying();
  const [wide, high] = [Math.max(width, 280), Math.max(height, 200)];
  const steps = stretched(bake.stages);
  const whole = steps.at(-1)?.to ?? 1;
  const heats = steps.map((s) => s.oven_c);
  const [low, top] = [Math.min(...heats) - 40, Math.max(...heats) + 20];
  const x = (min: number) => 56 + (min / whole) * (wide - 80);
  const y = (c: number) => 26 + ((top - c) / (top - low)) * (high - 76);
  const half = steps.find((s) => s.to >= whole / 2);
  const line = steps.map((s) => `H${x(s.from)} V${y(s.oven_c)} H${x(s.to)}`).join(" ");
  const said = steps.map(
    (s) => `${span(s.minutes)} at ${say("temperature", s.oven_c)}${s.steam ? " with steam" : ""}`,
  );
  return (
    <>
      <div className="drawing" ref={ref}>
        <svg
          width={wide}
          height={high}
          role="img"
          aria-label={`Bake in a ${bake.oven} oven: ${said.join(", then ")}.`}
        >
          {steps.map((s) => (
            <g key={s.from}>
              <rect
                x={x(s.from)}
                y={y(s.oven_c)}
                width={x(s.to) - x(s.from)}
                height={high - 50 - y(s.oven_c)}
                fill="var(--crust)"
                opacity={0.1 + (0.16 * (s.oven_c - low)) / (top - low)}
              />
              {s.steam && (
                <path
                  d={`M${x(s.from) + 12},${high - 60} q6,-9 0,-18 q-6,-9 0,-18 M${x(s.from) + 24},${high - 60} q6,-9 0,-18 q-6,-9 0,-18`}
                  fill="none"
                  stroke="var(--cold)"
                  strokeWidth={2}
                />
              )}
              <text
                x={(x(s.from) + x(s.to)) / 2}
                y={y(s.oven_c) - 8}
                textAnchor="middle"
                className={classes.heat}
              >
                {say("temperature", s.oven_c)}
              </text>
              <text x={x(s.to)} y={high - 32} textAnchor="middle" className={classes.tick}>
                {span(s.to)}
              </text>
            </g>
          ))}
          <path
            d={`M${x(0)},${y(steps[0]?.oven_c ?? 0)} ${line}`}
            fill="none"
            stroke="var(--crust)"
            strokeWidth={2.5}
          />
          {bake.turn_tray && (
            <g>
              <path
                d={`M${x(whole / 2)},${y(half?.oven_c ?? top) + 4} V${high - 50}`}
                stroke="var(--ink)"
                strokeDasharray="4 4"
              />
              <text x={x(whole / 2) + 6} y={high - 56} className={classes.tick}>
                turn the tray
              </text>
            </g>
          )}
          <path d={`M56,${high - 50} H${wide - 24}`} stroke="var(--quiet)" />
        </svg>
      </div>
      <p className={classes.said}>
        {said.join(", then ")}
        {loads > 1 && `; ${loads} loads, ${span(loads * whole)} in all`}.
      </p>
    </>
  );
}
