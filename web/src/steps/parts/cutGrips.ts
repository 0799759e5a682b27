/** What of the cut can be taken hold of: the datum, how many rows, and the size of a piece. */
import { type Grip, linear } from "@/drawings/hands";
import type { Outline } from "@/drawings/views";
import type { Given, PanelProps } from "./props";

/** From where to where an outline reaches, one way. */
function reach(outline: Outline, way: "x_mm" | "y_mm"): [number, number] {
  if (Array.isArray(outline)) {
    const places = outline.map((c) => c[way]);
    return [Math.min(...places), Math.max(...places)];
  }
  const half = way === "x_mm" ? outline.half_along_mm : outline.half_across_mm;
  return [outline[way] - half, outline[way] + half];
}

export function cutGrips(panel: PanelProps<"cut">, given: Given): { above?: Grip[] } {
  const { step, made, at, set, stop, plan } = panel;
  const sheet = stop.lies;
  if (!made || !sheet || plan.steps.some((s) => s.do === "roll_up")) return {};
  const limits = given.trade.limits.cut ?? {};
  // Rows run along the sheet, or across it; a piece's base lies along its row.
  const run = step.across ? ("y" as const) : ("x" as const);
  const over = step.across ? ("x" as const) : ("y" as const);
  const long = step.across ? sheet.width_mm : sheet.length_mm;
  const grips: Grip[] = [
    {
      path: `${at}.trim_mm`,
      label: "Off every edge, before the first row",
      quantity: "length",
      value: step.trim_mm,
      limits: limits.trim_mm,
      dir: over,
      ...linear(0, 1),
      from: 0,
      to: long,
      knob: 0.92,
      put: (v) => set({ trim_mm: v }, "trim_mm"),
    },
  ];
  let first = 0;
  const drawn = new Set<number>();
  for (const row of made.rows) {
    const outline = made.outlines[first];
    const last = made.outlines[first + row.pieces - 1];
    first += row.pieces;
    const n = row.product;
    const product = step.products[n];
    const figures = made.products[n];
    if (drawn.has(n) || row.crosswise || !outline || !last || !product || !figures) continue;
    drawn.add(n);
    const path = `${at}.products[${n}]`;
    const { name } = product;
    const put = (part: Partial<typeof product>, field: string) =>
      set({ products: step.products.with(n, { ...product, ...part }) }, `products[${n}].${field}`);
    const also = `${given.say("mass", Math.round(figures.piece_g))} each`;
    const [start, end] = reach(outline, step.across ? "y_mm" : "x_mm");
    const tall = given.trade.tall_shapes.includes(product.shape);
    grips.push({
      path: `${path}.base_mm`,
      label: `${tall ? "Base" : "Side"} of ${name}`,
      quantity: "length",
      value: product.base_mm,
      limits: limits["products.base_mm"],
      dir: run,
      ...linear(start, (end - start) / product.base_mm),
      from: row.from_mm,
      to: row.to_mm,
      also,
      put: (v) => put({ base_mm: v }, "base_mm"),
    });
    if (tall && product.height_mm) {
      grips.push({
        path: `${path}.height_mm`,
        label: `Height of ${name}`,
        quantity: "length",
        value: product.height_mm,
        limits: limits["products.height_mm"],
        dir: over,
        ...linear(row.from_mm, (row.to_mm - row.from_mm) / product.height_mm),
        from: 0,
        to: long,
        knob: 0.3,
        also,
        put: (v) => put({ height_mm: v }, "height_mm"),
      });
    }
    const rows = made.rows.filter((r) => r.product === n);
    const end_mm = rows.at(-1)?.to_mm ?? row.to_mm;
    grips.push({
      path: `${path}.rows`,
      label: `Rows of ${name}`,
      quantity: "count",
      value: figures.rows,
      limits: [1, limits["products.rows"]?.[1] ?? figures.rows],
      dir: over,
      ...linear(row.from_mm, (end_mm - row.from_mm) / figures.rows),
      from: 0,
      to: long,
      knob: 0.7,
      also: `${figures.pieces} pieces`,
      put: (v) => put({ rows: v }, "rows"),
    });
  }
  return { above: grips };
}
