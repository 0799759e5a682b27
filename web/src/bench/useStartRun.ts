import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { useNavigate } from "react-router";
import { api, got } from "@/api/client";
import { queries } from "@/api/queries";

/** Take a plan to the bench. One press, one run: a second press of the same button is the same run. */
export function useStartRun() {
  const go = useNavigate();
  const id = useRef(crypto.randomUUID());
  return useMutation({
    mutationFn: (plan_id: number) =>
      got(api.POST("/api/runs", { body: { id: id.current, plan_id } })),
    onSuccess: (run) => {
      queries.invalidateQueries({ queryKey: ["runs"] });
      go(`/bench/${run.id}`);
    },
  });
}
