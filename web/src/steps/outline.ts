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

/** Neighbours of one chapter together. */
function chapters(stops: Stop[]): Stop[][] {
  const found: Stop[][] = [];
  for (const stop of stops) {
    const last = found.at(-1);
    if (last?.[0]?.chapter === stop.chapter) last.push(stop);
    else found.push([stop]);
  }
  return found;
}

/**
 * The cells of a strip so wide, when a stop needs `narrowest`: all open where they fit; otherwise the
 * chapters furthest from the chosen stop are folded first, and at last what lies far off in its own.
 */
export function cellsOf(
  stops: Stop[],
  selected: string | null,
  width: number,
  narrowest: number,
): Cell[] {
  const groups = chapters(stops).map((group) => ({ stops: group, folded: false }));
  const chosen = Math.max(
    groups.findIndex((g) => g.stops.some((s) => s.key === selected)),
    0,
  );
  const needs = () =>
    groups.reduce(
      (sum, g) => sum + (g.folded ? folds(g.stops.length) : g.stops.length * narrowest),
      0,
    );
  const far = groups
    .map((_, i) => i)
    .filter((i) => i !== chosen)
    .sort((a, b) => Math.abs(b - chosen) - Math.abs(a - chosen));
  for (const i of far) {
    const group = groups[i];
    // before anything is measured, nothing is folded
    if (
      group &&
      width > 0 &&
      needs() > width &&
      group.stops.length * narrowest > folds(group.stops.length)
    ) {
      group.folded = true;
    }
  }
  const cells = groups.flatMap((group, i) => {
    if (i !== chosen || width <= 0 || needs() <= width) return [group];
    const others = needs() - group.stops.length * narrowest;
    // two outlines beside it, and each step in them their slice
    const beside = 2 * FOLDED + group.stops.length * SLICE;
    const room = Math.max(Math.floor((width - others - beside) / (narrowest - SLICE)), 1);
    const at = group.stops.findIndex((s) => s.key === selected);
    const from = Math.min(Math.max(at - Math.floor(room / 2), 0), group.stops.length - room);
    return [
      { stops: group.stops.slice(0, from), folded: true },
      { stops: group.stops.slice(from, from + room), folded: false },
      { stops: group.stops.slice(from + room), folded: true },
    ].filter((part) => part.stops.length > 0);
  });
  const folded = cells.reduce((sum, c) => sum + (c.folded ? folds(c.stops.length) : 0), 0);
  const open = cells.reduce((sum, c) => sum + (c.folded ? 0 : c.stops.length), 0);
  const each = Math.min(Math.max((width - folded) / Math.max(open, 1), narrowest), WIDEST);
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
