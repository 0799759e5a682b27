import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { useNavigate } from "react-router";
import { api, got, type Schemas } from "./client";
import { queries } from "./queries";

interface Start {
  plan_id: number;
  /** At which step it is already, and since when. */
  begun?: Schemas["Begun"] | null;
}

/** Take a plan to the bench. However often the button is pressed, and answered or not: one run. */
export function useStartRun() {
  const go = useNavigate();
  const ids = useRef(new Map<number, string>());
  return useMutation({
    mutationFn: ({ plan_id, begun = null }: Start) => {
      const id = ids.current.get(plan_id) ?? crypto.randomUUID();
      ids.current.set(plan_id, id);
      return got(api.POST("/api/runs", { body: { id, plan_id, begun } }));
    },
    onSuccess: (run) => {
      queries.invalidateQueries({ queryKey: ["runs"] });
      go(`/bench/${run.id}`);
    },
  });
}
