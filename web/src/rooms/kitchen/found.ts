/** Rows of the table of practice by the words that a person looks for. */
import type { Schemas } from "@/api/client";

export type Row = Schemas["Default"];

const words = (text: string) => text.toLowerCase().match(/[\p{L}\d]+/gu) ?? [];

/**
 * The rows that answer best: those in which most of the words begin one of their own. A word that no row
 * knows ("the", "fold") counts for nothing. Empty where none is known.
 */
export function found(rows: Row[], sought: string, said: (row: Row) => string): Row[] {
  const own = rows.map((row) => words(said(row)));
  const known = words(sought).filter((w) => own.some((of) => of.some((o) => o.startsWith(w))));
  const score = own.map((of) => known.filter((w) => of.some((o) => o.startsWith(w))).length);
  const most = Math.max(0, ...score);
  return most ? rows.filter((_, n) => score[n] === most) : [];
}
