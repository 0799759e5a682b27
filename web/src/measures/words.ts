/**
 * The core writes its sentences once, with every measure marked: `{8|mm}`, `{letter|fold}`. Here the
 * marks are read in the words and units of the person who reads.
 */
import { clock, day } from "@/app/time";
import { figure, format, QUANTITIES, type QuantityName, type System } from "./quantity";

export type FoldWords = "letter" | "single";

const MARK = /\{([^{}|]+)\|([^{}|]+)\}/g;
const BY_UNIT: Record<string, QuantityName> = { mm: "length", g: "mass", "°C": "temperature" };

const FOLD_NAMES: Record<FoldWords, Record<string, string>> = {
  letter: {
    half: "half fold",
    letter: "letter fold",
    book: "book fold",
    offset_book: "offset book fold",
  },
  single: {
    half: "half fold",
    letter: "single turn",
    book: "double turn",
    offset_book: "offset double turn",
  },
};

export const foldName = (fold: string, words: FoldWords): string => FOLD_NAMES[words][fold] ?? fold;

/** The same fold in the other vocabulary, for a tooltip. */
export const otherFoldName = (fold: string, words: FoldWords): string =>
  foldName(fold, words === "letter" ? "single" : "letter");

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** One marked measure in a person's unit: the sides of something keep their ×. */
function measure(value: string, unit: string, system: System): string {
  if (unit === "K") {
    return system === "metric"
      ? `${value} K`
      : `${figure("number", Number(value) * 1.8, "metric")} °F`;
  }
  const quantity = BY_UNIT[unit];
  if (!quantity) return `${value} ${unit}`;
  const sides = value.split("×").map(Number);
  // What the core rounded stays as it rounded it; only another unit rounds again.
  if (quantity === "length" && system === "metric") return `${value.replaceAll("×", " × ")} mm`;
  if (sides.length === 1) return format(quantity, sides[0] as number, system).replace(/^-/, "−");
  const { shown } = QUANTITIES[quantity];
  return `${sides.map((s) => figure(quantity, s, system)).join(" × ")} ${shown[system]}`;
}

/** A sentence of the core in the person's units and vocabulary. */
export function localise(text: string, system: System, folds: FoldWords): string {
  return text.replace(MARK, (_, value: string, unit: string, at: number) => {
    if (unit === "clock") return clock(value);
    if (unit === "day") return day(value);
    if (unit !== "fold") return measure(value, unit, system);
    const name = foldName(value, folds);
    return at === 0 || /(\. |: )$/.test(text.slice(0, at)) ? capital(name) : name;
  });
}
