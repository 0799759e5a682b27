/** Which sheet to draw at a stop: the same in plan, bench and book. */
import type { Schemas } from "@/api/client";
import type { Above } from "./FromAbove";

type Stop = Schemas["Stop"];
type Plan = Schemas["Plan"];
type Worked = Schemas["WorkedPlan"];

export const turnIndex = (stop: Stop): number => Number(stop.key.slice(5)) - 1;

type Corner = Schemas["Corner"];

/** What is cut inside the pieces: holes of rings, and notches from the middle of a triangle's base. */
export function insideCuts(plan: Plan, cut: Schemas["WorkedCut"]) {
  const holes: { at: Corner; r_mm: number }[] = [];
  const notches: { from: Corner; to: Corner }[] = [];
  const across = plan.cut?.across ?? false;
  let next = 0;
  for (const row of cut.rows) {
    const product = plan.cut?.products[row.product];
    const [marks] = row.marks;
    const count =
      row.marks.length === 1 ? (marks?.along_mm.length ?? 0) : (marks?.along_mm.length ?? 1) - 1;
    const outlines = cut.outlines.slice(next, next + count);
    next += count;
    if (product?.shape === "ring" && marks) {
      for (const along of marks.along_mm) {
        const [x_mm, y_mm] = across ? [marks.across_mm, along] : [along, marks.across_mm];
        holes.push({ at: { x_mm, y_mm }, r_mm: product.hole_mm / 2 });
      }
    }
    if (product?.shape === "triangle" && product.notch_mm > 0) {
      for (const [a, b, tip] of outlines) {
        if (!a || !b || !tip) continue;
        const from = { x_mm: (a.x_mm + b.x_mm) / 2, y_mm: (a.y_mm + b.y_mm) / 2 };
        const [dx, dy] = [tip.x_mm - from.x_mm, tip.y_mm - from.y_mm];
        const share = product.notch_mm / Math.hypot(dx, dy);
        notches.push({
          from,
          to: { x_mm: from.x_mm + dx * share, y_mm: from.y_mm + dy * share },
        });
      }
    }
  }
  return { holes, notches };
}

const round = (mm: number) => Math.round(mm);
const said = (s: Schemas["Size"]) =>
  `${round(s.length_mm)} by ${round(s.width_mm)} mm, ${s.thickness_mm.toFixed(1)} mm thick`;

/** The sheet from above as it is worked at a stop. `onBench`: whether it is rolled on the bench. */
export function aboveAt(
  stop: Stop,
  plan: Plan,
  worked: Worked,
): Above & { caption: string; onBench: boolean } {
  const { dough_sheet, block, creases_mm } = worked.lock_in;
  if (stop.kind === "dough") {
    return {
      sheet: worked.slab,
      describe: `Dough slab, ${said(worked.slab)}.`,
      caption: "the slab as it is chilled",
      onBench: false,
    };
  }
  if (stop.kind === "lock_in") {
    const { method, margin_mm, off_centre_mm } = plan.lock_in;
    if (method === "inverse") {
      return {
        sheet: block,
        creases: creases_mm,
        inside_out: true,
        block: { ...dough_sheet, method, margin_mm: 0, at_mm: 0 },
        describe: `Butter sheet ${said(block)}, with the dough on it, ${said(dough_sheet)}.`,
        caption: "dough on the butter sheet",
        onBench: false,
      };
    }
    const inMiddle = method === "gate" || method === "open_sided";
    const at_mm = (inMiddle ? (creases_mm[0] ?? 0) : 0) + margin_mm + off_centre_mm;
    return {
      sheet: dough_sheet,
      creases: creases_mm,
      block: { ...block, method, margin_mm, at_mm },
      describe: `Dough sheet ${said(dough_sheet)}, with the butter block on it, ${said(block)}.`,
      caption: "block on the dough sheet",
      onBench: false,
    };
  }
  if (stop.kind === "turn") {
    const step = worked.steps[turnIndex(stop)] as Schemas["WorkedTurn"];
    return {
      sheet: step.rolled,
      creases: step.creases_mm,
      fold: step.fold,
      marks: turnIndex(stop) + 1,
      describe: `${stop.name}: sheet rolled to ${said(step.rolled)}; ${step.fold} fold.`,
      caption: "rolled, before the fold",
      onBench: true,
    };
  }
  const { length_mm, width_mm, thickness_mm } = worked.final;
  const sheet = { length_mm, width_mm, thickness_mm };
  const cutting = stop.kind === "cut" && worked.cut;
  return {
    sheet,
    outlines: cutting ? cutting.outlines : undefined,
    inside: cutting ? insideCuts(plan, cutting) : undefined,
    describe: cutting
      ? `Last sheet ${said(sheet)}, cut into ${cutting.pieces} pieces.`
      : `Last sheet, ${said(sheet)}.`,
    caption: cutting ? "marked and cut" : "the last sheet",
    onBench: true,
  };
}

/** The stack from the side at a stop. */
export function sideAt(stop: Stop, worked: Worked) {
  if (stop.kind === "turn") {
    const step = worked.steps[turnIndex(stop)] as Schemas["WorkedTurn"];
    return { section: step.section, layers: step.layers, size: step.folded, state: "folded" };
  }
  if (stop.kind === "final" || stop.kind === "cut") {
    const { length_mm, width_mm, thickness_mm } = worked.final;
    return {
      section: worked.final.section,
      layers: worked.layers,
      size: { length_mm, width_mm, thickness_mm },
      state: "rolled",
    };
  }
  const { section, layers, package: size } = worked.lock_in;
  const state = stop.kind === "dough" ? "as it will be locked in" : "butter locked in";
  return { section, layers, size, state };
}
