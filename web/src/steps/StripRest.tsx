/** A rest under the strip's line: how long, where, and when it may end; its marks, while it is held. */
import type { Schemas } from "@/api/client";
import type { Stop } from "@/api/steps";
import type { Grip } from "@/drawings/hands";
import { useLit } from "@/measures/faults";
import { span } from "@/measures/quantity";
import classes from "./Strip.module.css";
import type { Place, Stay } from "./stays";
import { windowWords } from "./windows";

interface Props {
  stop: Stop;
  /** Where its dip lies, how deep, and its ledges. */
  middle: number;
  half: number;
  depth: number;
  ledges: { stay: Stay; from: number; to: number; depth: number }[];
  /** A hand is changing it: what it says is said at the hand. */
  held: boolean;
  window?: Schemas["RestWindow"];
}

const tint = (place: Place | undefined) => (place === "proofer" ? "var(--crust)" : "var(--cold)");
const LETTER = 6.2; // px a letter of a place's name takes

export function StripRest({ stop, middle, half, depth, ledges, held, window }: Props) {
  const lit = useLit(`steps[${stop.n}].rest.stays[${stop.gives}].minutes`);
  const { rest } = stop;
  if (!rest) return null;
  const shallow = depth < 30;
  const several = ledges.length > 1;
  const names = ledges.map((l) => l.stay.place).join(", ");
  const narrow = several && names.length * LETTER > 2 * half + 24;
  // more than two: their minutes stand in a row below, clear of all slopes
  const many = ledges.length > 2;
  const under = depth + (many ? 27 : shallow ? 36 : 18);
  return (
    <g textAnchor="middle" fill={tint(ledges.at(-1)?.stay.place)}>
      {lit && (
        <path className={classes.lit} data-lit d={`M${middle - half},${depth + 3} h${2 * half}`} />
      )}
      {!held && (
        <>
          {ledges.map(({ stay, from, to, depth: deep }, n) => (
            <text
              // biome-ignore lint/suspicious/noArrayIndexKey: a stay is where it stands in the rest
              key={n}
              data-stay={stay.place}
              fill={tint(stay.place)}
              // clear of the slopes at both ends
              x={
                (from + to) / 2 +
                (several && !many ? (n === 0 ? 4 : n + 1 === ledges.length ? -5 : 0) : 0)
              }
              y={many ? depth + 13 : deep < 30 ? deep + (several ? 14 : 20) : deep - 6}
              fontSize={many ? 10.5 : several ? 12 : 13.5}
              fontWeight={700}
            >
              {span(stay.minutes)}
            </text>
          ))}
          <text x={middle} y={under} fontSize={narrow ? 10.5 : 12.5}>
            {names}
          </text>
          <WindowText window={window} x={middle} y={under + 16} />
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
