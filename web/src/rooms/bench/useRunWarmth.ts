/** A run by its temperatures: the window of its rest, and what of the plan moves. */
import { useQuery } from "@tanstack/react-query";
import { api, got } from "@/api/client";
import type { RunView } from "./now";

export function useRunWarmth(view: RunView) {
  const { deeds, readings, rests, phase } = view.standing;
  return useQuery({
    // Only what happened changes it: the clock itself does not.
    queryKey: ["run-warmth", view.id, phase, deeds, readings, rests],
    queryFn: () =>
      got(api.GET("/api/runs/{run_id}/warmth", { params: { path: { run_id: view.id } } })),
    enabled: phase === "work" || phase === "rest",
    staleTime: Number.POSITIVE_INFINITY,
  }).data;
}
