/** Values stepped and snapped as a baker would: by the field, by the wheel, by hand on a drawing. */
import { QUANTITIES, type Quantity, type QuantityName, type System } from "./quantity";

/** By how much a baker turns a value up or down: what a ruler, a scale or a dial can show. */
const STEPS: Record<QuantityName, Record<System, [under: number, step: number][]>> = {
  length: {
    metric: [
      [30, 0.5],
      [100, 1],
      [Number.POSITIVE_INFINITY, 5],
    ],
    imperial: [
      [30, 25.4 / 32],
      [100, 25.4 / 16],
      [Number.POSITIVE_INFINITY, 25.4 / 4],
    ],
  },
  mass: {
    metric: [
      [20, 0.5],
      [200, 1],
      [1000, 5],
      [10_000, 50],
      [Number.POSITIVE_INFINITY, 250],
    ],
    imperial: [
      [110, 28.349523125 / 10],
      [910, 28.349523125 / 2],
      [Number.POSITIVE_INFINITY, 28.349523125],
    ],
  },
  temperature: {
    metric: [[Number.POSITIVE_INFINITY, 1]],
    imperial: [[Number.POSITIVE_INFINITY, 5 / 9]],
  },
  time: everywhere([
    [10, 1],
    [180, 5],
    [Number.POSITIVE_INFINITY, 15],
  ]),
  share: everywhere([[Number.POSITIVE_INFINITY, 1]]),
  percent: everywhere([
    [3, 0.1],
    [20, 0.5],
    [Number.POSITIVE_INFINITY, 1],
  ]),
  density: everywhere([[Number.POSITIVE_INFINITY, 5]]),
  number: everywhere([
    [1, 0.05],
    [10, 0.5],
    [Number.POSITIVE_INFINITY, 1],
  ]),
  count: everywhere([[Number.POSITIVE_INFINITY, 1]]),
};

function everywhere<T>(steps: T): Record<System, T> {
  return { metric: steps, imperial: steps };
}

/** The step at a value, and where its grid begins. */
function grid(name: QuantityName, value: number, system: System) {
  const { units, shown }: Quantity = QUANTITIES[name];
  const step = STEPS[name][system].find(([under]) => Math.abs(value) < under)?.[1] ?? 1;
  return { step, zero: units[shown[system]]?.plus ?? 0 };
}

/** Without the last bits of a sum, so that a hundred steps of a tenth are ten. */
const tidied = (value: number) => Number(value.toPrecision(12));

const TIMES = [1, 2, 4, 10, 20, 40, 100];

/** The nearest value that can be shown, in steps no finer than a hand can go. */
export function snapped(name: QuantityName, value: number, system: System, finest = 0): number {
  const { step, zero } = grid(name, value, system);
  const by = step * (TIMES.find((times) => times * step >= finest) ?? 100);
  return tidied(zero + Math.round((value - zero) / by) * by);
}

/** The next value up or down that can be shown. */
export function stepped(name: QuantityName, value: number, way: number, system: System): number {
  const near = value + way * 1e-6 * Math.max(Math.abs(value), 1);
  // at the foot of a coarser stretch the way down is by the finer step
  const { step, zero } = grid(name, way < 0 ? Math.abs(near) - 1e-9 : near, system);
  const n = (near - zero) / step;
  return tidied(zero + (way > 0 ? Math.ceil(n) : Math.floor(n)) * step);
}
