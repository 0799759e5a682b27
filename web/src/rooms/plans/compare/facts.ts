/** What plans are compared by: one list for the comparison and the search. */
import type { Schemas } from "@/api/client";
import type { QuantityName } from "@/measures/quantity";

type Facts = Schemas["Facts"];

export interface Fact {
  label: string;
  of: (facts: Facts) => number | null | undefined;
  as: QuantityName | "leaf" | "count" | "span";
}

export const FACTS: Fact[] = [
  { label: "Butter layers", of: (f) => f.butter_layers, as: "count" },
  { label: "All leaves", of: (f) => f.leaves, as: "count" },
  { label: "Butter leaf", of: (f) => f.butter_um, as: "leaf" },
  { label: "Dough leaf", of: (f) => f.dough_um, as: "leaf" },
  { label: "Full layers over", of: (f) => f.full_pct, as: "share" },
  { label: "Share lying in a fold", of: (f) => f.bent_pct, as: "share" },
  { label: "Left over", of: (f) => f.waste_g, as: "mass" },
  { label: "Turns", of: (f) => f.turns, as: "count" },
  { label: "Rests between", of: (f) => f.rests, as: "count" },
  { label: "At the bench", of: (f) => f.bench_min, as: "span" },
  { label: "From start to cut", of: (f) => f.total_min, as: "span" },
  { label: "Longest sheet", of: (f) => f.longest_mm, as: "length" },
  { label: "Pieces", of: (f) => f.pieces, as: "count" },
  { label: "Each", of: (f) => f.piece_g, as: "mass" },
];

/** Whether a fact is the same everywhere, as far as anyone can read it. */
export const alike = (shown: string[]): boolean => new Set(shown).size <= 1;
