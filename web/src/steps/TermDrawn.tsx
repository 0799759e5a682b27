/** A word of the trade as a small drawing, in a box of 72 × 44. */
import type { ReactNode } from "react";
import type { Schemas } from "@/api/client";
import type { Step } from "@/api/steps";
import { foldPath, Ribbon } from "@/drawings/Ribbon";
import { kindOf } from "./kinds";
import { LOCK_INS } from "./kinds/lock_in";
import type { Drawn } from "./parts/props";

const line = { fill: "none", stroke: "var(--ink)", strokeWidth: 1.2 };
const dough = { fill: "var(--dough)", stroke: "var(--dough-edge)" };
const butter = { fill: "var(--butter)", stroke: "var(--butter-edge)" };

/** What has no glyph of its own. */
const DRAWN: Record<string, ReactNode> = {
  butter_layers: (
    <>
      <rect x={8} y={6} width={56} height={32} {...dough} />
      {[11, 20, 29].map((y) => (
        <rect key={y} x={8} y={y} width={56} height={4} fill="var(--butter)" />
      ))}
      <path d="M72,6 v32 M69,6 h6 M69,38 h6" {...line} />
    </>
  ),
  leaf: (
    <>
      <rect x={8} y={6} width={56} height={32} {...dough} />
      <rect x={8} y={18} width={56} height={8} {...butter} />
      <path d="M72,18 v8 M69,18 h6 M69,26 h6" {...line} />
    </>
  ),
  package: (
    <>
      <path d="M10,12 L22,6 H68 V26 L58,36 H10 Z" {...dough} />
      <path d="M10,12 H58 V36 M58,12 L68,6" {...line} />
      <path d="M10,18 H58 M10,24 H58 M10,30 H58" stroke="var(--butter)" strokeWidth={2.4} />
    </>
  ),
  open_ends: (
    <>
      <path d="M14,8 H58 V36 H14 a14,14 0 0 1 0,-28 Z" {...dough} />
      {[14, 22, 30].map((y) => (
        <path key={y} d={`M12,${y} H58`} stroke="var(--butter)" strokeWidth={3} />
      ))}
      <path d="M62,22 h10 l-4,-4 m4,4 l-4,4" {...line} />
    </>
  ),
  relaxing: (
    <>
      <rect x={14} y={14} width={44} height={16} {...dough} />
      <rect
        x={4}
        y={14}
        width={64}
        height={16}
        fill="none"
        stroke="var(--quiet)"
        strokeDasharray="3 3"
      />
      <path d="M4,36 h8 l-3,-3 m3,3 l-3,3 M68,36 h-8 l3,-3 m-3,3 l3,3" {...line} />
    </>
  ),
  margin: (
    <>
      <rect x={8} y={5} width={56} height={34} {...dough} />
      <rect x={16} y={12} width={20} height={20} {...butter} />
      <path d="M8,22 h8 M36,5 v34" {...line} strokeDasharray="2 2" />
    </>
  ),
  plaque: (
    <>
      <path d="M10,30 L24,12 H66 L52,30 Z" {...butter} />
      <path d="M10,30 v5 H52 v-5 M52,35 L66,17 v-5" {...butter} />
    </>
  ),
  straight_edge: (
    <>
      <rect x={6} y={12} width={62} height={20} {...dough} />
      <path d="M6,6 V38" stroke="var(--ink)" strokeWidth={2.4} />
      <path d="M6,38 H24 M6,41 H42 M24,12 V32 M42,12 V32 M60,12 V32" {...line} />
    </>
  ),
  kerf: (
    <>
      <rect x={6} y={14} width={27} height={16} {...dough} />
      <rect x={39} y={14} width={27} height={16} {...dough} />
      <path d="M36,4 V34 M33,38 h6 M33,36 v4 M39,36 v4" {...line} />
    </>
  ),
};

export function TermDrawn({ of, step }: { of: string; step: Step }) {
  const [what, value = ""] = of.split(".");
  if (what === "fold") return <Ribbon d={foldPath(value as Schemas["Fold"])} />;
  if (what === "method") return LOCK_INS[value as Schemas["Method"]];
  if (what === "step") {
    const { Glyph } = kindOf(step.do);
    return <Glyph {...({ step } as Drawn)} />;
  }
  return DRAWN[of] ?? null;
}
