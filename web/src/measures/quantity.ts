/**
 * Quantities at the screen's edge: inside everything is mm, g, °C, min and %; a person may type and
 * read other units. Parsing says what it understood or why it did not.
 */

export type System = "metric" | "imperial";

interface Unit {
  /** How many base units one of this is. */
  per: number;
  /** Added after scaling (for degrees). */
  plus?: number;
  names: string[];
}

interface Quantity {
  noun: string;
  base: string;
  units: Record<string, Unit>;
  shown: Record<System, string>;
  decimals: Record<System, number>;
}

const inches: Unit = { per: 25.4, names: ["in", "inch", "inches", '"', "″"] };

export const QUANTITIES = {
  length: {
    noun: "a length",
    base: "mm",
    units: {
      mm: { per: 1, names: ["mm"] },
      cm: { per: 10, names: ["cm"] },
      m: { per: 1000, names: ["m"] },
      in: inches,
    },
    shown: { metric: "mm", imperial: "in" },
    decimals: { metric: 1, imperial: 2 },
  },
  mass: {
    noun: "a mass",
    base: "g",
    units: {
      g: { per: 1, names: ["g", "gr"] },
      kg: { per: 1000, names: ["kg"] },
      oz: { per: 28.349523125, names: ["oz"] },
      lb: { per: 453.59237, names: ["lb", "lbs"] },
    },
    shown: { metric: "g", imperial: "oz" },
    decimals: { metric: 1, imperial: 2 },
  },
  temperature: {
    noun: "a temperature",
    base: "°C",
    units: {
      "°C": { per: 1, names: ["°c", "c"] },
      "°F": { per: 5 / 9, plus: -160 / 9, names: ["°f", "f"] },
    },
    shown: { metric: "°C", imperial: "°F" },
    decimals: { metric: 1, imperial: 1 },
  },
  time: {
    noun: "a time",
    base: "min",
    units: {
      min: { per: 1, names: ["min", "mins", "minutes", "'", "′"] },
      h: { per: 60, names: ["h", "hr", "hours", "hour"] },
    },
    shown: { metric: "min", imperial: "min" },
    decimals: { metric: 0, imperial: 0 },
  },
  share: {
    noun: "a share",
    base: "%",
    units: { "%": { per: 1, names: ["%"] } },
    shown: { metric: "%", imperial: "%" },
    decimals: { metric: 1, imperial: 1 },
  },
  percent: {
    noun: "a percentage",
    base: "%",
    units: { "%": { per: 1, names: ["%"] } },
    shown: { metric: "%", imperial: "%" },
    decimals: { metric: 2, imperial: 2 },
  },
  density: {
    noun: "a density",
    base: "kg/m³",
    units: { "kg/m³": { per: 1, names: ["kg/m³", "kg/m3"] } },
    shown: { metric: "kg/m³", imperial: "kg/m³" },
    decimals: { metric: 0, imperial: 0 },
  },
  number: {
    noun: "a number",
    base: "",
    units: { "": { per: 1, names: [""] } },
    shown: { metric: "", imperial: "" },
    decimals: { metric: 2, imperial: 2 },
  },
  count: {
    noun: "a whole number",
    base: "",
    units: { "": { per: 1, names: [""] } },
    shown: { metric: "", imperial: "" },
    decimals: { metric: 0, imperial: 0 },
  },
} satisfies Record<string, Quantity>;

export type QuantityName = keyof typeof QUANTITIES;

export type Understood = { value: number; plain: boolean } | { complaint: string };

