/** A new plan for what a step puts away, opened once it is made. */
import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, got } from "@/api/client";
import { queries } from "@/api/queries";
import type { Plan } from "@/api/steps";

export function useOtherPart() {
  const go = useNavigate();
  return useMutation({
    mutationFn: (body: { plan: Plan; stop: string }) =>
      got(api.POST("/api/plans/other-part", { body })),
    onSuccess: (made, { stop }) => {
      queries.invalidateQueries({ queryKey: ["plans"] });
      go(`/plans/${made.id}?step=${stop}`);
    },
  });
}
