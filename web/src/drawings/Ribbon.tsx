/** Folds as folded ribbon seen from the side, butter as its core. */
import type { Schemas } from "@/api/client";

export const LEFT = 10;
export const RIGHT = 62;
const PITCH = 8.6;

/** Height of layer n (0 at the bottom) in a stack of `of` layers centred on the glyph. */
const level = (n: number, of: number) => 22 + ((of - 1) / 2 - n) * PITCH;

/** The way the dough lies: each fold as the path of one ribbon, true to how it is folded. */
export function foldPath(fold: Schemas["Fold"]): string {
  const bend = (layers: number, sweep: 0 | 1, toY: number, x: number) => {
    const r = (layers * PITCH) / 2;
    return `A${r},${r} 0 0 ${sweep} ${x},${toY}`;
  };
  if (fold === "half") {
    const [low, high] = [level(0, 2), level(1, 2)];
    return `M${LEFT},${low} H${RIGHT} ${bend(1, 0, high, RIGHT)} H${LEFT}`;
  }
  if (fold === "letter") {
    // The far third lies tucked in the middle; the near third comes round it on top.
    const [low, mid, high] = [level(0, 3), level(1, 3), level(2, 3)];
    return `M${LEFT + 3},${mid} H${RIGHT} ${bend(1, 1, low, RIGHT)} H${LEFT} ${bend(2, 1, high, LEFT)} H${RIGHT}`;
  }
  if (fold === "offset_book") {
    // The ends meet off the middle: one lies longer than the other.
    const [a, b, c, d] = [level(0, 4), level(1, 4), level(2, 4), level(3, 4)];
    return `M${RIGHT - 22},${b} H${LEFT} ${bend(1, 0, a, LEFT)} H${RIGHT} ${bend(3, 0, d, RIGHT)} H${LEFT} ${bend(1, 0, c, LEFT)} H${RIGHT - 3} M${RIGHT - 16},${b} H${RIGHT - 3}`;
  }
  const [a, b, c, d] = [level(0, 4), level(1, 4), level(2, 4), level(3, 4)];
  return `M${RIGHT - 3},${b} H${LEFT} ${bend(1, 0, a as number, LEFT)} H${RIGHT} ${bend(3, 0, d as number, RIGHT)} H${LEFT} ${bend(1, 0, c as number, LEFT)} H${RIGHT - 3}`;
}

export function Ribbon({ d, thick = 7.6 }: { d: string; thick?: number }) {
  return (
    <>
      <path d={d} fill="none" stroke="var(--dough-edge)" strokeWidth={thick} />
      <path d={d} fill="none" stroke="var(--dough)" strokeWidth={thick - 1.6} />
      <path d={d} fill="none" stroke="var(--butter)" strokeWidth={1.9} />
    </>
  );
}

/** The glyph of a fold alone. */
export function FoldGlyph({ fold, width = 72 }: { fold: Schemas["Fold"]; width?: number }) {
  return (
    <svg viewBox="-8 0 88 44" width={width} aria-hidden="true">
      <Ribbon d={foldPath(fold)} />
    </svg>
  );
}
