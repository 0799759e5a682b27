/** Folds and stops as folded ribbon seen from the side, butter as its core. */
import type { Schemas } from "@/api/client";

const LEFT = 10;
const RIGHT = 62;
const PITCH = 8.6;

/** Height of layer n (0 at the bottom) in a stack of `of` layers centred on the glyph. */
const level = (n: number, of: number) => 22 + ((of - 1) / 2 - n) * PITCH;

/** The way the dough lies: each fold as the path of one ribbon, true to how it is folded. */
function foldPath(fold: Schemas["Fold"]): string {
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

function Ribbon({ d, thick = 7.6 }: { d: string; thick?: number }) {
  return (
    <>
      <path d={d} fill="none" stroke="var(--dough-edge)" strokeWidth={thick} />
      <path d={d} fill="none" stroke="var(--dough)" strokeWidth={thick - 1.6} />
      <path d={d} fill="none" stroke="var(--butter)" strokeWidth={1.9} />
    </>
  );
}

function Dough({ d }: { d: string }) {
  return (
    <>
      <path d={d} fill="none" stroke="var(--dough-edge)" strokeWidth={7.6} />
      <path d={d} fill="none" stroke="var(--dough)" strokeWidth={6} />
    </>
  );
}

const Block = ({ x, y, width }: { x: number; y: number; width: number }) => (
  <rect
    x={x}
    y={y}
    width={width}
    height={7}
    fill="var(--butter)"
    stroke="var(--butter-edge)"
    strokeWidth={0.8}
  />
);

/** Butter and dough lying flat on each other, as many as are said, from the bottom up. */
const Flat = ({ of }: { of: ("butter" | "dough")[] }) => (
  <>
    {of.map((material, n) => (
      <rect
        // biome-ignore lint/suspicious/noArrayIndexKey: layers have no identity but their place
        key={n}
        x={LEFT + 2}
        y={22 + of.length * 3.6 - (n + 1) * 7.2}
        width={54}
        height={6.4}
        fill={`var(--${material})`}
        stroke={`var(--${material}-edge)`}
        strokeWidth={0.8}
      />
    ))}
  </>
);

const LOCK_INS: Record<Schemas["Method"], React.ReactNode> = {
  half_stacked: <Flat of={["dough", "butter", "dough"]} />,
  open_sided: <Flat of={["dough", "butter", "dough"]} />,
  gate: (
    <>
      <Dough d="M34,14 H16 A8,8 0 0 0 16,30 H56 A8,8 0 0 0 56,14 H38" />
      <Block x={14} y={18.5} width={44} />
    </>
  ),
  inverse: <Flat of={["butter", "dough", "butter"]} />,
  spread: <Flat of={["dough", "butter"]} />,
  two_go: <Flat of={["dough", "butter"]} />,
  lumps: (
    <>
      <rect
        x={12}
        y={10}
        width={54}
        height={24}
        rx={6}
        fill="var(--dough)"
        stroke="var(--dough-edge)"
      />
      {[18, 30, 43, 55].map((x, n) => (
        <rect
          key={x}
          x={x}
          y={n % 2 ? 21 : 14}
          width={6}
          height={6}
          fill="var(--butter)"
          stroke="var(--butter-edge)"
          strokeWidth={0.8}
        />
      ))}
    </>
  ),
  half: (
    <>
      <Dough d={`M${LEFT},30 H${RIGHT - 4} A8,8 0 0 0 ${RIGHT - 4},14 H${LEFT}`} />
      <Block x={LEFT} y={18.5} width={46} />
    </>
  ),
  two_thirds: (
    <>
      <Dough
        d={`M${LEFT + 3},22 H${RIGHT - 2} A6.5,6.5 0 0 1 ${RIGHT - 2},35 H${LEFT} A13,13 0 0 1 ${LEFT},9 H${RIGHT}`}
      />
      <Block x={LEFT} y={26} width={48} />
      <Block x={LEFT} y={11.5} width={48} />
    </>
  ),
  envelope: (
    <>
      <Dough d={`M34,14 H18 A8,8 0 0 0 18,30 H54 A8,8 0 0 0 54,14 H38`} />
      <Block x={16} y={18.5} width={40} />
    </>
  ),
};

const CUTS: Record<Schemas["Shape"], React.ReactNode> = {
  triangle: [0, 1, 2, 3].map((i) => (
    <path
      key={i}
      d={`M${12 + 12 * i},34 h12 l-6,-24 z`}
      fill="var(--dough)"
      stroke="var(--dough-edge)"
    />
  )),
  square: [0, 1, 2].map((i) => (
    <rect
      key={i}
      x={12 + 17 * i}
      y={15}
      width={14}
      height={14}
      fill="var(--dough)"
      stroke="var(--dough-edge)"
    />
  )),
  disc: [0, 1, 2].map((i) => (
    <circle
      key={i}
      cx={19 + 17 * i}
      cy={22}
      r={7.4}
      fill="var(--dough)"
      stroke="var(--dough-edge)"
    />
  )),
  ring: [0, 1, 2].map((i) => (
    <circle
      key={i}
      cx={19 + 17 * i}
      cy={22}
      r={5.6}
      fill="none"
      stroke="var(--dough-edge)"
      strokeWidth={4}
    />
  )),
  strip: [0, 1, 2, 3, 4].map((i) => (
    <rect
      key={i}
      x={14 + 9 * i}
      y={9}
      width={6}
      height={26}
      fill="var(--dough)"
      stroke="var(--dough-edge)"
    />
  )),
  rectangle: [0, 1, 2].map((i) => (
    <rect
      key={i}
      x={12 + 17 * i}
      y={13}
      width={14}
      height={19}
      fill="var(--dough)"
      stroke="var(--dough-edge)"
    />
  )),
};

/** The glyph of a fold alone. */
export function FoldGlyph({ fold, width = 72 }: { fold: Schemas["Fold"]; width?: number }) {
  return (
    <svg viewBox="-8 0 88 44" width={width} aria-hidden="true">
      <Ribbon d={foldPath(fold)} />
    </svg>
  );
}

/** The glyph of a stop on the strip. */
export function StopGlyph({ stop, plan }: { stop: Schemas["Stop"]; plan: Schemas["Plan"] }) {
  const turn = plan.turns[Number(stop.key.slice(5)) - 1];
  const glyphs: Record<Schemas["StopKind"], React.ReactNode> = {
    preferment: (
      <>
        <path d="M22,20 H50 V36 H22 Z" fill="var(--dough)" />
        <path d="M18,8 H22 V36 H50 V8 H54" fill="none" stroke="var(--dough-edge)" strokeWidth={2} />
        <path d="M22,20 q7,-7 14,0 t14,0" fill="var(--dough)" stroke="var(--dough-edge)" />
      </>
    ),
    mix: (
      <>
        <path d="M14,16 H58 C58,30 50,38 36,38 S14,30 14,16 Z" fill="var(--dough)" />
        <path
          d="M12,16 H60 M14,16 C14,30 22,38 36,38 S58,30 58,16"
          fill="none"
          stroke="var(--dough-edge)"
          strokeWidth={2}
        />
        <path d="M36,4 V18 q0,9 9,7" fill="none" stroke="var(--dough-edge)" strokeWidth={3} />
      </>
    ),
    dough: (
      <rect
        x={10}
        y={12}
        width={54}
        height={20}
        rx={7}
        fill="var(--dough)"
        stroke="var(--dough-edge)"
      />
    ),
    lock_in: LOCK_INS[plan.lock_in.method],
    turn: turn && <Ribbon d={foldPath(turn.fold)} />,
    final: <Ribbon d="M0,24 H72" thick={6} />,
    cut: plan.cut?.products[0] ? CUTS[plan.cut.products[0].shape] : null,
    shape: (
      <>
        <path
          d="M12,30 C16,14 56,14 60,30 C52,24 20,24 12,30 Z"
          fill="var(--dough)"
          stroke="var(--dough-edge)"
        />
        <path
          d="M26,19 L30,26 M36,17 V25 M46,19 L42,26"
          fill="none"
          stroke="var(--dough-edge)"
          strokeWidth={1.6}
        />
      </>
    ),
    wash: (
      <>
        <path d="M14,32 H58" stroke="var(--dough-edge)" strokeWidth={6} strokeLinecap="round" />
        <path d="M30,26 l4,-8 h8 l4,8 z" fill="var(--surface)" stroke="var(--ink)" />
        <path d="M38,18 V6" stroke="var(--ink)" strokeWidth={3} strokeLinecap="round" />
      </>
    ),
    bake: (
      <>
        <path
          d="M10,36 V18 C10,4 62,4 62,18 V36 Z"
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.8}
        />
        <path
          d="M22,32 C25,20 47,20 50,32 Z"
          fill="var(--crust)"
          stroke="var(--crust)"
          strokeWidth={1}
        />
      </>
    ),
    look: (
      <>
        <path
          d="M10,32 C14,10 58,10 62,32 Z"
          fill="var(--dough)"
          stroke="var(--crust)"
          strokeWidth={2.4}
        />
        <path
          d="M20,29 q4,-8 9,-1 M32,28 q4,-12 9,0 M45,29 q4,-7 8,0"
          fill="none"
          stroke="var(--crust)"
          strokeWidth={1.4}
        />
      </>
    ),
  };
  return (
    <svg viewBox="-8 0 88 44" width={84} height={42} aria-hidden="true">
      {glyphs[stop.kind]}
    </svg>
  );
}
