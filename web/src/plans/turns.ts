/** Adding and taking away turns. */
import type { Schemas } from "@/api/client";
import { restIn } from "./rests";

type Plan = Schemas["Plan"];

/** The plan with one more turn at `at`, like the one before it. */
export function addTurn(plan: Plan, at: number): Plan {
  const like = plan.turns[at - 1] ?? plan.turns[0];
  const fresh: Schemas["Turn"] = like
    ? { ...like }
    : {
        fold: "letter",
        roll_to_mm: 8,
        rest: restIn("fridge", 30),
        stacked: false,
        seam_pct: 200 / 3,
        short_mm: 0,
        uneven_pct: 0,
      };
  return { ...plan, turns: plan.turns.toSpliced(at, 0, fresh) };
}

export const removeTurn = (plan: Plan, at: number): Plan => ({
  ...plan,
  turns: plan.turns.toSpliced(at, 1),
});
