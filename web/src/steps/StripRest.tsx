/** A rest under the strip's line: how long, where, and when it may end; its marks, while it is held. */
import type { Schemas } from "@/api/client";
import type { Stop } from "@/api/steps";
import type { Grip } from "@/drawings/hands";
import { useLit } from "@/measures/faults";
import { span } from "@/measures/quantity";
import classes from "./Strip.module.css";
import { windowWords } from "./windows";

interface Props {
  stop: Stop;
  /** Where its dip lies, and how deep. */
  middle: number;
  half: number;
  depth: number;
  /** A hand is changing it: what it says is said at the hand. */
  held: boolean;
  window?: Schemas["RestWindow"];
}

export function StripRest({ stop, middle, half, depth, held, window }: Props) {
  const lit = useLit(`steps[${stop.n}].rest.minutes`);
  const { rest } = stop;
  if (!rest) return null;
  const shallow = depth < 30;
  return (
    <g textAnchor="middle" fill={rest.place === "proofer" ? "var(--crust)" : "var(--cold)"}>
      {lit && (
        <path className={classes.lit} data-lit d={`M${middle - half},${depth + 3} h${2 * half}`} />
      )}
      {!held && (
        <>
          <text x={middle} y={shallow ? depth + 20 : depth - 6} fontSize={13.5} fontWeight={700}>
            {span(rest.minutes)}
          </text>
          <text x={middle} y={depth + (shallow ? 36 : 18)} fontSize={12.5}>
            {rest.first ? `${rest.first.place}, ` : ""}
            {rest.place}
          </text>
          <WindowText window={window} x={middle} y={depth + (shallow ? 52 : 34)} />
        </>
      )}
    </g>
  );
}

function WindowText({ window: w, x, y }: { window?: Schemas["RestWindow"]; x: number; y: number }) {
  const said = w && windowWords(w);
  if (!said?.text) return null;
  return (
    <text
      x={x}
      y={y}
      fontSize={11.5}
      fontWeight={said.off ? 700 : 400}
      fill={said.off ? "var(--mind)" : "var(--cold)"}
    >
      {said.text}
    </text>
  );
}

/** The four marks of a rest, under the hand that changes it. */
export function Marks({ grip, y }: { grip: Grip; y: number }) {
  const stops = grip.stops ?? [];
  const [from, to] = [stops.at(0), stops.at(-1)];
  return (
    <g>
      {from && to && (
        <path
          d={`M${grip.at(from.at)},${y} H${grip.at(to.at)}`}
          stroke="var(--cold)"
          opacity={0.5}
        />
      )}
      {stops.map((mark, i) => (
        <g key={mark.said}>
          <path
            d={`M${grip.at(mark.at)},${y - 7} v14`}
            stroke="var(--cold)"
            strokeWidth={mark.said.startsWith("good") ? 3 : 1.2}
          />
          <text
            x={grip.at(mark.at)}
            y={y + (i % 2 ? 34 : 20)}
            fontSize={12}
            textAnchor="middle"
            fill="var(--cold)"
          >
            {mark.said}
          </text>
        </g>
      ))}
    </g>
  );
}
