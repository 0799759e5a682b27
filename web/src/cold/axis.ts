/** A time axis on which the night does not push the work off the screen. */
import type { Schemas } from "@/api/client";

type Stretch = Schemas["Stretch"];

export interface Axis {
  x: (minute: number) => number;
  minute: (x: number) => number;
  labels: { stop: string; x: number }[];
}

const PLAIN_MIN = 45;

/** How wide a stretch is drawn: as long as it is up to three quarters of an hour, then ever less. */
const drawn = (minutes: number) =>
  minutes <= PLAIN_MIN ? minutes : PLAIN_MIN * (1 + Math.log(minutes / PLAIN_MIN) / 2);

export function onAxis(stretches: Stretch[], left: number, right: number): Axis {
  const widths = stretches.map((s) => drawn(s.to_min - s.from_min));
  const whole = widths.reduce((a, b) => a + b, 0) || 1;
  let at = left;
  const pieces = stretches.map((s, i) => {
    const from = at;
    at += ((widths[i] ?? 0) / whole) * (right - left);
    return { ...s, x0: from, x1: at };
  });
  const x = (minute: number) => {
    const p = pieces.find((piece) => minute <= piece.to_min) ?? pieces.at(-1);
    if (!p) return left;
    const share = (minute - p.from_min) / Math.max(p.to_min - p.from_min, 1e-9);
    return p.x0 + Math.min(Math.max(share, 0), 1) * (p.x1 - p.x0);
  };
  const minute = (px: number) => {
    const p = pieces.find((piece) => px <= piece.x1) ?? pieces.at(-1);
    if (!p) return 0;
    const share = Math.min(Math.max((px - p.x0) / Math.max(p.x1 - p.x0, 1e-9), 0), 1);
    return p.from_min + share * (p.to_min - p.from_min);
  };
  const byStop = new Map<string, { from: number; to: number }>();
  for (const p of pieces) {
    const known = byStop.get(p.stop);
    byStop.set(p.stop, { from: known?.from ?? p.x0, to: p.x1 });
  }
  const labels = [...byStop]
    .filter(([, span]) => span.to - span.from > 48)
    .map(([stop, span]) => ({ stop, x: (span.from + span.to) / 2 }));
  return { x, minute, labels };
}

/** Which point of a trace is nearest to a minute. */
export function shown(trace: Schemas["Trace"], minute: number): number {
  let best = 0;
  for (const [i, at] of trace.minutes.entries()) {
    if (Math.abs(at - minute) < Math.abs((trace.minutes[best] ?? 0) - minute)) best = i;
  }
  return best;
}
