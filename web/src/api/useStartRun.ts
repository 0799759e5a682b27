import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { useNavigate } from "react-router";
import { api, got } from "./client";
import { queries } from "./queries";

/** Take a plan to the bench. However often the button is pressed, and answered or not: one run. */
export function useStartRun() {
  const go = useNavigate();
  const ids = useRef(new Map<number, string>());
  return useMutation({
    mutationFn: (plan_id: number) => {
      const id = ids.current.get(plan_id) ?? crypto.randomUUID();
      ids.current.set(plan_id, id);
      return got(api.POST("/api/runs", { body: { id, plan_id } }));
    },
    onSuccess: (run) => {
      queries.invalidateQueries({ queryKey: ["runs"] });
      go(`/bench/${run.id}`);
    },
  });
}
