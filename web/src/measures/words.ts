/**
 * The core writes its sentences once, metric and in letter and book folds. Here they are put into
 * the words and units of the person who reads.
 */
import { figure, QUANTITIES, type QuantityName, type System } from "./quantity";

export type FoldWords = "letter" | "single";

const BY_UNIT: Record<string, QuantityName> = { mm: "length", g: "mass", "°C": "temperature" };
// One measure, sides joined by ×, or a range: `8 mm`, `440 × 380 mm`, `from 0.5 to 200 mm`.
const MEASURE = /(-?\d+(?:\.\d+)?(?: (?:×|to) -?\d+(?:\.\d+)?)*) (mm|g|°C)(?![\w/³²])/g;

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

function inFoldWords(text: string, words: FoldWords): string {
  if (words === "letter") return text;
  return text.replace(/\b(letter|book) fold\b/gi, (found) => {
    const name = foldName(found.slice(0, found.indexOf(" ")).toLowerCase(), words);
    return found.charAt(0) === found.charAt(0).toUpperCase() ? capital(name) : name;
  });
}

/** A sentence of the core in the person's units and vocabulary. */
export function localise(text: string, system: System, folds: FoldWords): string {
  const named = inFoldWords(text, folds);
  if (system === "metric") return named;
  return named.replace(MEASURE, (_, numbers: string, unit: string) => {
    const quantity = BY_UNIT[unit] as QuantityName;
    const shown = QUANTITIES[quantity].shown[system];
    return `${numbers.replace(/-?\d+(?:\.\d+)?/g, (n) => figure(quantity, Number(n), system))} ${shown}`;
  });
}
