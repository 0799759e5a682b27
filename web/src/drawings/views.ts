/** Which sheet to draw at a stop: the same in plan, bench and book. */
import type { Schemas } from "@/api/client";
import { made, madeAt, type Plan, type Stop, stepOf, stepsOf, type Worked } from "@/api/steps";

type Corner = Schemas["Corner"];

/** What is drawn of a sheet from above. */
export interface Above {
  sheet: Schemas["Size"];
  /** Creases along the length; `fold` says which way the flaps go. */
  creases?: number[];
  fold?: Schemas["Fold"];
  /** A butter block lying on the sheet. */
  block?: Schemas["Size"] & { method: Schemas["Method"]; margin_mm: number; at_mm: number };
  /** The sheet is butter and the block on it dough. */
  inside_out?: boolean;
  /** The sheet's own edge, where it is no rectangle. */
  edge?: Corner[];
  outlines?: Outline[];
  notches?: ReturnType<typeof notchesIn>;
  /** Marks pressed for turns done. */
  marks?: number;
  describe: string;
}

export type Outline = Schemas["CutFigures"]["outlines"][number];

const isOval = (outline: Outline): outline is Schemas["Oval"] => !Array.isArray(outline);

/** An outline as a path of a drawing, its hole cut out. */
export function outlinePath(
  outline: Outline,
  x: (mm: number) => number,
  y: (mm: number) => number,
) {
  if (!isOval(outline)) {
    return `M${outline.map((c) => `${x(c.x_mm).toFixed(1)},${y(c.y_mm).toFixed(1)}`).join("L")}Z`;
  }
  const ring = (share: number) => {
    const [rx, ry] = [outline.half_along_mm * share, outline.half_across_mm * share];
    const [a, b] = [x(outline.x_mm - rx), x(outline.x_mm + rx)];
    const middle = y(outline.y_mm).toFixed(1);
    const size = `${((b - a) / 2).toFixed(1)},${Math.abs(y(outline.y_mm + ry) - y(outline.y_mm)).toFixed(1)}`;
    return `M${a.toFixed(1)},${middle}A${size} 0 1 0 ${b.toFixed(1)},${middle}A${size} 0 1 0 ${a.toFixed(1)},${middle}Z`;
  };
  return ring(1) + (outline.hole > 0 ? ring(outline.hole) : "");
}

/** What tells one outline of a cut from the next. */
export const outlineKey = (outline: Outline): string =>
  isOval(outline)
    ? `${outline.x_mm} ${outline.y_mm}`
    : `${outline[0]?.x_mm} ${outline[0]?.y_mm} ${outline[2]?.y_mm}`;

/** Notches from the middle of a triangle's base, and the cuts into a square, as lines. */
export function notchesIn(plan: Plan, cut: Schemas["CutFigures"]) {
  const products = stepOf(plan, "cut")?.products ?? [];
  const notches: { from: Corner; to: Corner }[] = [];
  const drawn = new Set<number>();
  let next = 0;
  for (const row of cut.rows) {
    const product = products[row.product];
    const [marks] = row.marks;
    const count =
      row.marks.length === 1 ? (marks?.along_mm.length ?? 0) : (marks?.along_mm.length ?? 1) - 1;
    const outlines = cut.outlines.slice(next, next + count);
    next += count;
    const slits = cut.products[row.product]?.slits ?? [];
    // On the first of its kind: on all of them they would be taken for the cut itself.
    const shown = slits.length && !drawn.has(row.product) ? outlines.slice(0, 1) : [];
    drawn.add(row.product);
    for (const outline of shown) {
      if (isOval(outline)) continue;
      const x = Math.min(...outline.map((c) => c.x_mm));
      const y = Math.min(...outline.map((c) => c.y_mm));
      for (const s of slits) {
        notches.push({
          from: { x_mm: x + s.from_x_mm, y_mm: y + s.from_y_mm },
          to: { x_mm: x + s.to_x_mm, y_mm: y + s.to_y_mm },
        });
      }
    }
    if (product?.shape !== "triangle" || product.notch_mm <= 0) continue;
    for (const outline of outlines) {
      if (isOval(outline)) continue;
      const [a, b, tip] = outline;
      if (!a || !b || !tip) continue;
      const from = { x_mm: (a.x_mm + b.x_mm) / 2, y_mm: (a.y_mm + b.y_mm) / 2 };
      const [dx, dy] = [tip.x_mm - from.x_mm, tip.y_mm - from.y_mm];
      const share = product.notch_mm / Math.hypot(dx, dy);
      notches.push({ from, to: { x_mm: from.x_mm + dx * share, y_mm: from.y_mm + dy * share } });
    }
  }
  return notches;
}

const round = (mm: number) => Math.round(mm);
export const sizeSaid = (s: Schemas["Size"]) =>
  `${round(s.length_mm)} by ${round(s.width_mm)} mm, ${s.thickness_mm.toFixed(1)} mm thick`;
const NOTHING = { length_mm: 1, width_mm: 1, thickness_mm: 0 };

export type DrawnAbove = Above & { caption: string; onBench: boolean };

