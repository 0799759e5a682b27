/** How a whole plan fits one strip: chapters that are not looked at fold to their outline. */
import type { Stop } from "@/api/steps";

/** Neighbouring stops of one chapter, drawn one by one or folded to an outline. */
export interface Cell {
  stops: Stop[];
  folded: boolean;
  width: number;
}

const FOLDED = 84;
const SLICE = 22; // px a step of a folded chapter keeps, so that a finger finds it
const WIDEST = 172;

const folds = (many: number) => Math.max(FOLDED, many * SLICE);

/** Runs of neighbours of one chapter that are alike: all open, or all folded. */
function runs(stops: Stop[], open: ReadonlySet<number>) {
  const found: { stops: Stop[]; folded: boolean }[] = [];
  stops.forEach((stop, i) => {
    const last = found.at(-1);
    const folded = !open.has(i);
    if (last?.folded === folded && last.stops[0]?.chapter === stop.chapter) last.stops.push(stop);
    else found.push({ stops: [stop], folded });
  });
  return found;
}

/** Which stops stand open: the chosen one, its chapter, then what is near, as far as there is room. */
function opened(stops: Stop[], chosen: number, fits: (open: ReadonlySet<number>) => boolean) {
  const chapter = stops[chosen]?.chapter;
  const open = new Set([chosen]);
  const full = { before: false, after: false };
  const near = stops
    .map((stop, i) => ({ i, far: Math.abs(i - chosen), other: stop.chapter === chapter ? 0 : 1 }))
    .filter(({ i }) => i !== chosen)
    .sort((a, b) => a.other - b.other || a.far - b.far);
  for (const { i } of near) {
    const side = i < chosen ? "before" : "after";
    if (full[side]) continue;
    open.add(i);
    if (fits(open)) continue;
    open.delete(i);
    full[side] = true;
  }
  return open;
}

/**
 * The cells of a strip so wide, when a stop needs `narrowest`: all open where they fit; otherwise what is
 * far from the chosen stop folds to the outline of its chapter.
 */
export function cellsOf(
  stops: Stop[],
  selected: string | null,
  width: number,
  narrowest: number,
): Cell[] {
  const all = new Set(stops.keys());
  const needs = (open: ReadonlySet<number>) =>
    runs(stops, open).reduce(
      (sum, r) => sum + (r.folded ? folds(r.stops.length) : r.stops.length * narrowest),
      0,
    );
  const chosen = Math.max(
    stops.findIndex((s) => s.key === selected),
    0,
  );
  // before anything is measured, nothing is folded
  const open = width > 0 ? opened(stops, chosen, (some) => needs(some) <= width) : all;
  const cells = runs(stops, open);
  const folded = cells.reduce((sum, c) => sum + (c.folded ? folds(c.stops.length) : 0), 0);
  const each = Math.min(Math.max((width - folded) / Math.max(open.size, 1), narrowest), WIDEST);
  return cells.map((c) => ({
    ...c,
    width: c.folded ? folds(c.stops.length) : c.stops.length * each,
  }));
}

/** Minutes on a gentle scale: half an hour and half a day can be seen side by side. */
const SCALE_MIN = 30;
export const gentle = (minutes: number) => Math.log1p(Math.max(minutes, 0) / SCALE_MIN);
export const ungentle = (along: number) => SCALE_MIN * Math.expm1(along);

/** How wide a dip is drawn, either way from its middle, in a cell so wide. */
export function halfDip(minutes: number, cell: number): number {
  const [least, most] = [30, Math.max(cell * 0.46, 31)];
  const day = gentle(24 * 60);
  return least + (most - least) * Math.min(gentle(minutes) / day, 1);
}
