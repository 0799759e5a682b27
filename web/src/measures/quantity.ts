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

export interface Quantity {
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

/**
 * A sum as bakers write one: `3 × 58 g`, `1,2 kg + 200`, `2400 / 6`. A term without a unit is in the unit
 * that is shown. Null where it is none, or where one of its parts cannot be read.
 */
function summed(quantity: Quantity, clean: string, shown: string): number | null {
  if (!/\d\s*[^\d\s+\-*/×x·÷−]*\s*[+*×x·÷/−-]\s*\d/i.test(clean)) return null;
  // degrees are not added up unit by unit: their zero is not nothing
  const unitless = Object.values(quantity.units).some((u) => u.plus);
  // `16 1/2` is a figure, not a quotient
  const whole = clean.replace(/(\d+)[ -](\d+)\/(\d+)/g, (_, n, a, b) => `${+n + +a / +b}`);
  const terms = whole.split(/\s*(\+|\s[-−]\s|−)\s*/);
  let total = 0;
  for (let i = 0; i < terms.length; i += 2) {
    const product = multiplied(quantity, terms[i] ?? "", shown, unitless);
    if (product === null) return null;
    total += (terms[i - 1] ?? "+").trim() === "+" ? product : -product;
  }
  const zero = unitless ? (quantity.units[shown]?.plus ?? 0) : 0;
  return Number((total + zero).toPrecision(12));
}

/** A product of figures of which one may have a unit. */
function multiplied(quantity: Quantity, term: string, shown: string, unitless: boolean) {
  const factors = term.split(/\s*([*×x·÷/])\s*/i);
  let [value, units] = [1, 0];
  let per = quantity.units[shown]?.per ?? 1;
  for (let i = 0; i < factors.length; i += 2) {
    const parts = split(factors[i] ?? "");
    if (!parts || !Number.isFinite(parts.number)) return null;
    if (parts.unit.trim()) {
      const unit = unitOf(quantity, parts.unit);
      if (!unit || unitless) return null;
      units += 1;
      per = unit.per;
    }
    value = /[÷/]/.test(factors[i - 1] ?? "") ? value / parts.number : value * parts.number;
  }
  return units > 1 || !Number.isFinite(value) ? null : value * per;
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
  const counted = FRACTION.test(clean) ? null : summed(quantity, clean, shown);
  if (counted !== null && (name !== "count" || Number.isInteger(counted))) {
    return { value: counted, plain: false };
  }
  const parts = split(clean);
  if (!parts || !Number.isFinite(parts.number)) {
    return { complaint: `“${text.trim()}” is not ${quantity.noun}. Try ${example}.` };
  }
  const spelled = parts.unit.trim().toLowerCase();
  const unit = spelled ? unitOf(quantity, spelled) : quantity.units[shown];
  if (!unit) {
    const known = Object.keys(quantity.units).join(", ");
    return { complaint: `“${parts.unit.trim()}” is not a unit for this. Use one of ${known}.` };
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

/** How a row of the Kitchen is entered and stepped: what counts things in whole ones. */
export const quantityOf = (row: { unit: string; whole: boolean }): QuantityName =>
  row.whole ? "count" : (OF_UNIT[row.unit] ?? "number");
