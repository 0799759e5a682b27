/** The fold as it happens: from the rolled sheet to the package that is rolled next. */
import { ActionIcon, Slider } from "@mantine/core";
import { useElementSize, useReducedMotion } from "@mantine/hooks";
import { IconPlayerPause, IconPlayerPlay } from "@tabler/icons-react";
import { useEffect, useState } from "react";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import classes from "./Folding.module.css";
import { type Panel, panelsAt } from "./foldings";

interface Props {
  step: Schemas["TurnFigures"];
  stacked: boolean;
}

const COMES: Record<Schemas["Fold"], string[]> = {
  half: ["The far half comes over"],
  letter: ["The far third comes over", "The near third on top"],
  book: ["The far end to the middle", "The near end meets it", "Shut it like a book"],
  offset_book: ["The far end to the seam", "The near end meets it", "Shut it, off the seam"],
};
const LAID = ["The second piece on the first", "The third on top", "The fourth on top"];
const MS_PER_MOVE = 1300;
const DEPTH = { x: 0.3, y: 0.34 };
// A flap on its way is drawn lower than it stands, so that the sheet may be drawn larger.
const RISES = 0.34;

/** A cut and stacked fold as panels: each piece is lifted, carried and laid. */
function stackedAt(length: number, pieces: number, done: number): Panel[] {
  const each = length / pieces;
  return Array.from({ length: pieces }, (_, i) => {
    const part = Math.min(Math.max(done - (i - 1), 0), 1);
    const x = i === 0 ? 0 : i * each * (1 - part);
    const z = i === 0 ? 0 : i * part + Math.sin(part * Math.PI) * 4;
    return { from: { x, z }, to: { x: x + each, z }, over: false };
  });
}