function lockInAbove(plan: Plan, figures: Schemas["LockInFigures"]): DrawnAbove {
  const { dough_sheet, block, creases_mm } = figures;
  const {
    method = "half",
    margin_mm = 0,
    off_centre_mm = 0,
    flap_pct = 25,
  } = stepOf(plan, "lock_in") ?? {};
  if (method === "none") {
    return {
      sheet: dough_sheet,
      describe: `Dough sheet ${sizeSaid(dough_sheet)}, without butter.`,
      caption: "the dough, without butter",
      onBench: true,
    };
  }
  if (method === "cross") {
    const b = block.length_mm;
    const [flaps, thin] = [3 * b, dough_sheet.thickness_mm * (flap_pct / 100)];
    return {
      sheet: { length_mm: flaps, width_mm: flaps, thickness_mm: dough_sheet.thickness_mm },
      edge: [
        [b, 0],
        [2 * b, 0],
        [2 * b, b],
        [flaps, b],
        [flaps, 2 * b],
        [2 * b, 2 * b],
        [2 * b, flaps],
        [b, flaps],
        [b, 2 * b],
        [0, 2 * b],
        [0, b],
        [b, b],
      ].map(([x_mm = 0, y_mm = 0]) => ({ x_mm, y_mm })),
      block: { ...block, method, margin_mm: b, at_mm: b },
      describe: `Dough with a middle of ${sizeSaid(dough_sheet)}, and four flaps ${thin.toFixed(1)} mm thick, with the butter block on it, ${sizeSaid(block)}.`,
      caption: "block on the thick middle, flaps open",
      onBench: true,
    };
  }
  if (method === "inverse" || method === "diamond") {
    return {
      sheet: block,
      creases: creases_mm,
      inside_out: true,
      block: { ...dough_sheet, method, margin_mm: 0, at_mm: 0 },
      describe: `Butter sheet ${sizeSaid(block)}, with the dough on it, ${sizeSaid(dough_sheet)}.`,
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
    describe: `Dough sheet ${sizeSaid(dough_sheet)}, with the butter block on it, ${sizeSaid(block)}.`,
    caption: "block on the dough sheet",
    onBench: false,
  };
}

/** The sheet from above as it is worked at a stop. `onBench`: whether it is rolled on the bench. */
export function aboveAt(stop: Stop, plan: Plan, worked: Worked): DrawnAbove {
  const lockIn = madeAt(stop, "lock_in");
  if (lockIn) return lockInAbove(plan, lockIn);
  const plain = madeAt(stop, "plain_turn");
  if (plain) {
    return {
      sheet: plain.rolled,
      creases: plain.creases_mm,
      fold: plain.fold,
      describe: `${stop.name}: sheet of dough rolled to ${sizeSaid(plain.rolled)}; ${plain.fold} fold.`,
      caption: "rolled, before the fold",
      onBench: true,
    };
  }
  const turn = madeAt(stop, "turn");
  if (turn) {
    const nth = stepsOf(plan, "turn").findIndex((t) => t.id === stop.key);
    return {
      sheet: turn.rolled,
      creases: turn.creases_mm,
      fold: turn.fold,
      marks: nth + 1,
      describe: `${stop.name}: sheet rolled to ${sizeSaid(turn.rolled)}; ${turn.fold} fold.`,
      caption: "rolled, before the fold",
      onBench: true,
    };
  }
  const slab = madeAt(stop, "flatten")?.slab;
  if (slab) {
    return {
      sheet: slab,
      describe: `Dough slab, ${sizeSaid(slab)}.`,
      caption: "the slab as it is chilled",
      onBench: false,
    };
  }
  const cut = madeAt(stop, "cut");
  const final = made(worked, "last_sheet");
  if (final && (cut || stop.do === "last_sheet")) {
    // Size to cut it may lie double.
    const { length_mm, width_mm, thickness_mm } = (cut && stop.lies) || final;
    const sheet = { length_mm, width_mm, thickness_mm };
    const layers = cut?.layers ?? 1;
    return {
      sheet,
      outlines: cut?.outlines,
      notches: cut && notchesIn(plan, cut),
      describe: cut
        ? `Last sheet ${sizeSaid(sheet)}, cut into ${cut.pieces} pieces${layers > 1 ? `, ${layers} at a time` : ""}.`
        : `Last sheet, ${sizeSaid(sheet)}.`,
      caption: !cut
        ? "the last sheet"
        : layers > 1
          ? `marked and cut, ${layers} at a time`
          : "marked and cut",
      onBench: true,
    };
  }
  const lies = stop.lies ?? NOTHING;
  return {
    sheet: lies,
    describe: `${stop.name}: ${sizeSaid(lies)}.`,
    caption: "as it lies",
    onBench: false,
  };
}

/** The stack from the side at a stop: as the last step before it left it. */
export function sideAt(stop: Stop, worked: Worked) {
  const before = worked.strip
    .slice(0, worked.strip.findIndex((s) => s.key === stop.key) + 1)
    .toReversed();
  for (const at of before) {
    const final = madeAt(at, "last_sheet");
    if (final) {
      const { length_mm, width_mm, thickness_mm } = final;
      const size = { length_mm, width_mm, thickness_mm };
      return { section: final.section, layers: final.layers, size, state: "rolled" };
    }
    const turn = madeAt(at, "turn");
    if (turn) {
      return { section: turn.section, layers: turn.layers, size: turn.folded, state: "folded" };
    }
    const locked = madeAt(at, "lock_in");
    if (locked) {
      const { section, layers, package: size } = locked;
      return { section, layers, size, state: "butter locked in" };
    }
  }
  const locked = made(worked, "lock_in");
  return (
    locked && {
      section: locked.section,
      layers: locked.layers,
      size: locked.package,
      state: "as it will be locked in",
    }
  );
}
