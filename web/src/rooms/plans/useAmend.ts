import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { api, got, Problem, type Schemas } from "@/api/client";

type Plan = Schemas["Plan"];
interface Asked {
  amendment: Schemas["Amendment"];
  path: string;
  /** What comes after, when it went well. */
  then?: (made: Plan) => void;
}

/**
 * Changes that the core works out, one after the other: each is asked of the plan that the one before
 * it made. Complaints about the request itself belong to its field.
 */
export function useAmend(plan: Plan, change: (plan: Plan, path: string) => void) {
  const latest = useRef(plan);
  latest.current = plan;
  const asking = useMutation({
    scope: { id: "amend" },
    mutationFn: async ({ amendment }: Asked) => {
      const from = latest.current;
      return { from, made: await got(api.POST("/api/amend", { body: { plan: from, amendment } })) };
    },
    onSuccess: ({ from, made }, asked) => {
      // An edit made while the answer was on its way must not be lost: ask again from there.
      if (from !== latest.current) return void asking.mutate(asked);
      // the next in line may be asked before the screen is drawn again
      latest.current = made;
      change(made, asked.path);
      asked.then?.(made);
    },
  });
  const found = asking.error instanceof Problem ? asking.error.faults : [];
  const path = asking.variables?.path ?? "";
  const faults = Object.fromEntries(
    found.map((f) => [/[.[]/.test(f.field) ? f.field : path, f.message]),
  );
  return {
    amend: (amendment: Schemas["Amendment"], at: string, then?: Asked["then"]) =>
      asking.mutate({ amendment, path: at, then }),
    faults,
    forget: asking.reset,
  };
}