/** How far a fold has come, from 0 to `last`; it moves by itself, or in steps for those who wish. */
function usePlaying(last: number) {
  const still = useReducedMotion();
  const [at, setAt] = useState(0);
  const [playing, setPlaying] = useState(false);
  useEffect(() => {
    if (!playing) return;
    const on = (by: number) => setAt((was) => Math.min(was + by, last));
    if (still) {
      const steps = setInterval(() => on(1), MS_PER_MOVE);
      return () => clearInterval(steps);
    }
    let before: number | null = null;
    let frame = requestAnimationFrame(function tick(now) {
      on((now - (before ?? now)) / MS_PER_MOVE);
      before = now;
      frame = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, still, last]);
  useEffect(() => {
    if (at >= last) setPlaying(false);
  }, [at, last]);
  return {
    at,
    playing,
    go: (to: number) => {
      setPlaying(false);
      setAt(to);
    },
    play: () => {
      if (!playing) setAt(at >= last ? 0 : still ? Math.floor(at) : at);
      setPlaying(!playing);
    },
  };
}

/** What is done, move by move, from the rolled sheet to the package turned. */
function useCaptions({ step, stacked }: Props) {
  const { say } = useSaying();
  const count = stacked ? step.creases_mm.length : step.moves.length;
  return [
    `Rolled: ${say("length", Math.round(step.rolled.length_mm))} long`,
    ...(stacked ? LAID : COMES[step.fold]).slice(0, count),
    "A quarter turn: roll on towards the open ends",
  ];
}

/** The fold in stills, for paper. */
export function FoldStills(props: Props) {
  return (
    <ol className={classes.stills}>
      {useCaptions(props).map((caption, i) => (
        <li key={caption}>
          <Still {...props} at={i} wide={128} high={62} small />
          <span>{caption}</span>
        </li>
      ))}
    </ol>
  );
}

export function Folding({ step, stacked }: Props) {
  const { ref, width, height } = useElementSize();
  const { fold } = useSaying();
  const captions = useCaptions({ step, stacked });
  const last = captions.length - 1;
  const { at, playing, go, play } = usePlaying(last);
  return (
    <>
      <div
        className={`drawing ${classes.stage}`}
        ref={ref}
        role="img"
        aria-label={`${fold(step.fold)}${stacked ? ", cut and stacked" : ""}: ${captions.join("; ")}.`}
      >
        <Still step={step} stacked={stacked} at={at} wide={width} high={height} />
      </div>
      <div className={classes.bar}>
        <ActionIcon
          variant="default"
          size={44}
          aria-label={playing ? "Pause the fold" : "Play the fold"}
          onClick={play}
        >
          {playing ? <IconPlayerPause size={20} /> : <IconPlayerPlay size={20} />}
        </ActionIcon>
        <Slider
          className={classes.slider}
          min={0}
          max={last}
          step={0.02}
          value={at}
          label={null}
          marks={captions.map((_, value) => ({ value }))}
          thumbLabel="How far the fold has come"
          onChange={go}
        />
      </div>
      <ol className={classes.stills}>
        {captions.map((caption, i) => (
          <li key={caption}>
            <button type="button" aria-pressed={at === i} onClick={() => go(i)}>
              <Still step={step} stacked={stacked} at={i} wide={128} high={62} small />
              <span>{caption}</span>
            </button>
          </li>
        ))}
      </ol>
    </>
  );
}

interface StillProps extends Props {
  at: number;
  wide: number;
  high: number;
  small?: boolean;
}

function Still({ step, stacked, at, wide, high, small }: StillProps) {
  const { length_mm: length, width_mm: depth } = step.rolled;
  const moves = stacked ? step.creases_mm.length : step.moves.length;
  if (!wide || !high) return null;
  // A flap may stand upright: as much room above as the longest of them is long.
  const edges = [0, ...step.creases_mm, length];
  const longest = Math.max(...step.creases_mm.map((c) => Math.min(c, length - c)), 0);
  const tall = stacked ? length * 0.12 : longest * RISES;
  const pad = small ? 6 : 26;
  const scale = Math.min(
    (wide - 2 * pad) / (length + depth * DEPTH.x),
    (high - 2 * pad) / (depth * DEPTH.y + Math.max(tall, length * 0.08)),
  );
  const leaf = (small ? 4.6 : 11) / scale;
  const origin = {
    x: (wide - (length + depth * DEPTH.x) * scale) / 2,
    y: high - pad - (small ? 2 : 4),
  };
  if (at > moves) return <Turned {...{ step, moves, wide, high, small }} turn={at - moves} />;
  const panels = stacked
    ? stackedAt(length, edges.length - 1, at)
    : panelsAt(length, step.creases_mm, step.moves, at, leaf);
  const risen = (z: number) => {
    const high = z * leaf;
    const lying = (moves + 1) * leaf;
    return high <= lying ? high : lying + (high - lying) * RISES;
  };
  const point = (p: { x: number; z: number }, back: boolean) =>
    `${(origin.x + (p.x + (back ? depth * DEPTH.x : 0)) * scale).toFixed(1)},${(origin.y - (risen(p.z) + (back ? depth * DEPTH.y : 0)) * scale).toFixed(1)}`;
  const order = [...panels].sort((a, b) => a.from.z + a.to.z - b.from.z - b.to.z);
  const front = stacked
    ? panels.map((p) => `M${point(p.from, false)}L${point(p.to, false)}`)
    : [`M${panels.flatMap((p) => [point(p.from, false), point(p.to, false)]).join("L")}`];
  const thick = leaf * scale * 0.86;
  return (
    <svg width={wide} height={high} viewBox={`0 0 ${wide} ${high}`} aria-hidden="true">
      {order.map((p) => (
        <polygon
          key={`${p.from.x} ${p.from.z} ${p.to.x}`}
          points={[
            point(p.from, false),
            point(p.to, false),
            point(p.to, true),
            point(p.from, true),
          ].join(" ")}
          fill={p.over ? "color-mix(in srgb, var(--dough) 82%, var(--dough-edge))" : "var(--dough)"}
          stroke="var(--dough-edge)"
          strokeWidth={small ? 0.6 : 1}
          strokeLinejoin="round"
        />
      ))}
      {front.map((d) => (
        <g key={d} fill="none" strokeLinejoin="round" strokeLinecap="butt">
          <path d={d} stroke="var(--dough-edge)" strokeWidth={thick} />
          <path d={d} stroke="var(--dough)" strokeWidth={thick - (small ? 1 : 2)} />
          <path d={d} stroke="var(--butter)" strokeWidth={thick * 0.26} />
        </g>
      ))}
    </svg>
  );
}

/** The package after its quarter turn: open ends left and right, the next roll along them. */
function Turned({
  step,
  moves,
  turn,
  wide,
  high,
  small,
}: {
  step: Schemas["TurnFigures"];
  moves: number;
  turn: number;
  wide: number;
  high: number;
  small?: boolean;
}) {
  const { say } = useSaying();
  const { length_mm: depth, width_mm: length } = step.folded;
  const levels = moves + 1;
  const pad = small ? 14 : 44;
  const scale = Math.min(
    (wide - 2 * pad - (small ? 16 : 80)) / (length + depth * DEPTH.x),
    (high - 2 * pad) / (depth * DEPTH.y + length * 0.12),
  );
  const h = levels * (small ? 4 : 10);
  const [dx, dy] = [depth * DEPTH.x * scale, depth * DEPTH.y * scale];
  const w = length * scale;
  const x = (wide - w - dx) / 2;
  const y = high / 2 + (dy + h) / 2;
  const r = Math.min(h / 2, 10);
  return (
    <svg
      width={wide}
      height={high}
      viewBox={`0 0 ${wide} ${high}`}
      aria-hidden="true"
      opacity={0.25 + 0.75 * Math.min(turn, 1)}
    >
      <defs>
        <marker
          id="rollOn"
          viewBox="0 0 8 8"
          refX="6"
          refY="4"
          markerWidth="9"
          markerHeight="9"
          orient="auto-start-reverse"
        >
          <path d="M0,0 L8,4 L0,8" fill="none" stroke="var(--ink)" />
        </marker>
      </defs>
      <g stroke="var(--dough-edge)" strokeWidth={small ? 0.7 : 1.2} strokeLinejoin="round">
        <polygon
          points={`${x},${y - h} ${x + w},${y - h} ${x + w + dx},${y - h - dy} ${x + dx},${y - h - dy}`}
          fill="var(--dough)"
        />
        <path
          d={`M${x + w},${y} L${x + w + dx},${y - dy} V${y - dy - h} L${x + w},${y - h} Z`}
          fill="color-mix(in srgb, var(--dough) 88%, var(--dough-edge))"
        />
        <path
          d={`M${x},${y - h} H${x + w} a${r / 3},${r} 0 0 1 0,${h} H${x} Z`}
          fill="color-mix(in srgb, var(--dough) 70%, var(--dough-edge))"
        />
      </g>
      {Array.from({ length: levels }, (_, i) => y - (h * (i + 0.5)) / levels).map((level) => (
        <path
          key={level}
          d={`M${x + w},${level} L${x + w + dx},${level - dy}`}
          stroke="var(--butter)"
          strokeWidth={small ? 1.2 : 3}
        />
      ))}
      {[
        [x - 6, x - (small ? 14 : 46)],
        [x + w + dx + 6, x + w + dx + (small ? 14 : 46)],
      ].map(([from, to]) => (
        <path
          key={from}
          d={`M${from},${y - h / 2 - dy / 2} H${to}`}
          stroke="var(--ink)"
          strokeWidth={small ? 1 : 1.6}
          markerEnd="url(#rollOn)"
        />
      ))}
      {!small && (
        <g fontSize={13.5} fill="var(--ink)">
          <text x={x + w / 2} y={y + 22} textAnchor="middle">
            closed edge, {say("length", Math.round(length))}
          </text>
          <text x={x + w + dx / 2 + 26} y={y + 4} textAnchor="start">
            open end, {say("length", Math.round(depth))}
          </text>
        </g>
      )}
    </svg>
  );
}
