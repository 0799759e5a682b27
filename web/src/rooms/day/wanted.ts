import type { Schemas } from "@/api/client";

/** What a plan would first be ordered as: its own pieces at its own weight. */
export function wantedOf(line: Schemas["PlanLine"]): Schemas["Ordered"] {
  return {
    plan_id: line.id,
    sizing: "even",
    products: [
      {
        product: "Piece",
        pieces: line.pieces ?? 40,
        raw_g: Math.max(1, Math.round(line.piece_g ?? 60)),
        loss_pct: 8,
      },
    ],
  };
}
