import type { Schemas } from "@/api/client";
import { fromWall, wall } from "@/app/time";
import { houseTime } from "@/wire/clock";
import { newId } from "@/wire/id";
import { usualHands } from "./HandsEditor";

/** What a plan would first be ordered as: its own pieces at its own weight. */
export function wantedOf(line: Schemas["PlanLine"]): Schemas["Ordered"] {
  return {
    id: newId(),
    plan_id: line.id,
    sizing: "even",
    products: [
      {
        product: line.name.slice(0, 60),
        pieces: line.pieces ?? 40,
        raw_g: Math.max(1, Math.round(line.piece_g ?? 60)),
        loss_pct: 8,
      },
    ],
  };
}

/** A day with one dough in it: for tomorrow at seven, with the hands that usually make it. */
export function newOrder(line: Schemas["PlanLine"]): Schemas["Order"] {
  const tomorrow = wall(houseTime() + 24 * 3_600_000).slice(0, 10);
  const ready_at = fromWall(`${tomorrow}T07:00`) ?? new Date(houseTime()).toISOString();
  return {
    name: "New day",
    doughs: [wantedOf(line)],
    ready_at,
    hands: usualHands(ready_at),
    prefer: "neither",
    held: [],
    quiet: [],
    every: [],
  };
}