const NUMBER = String.raw`[-+]?(?:\d+[.,]\d*|[.,]\d+|\d+)`;
const FRACTION = /^(-?)(?:(\d+)[ -])?(\d+)\s*\/\s*(\d+)\s*(.*)$/;
const DECIMAL = new RegExp(`^(${NUMBER})\\s*(.*)$`);
const CLOCK = /^(\d+)\s*(?::|h)\s*(\d{1,2})\s*(?:min|m|')?$/i;
const GLYPHS: Record<string, string> = {
  "½": "1/2",
  "¼": "1/4",
  "¾": "3/4",
  "⅓": "1/3",
  "⅔": "2/3",
  "⅛": "1/8",
  "⅜": "3/8",
  "⅝": "5/8",
  "⅞": "7/8",
};

function tidy(text: string): string {
  return text
    .trim()
    .replace(/[½¼¾⅓⅔⅛⅜⅝⅞]/g, (glyph) => ` ${GLYPHS[glyph]}`)
    .replace(/\s+/g, " ")
    .trim();
}

function split(text: string): { number: number; unit: string } | null {
  const fraction = FRACTION.exec(text);
  if (fraction) {
    const [, sign, whole, above, below, unit] = fraction;
    if (Number(below) === 0) return null;
    const size = Number(whole ?? 0) + Number(above) / Number(below);
    return { number: sign ? -size : size, unit: unit ?? "" };
  }
  const decimal = DECIMAL.exec(text);
  if (!decimal) return null;
  return { number: Number(decimal[1]?.replace(",", ".")), unit: decimal[2] ?? "" };
}

const unitOf = (quantity: Quantity, spelled: string) =>
  Object.values(quantity.units).find((u) => u.names.includes(spelled.trim().toLowerCase()));

/** Several figures with their units, added up: `1 lb 2 oz`, `1 kg 250 g`. Null for anything else. */
function added(quantity: Quantity, clean: string): number | null {
  const pieces = clean.split(/(?<=[a-z"″'′])[\s,]*(?=\d)/i).map((piece) => {
    const parts = split(piece);
    const unit = parts && unitOf(quantity, parts.unit);
    return parts && unit && !unit.plus ? parts.number * unit.per : null;
  });
  if (pieces.length < 2) return null;
  return pieces.reduce((sum, piece) => (sum === null || piece === null ? null : sum + piece), 0);
}

/** Reads what a person typed. `plain`: it was a bare number in the unit that is shown anyway. */
export function parse(name: QuantityName, text: string, system: System): Understood {
  const quantity: Quantity = QUANTITIES[name];
  const shown = quantity.shown[system];
  const example = format(
    name,
    {
      length: 8,
      mass: 2400,
      temperature: 12,
      time: 30,
      share: 27,
      percent: 11,
      density: 1120,
      number: 3,
      count: 3,
    }[name],
    system,
  );
  const clean = tidy(text);
  if (!clean) return { complaint: `Enter ${quantity.noun}, such as ${example}.` };
  const clock = name === "time" ? CLOCK.exec(clean) : null;
  if (clock) return { value: Number(clock[1]) * 60 + Number(clock[2]), plain: false };
  const sum = added(quantity, clean);
  if (sum !== null) return { value: sum, plain: false };
  const parts = split(clean);
  if (!parts || !Number.isFinite(parts.number)) {
    return { complaint: `“${text.trim()}” is not ${quantity.noun}. Try ${example}.` };
  }
  const spelled = parts.unit.trim().toLowerCase();
  const unit = spelled ? unitOf(quantity, spelled) : quantity.units[shown];
  if (!unit) {
    const known = Object.keys(quantity.units).join(", ");
    return { complaint: `“${parts.unit.trim()}” is not a unit of this. It knows ${known}.` };
  }
  const value = parts.number * unit.per + (unit.plus ?? 0);
  if (name === "count" && !Number.isInteger(value)) {
    return { complaint: `Here it is counted: enter ${quantity.noun}, such as ${example}.` };
  }
  return { value, plain: (!spelled || quantity.units[shown] === unit) && !clean.includes("/") };
}

const SIXTEENTHS = ["", "1/16", "⅛", "3/16", "¼", "5/16", "⅜", "7/16", "½"].concat([
  "9/16",
  "⅝",
  "11/16",
  "¾",
  "13/16",
  "⅞",
  "15/16",
]);
const LONG_IN = 3;

/**
 * Inches as a ruler has them, to the sixteenth; null where that would be too coarse, as for the
 * thickness of a sheet.
 */
function ruled(inches: number): string | null {
  const nearest = Math.round(inches * 16);
  const off = Math.abs(nearest / 16 - inches);
  if (inches <= 0 || (inches < LONG_IN && off > 0.01 * inches)) return null;
  const [whole, part] = [Math.floor(nearest / 16), SIXTEENTHS[nearest % 16]];
  return [whole || "", part].filter(Boolean).join(" ");
}

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

/** Half goes up, and what is a half but for the last bit of a sum is a half: as the core rounds. */
const nearest = (number: number, places: number) => (number * (1 + 2e-12)).toFixed(places);

/** A number as sentences have it: one decimal below 100, none above. */
export function said(number: number): string {
  return nearest(number, Math.abs(number) >= 100 ? 0 : 1).replace(/\.0$/, "");
}

/** The number alone, in the unit the person reads; no trailing zeros. */
export function figure(name: QuantityName, value: number, system: System): string {
  const quantity: Quantity = QUANTITIES[name];
  const unit = quantity.units[quantity.shown[system]] as Unit;
  const number = (value - (unit.plus ?? 0)) / unit.per;
  const fraction = name === "length" && system === "imperial" ? ruled(number) : null;
  if (fraction) return fraction;
  const places = name === "number" && Math.abs(number) >= 1000 ? 0 : quantity.decimals[system];
  if (name === "share" && Math.abs(number) >= 0.1) return said(number);
  const text = nearest(number, places);
  return text.includes(".") ? text.replace(/\.?0+$/, "") : text;
}

/** Number and unit, as the person reads it; many ounces as pounds and ounces. */
export function format(name: QuantityName, value: number, system: System): string {
  if (name === "mass" && system === "imperial" && value >= 907) {
    const tenths = Math.round((value / QUANTITIES.mass.units.oz.per) * 10);
    const ounces = (tenths % 160) / 10;
    return `${Math.floor(tenths / 160)} lb${ounces ? ` ${ounces} oz` : ""}`;
  }
  if (name === "mass" && system === "metric") return grams(value);
  const unit = QUANTITIES[name].shown[system];
  return [figure(name, value, system), unit].filter(Boolean).join(" ");
}

const THIN = "\u202f";

/** Grams as bakers say them: thousands set apart, kilograms from ten of them. */
function grams(value: number): string {
  const size = Math.abs(value);
  if (size >= 10_000) return `${(value / 1000).toFixed(2).replace(/\.?0+$/, "")} kg`;
  if (size >= 1_000) {
    return `${value.toFixed(0).replace(/\B(?=(\d{3})+$)/g, THIN)} g`;
  }
  return `${figure("mass", value, "metric")} g`;
}

/** Minutes as hours and minutes: `45 min`, `2 h`, `14 h 05`. */
export function span(minutes: number): string {
  const whole = Math.round(Math.abs(minutes));
  const sign = minutes < 0 && whole ? "−" : "";
  if (whole < 60) return `${sign}${whole} min`;
  const rest = whole % 60;
  return `${sign}${Math.floor(whole / 60)} h${rest ? ` ${String(rest).padStart(2, "0")}` : ""}`;
}

/** A leaf's thickness: µm when thin; when thick, as any other length. */
export function leaf(um: number, system: System): string {
  if (um >= 950 && system === "imperial") return format("length", um / 1000, system);
  if (um >= 950) return `${(um / 1000).toFixed(1).replace(/\.0$/, "")} mm`;
  return um >= 9.5 ? `${um.toFixed(0)} µm` : `${um.toPrecision(2)} µm`;
}

/** What a row of the Kitchen measures, by its unit; a plain number where the unit is none of these. */
export const OF_UNIT: Record<string, QuantityName> = {
  mm: "length",
  min: "time",
  "%": "share",
  "°C": "temperature",
};
