/** How a sheet lies while it is folded: its panels, seen from the side, at any moment. */
import type { Schemas } from "@/api/client";

/** A panel: from one end to the other along the dough, as points (x along, z up), mm and levels. */
export interface Panel {
  from: { x: number; z: number };
  to: { x: number; z: number };
  /** The face that was on top looks down. */
  over: boolean;
}

interface Lying {
  x0: number;
  x1: number;
  level: number;
  over: boolean;
}

const overlaps = (a: Lying, b: Lying) =>
  Math.min(Math.max(a.x0, a.x1), Math.max(b.x0, b.x1)) -
    Math.max(Math.min(a.x0, a.x1), Math.min(b.x0, b.x1)) >
  1e-6;

interface Turned {
  rest: Lying[];
  flap: Lying[];
  /** The crease and the height it turns about, in levels. */
  at: number;
  pivot: number;
  side: "low" | "high";
}

/** Which panels a crease moves, and about which height they turn. */
function turned(lying: Lying[], move: Schemas["Move"]): Turned {
  const moves = (p: Lying) => (p.x0 + p.x1) / 2 > move.at_mm === (move.flap === "high");
  const flap = lying.filter(moves);
  const rest = lying.filter((p) => !moves(p));
  const mirror = (p: Lying): Lying => ({
    ...p,
    x0: 2 * move.at_mm - p.x0,
    x1: 2 * move.at_mm - p.x1,
  });
  const under = rest.filter((r) => flap.some((f) => overlaps(r, mirror(f))));
  const base = Math.max(-1, ...under.map((p) => p.level)) + 1;
  const top = Math.max(...flap.map((p) => p.level));
  return { rest, flap, at: move.at_mm, pivot: (base + top) / 2, side: move.flap };
}

/**
 * The panels when `done` creases are made, a fraction being one on its way. `levelMm`: how high one
 * level is drawn.
 */
export function panelsAt(
  length: number,
  creases: number[],
  moves: Schemas["Move"][],
  done: number,
  levelMm: number,
): Panel[] {
  const lines = [0, ...creases, length];
  let lying: Lying[] = lines.slice(1).map((x1, i) => ({
    x0: lines[i] as number,
    x1,
    level: 0,
    over: false,
  }));
  for (const move of moves.slice(0, Math.floor(done))) {
    const { flap, at, pivot } = turned(lying, move);
    lying = lying.map((p) =>
      flap.includes(p)
        ? { x0: 2 * at - p.x0, x1: 2 * at - p.x1, level: 2 * pivot - p.level, over: !p.over }
        : p,
    );
  }
  const flat = (p: Lying): Panel => ({
    from: { x: p.x0, z: p.level },
    to: { x: p.x1, z: p.level },
    over: p.over,
  });
  const next = moves[Math.floor(done)];
  const part = done - Math.floor(done);
  if (!next || part === 0) return lying.map(flat);
  const { flap, at, pivot, side } = turned(lying, next);
  const angle = part * Math.PI * (side === "high" ? 1 : -1);
  const around = (x: number, z: number) => {
    const [dx, dz] = [x - at, (z - pivot) * levelMm];
    return {
      x: at + dx * Math.cos(angle) - dz * Math.sin(angle),
      z: pivot + (dx * Math.sin(angle) + dz * Math.cos(angle)) / levelMm,
    };
  };
  return lying.map((p) =>
    flap.includes(p)
      ? { from: around(p.x0, p.level), to: around(p.x1, p.level), over: part > 0.5 !== p.over }
      : flat(p),
  );
}
