import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { api, got, Problem, type Schemas } from "@/api/client";

type Plan = Schemas["Plan"];
interface Asked {
  plan: Plan;
  amendment: Schemas["Amendment"];
  path: string;
  /** What comes after, when it went well. */
  then?: (made: Plan) => void;
}

/** Changes that the core works out. Complaints about the request itself belong to its field. */
export function useAmend(plan: Plan, change: (plan: Plan, path: string) => void) {
  const latest = useRef(plan);
  latest.current = plan;
  const asking = useMutation({
    mutationFn: ({ plan, amendment }: Asked) =>
      got(api.POST("/api/amend", { body: { plan, amendment } })),
    onSuccess: (made, asked) => {
      // An edit made while the answer was on its way must not be lost: ask again from there.
      if (asked.plan === latest.current) {
        change(made, asked.path);
        asked.then?.(made);
      } else asking.mutate({ ...asked, plan: latest.current });
    },
  });
  const found = asking.error instanceof Problem ? asking.error.faults : [];
  const path = asking.variables?.path ?? "";
  const faults = Object.fromEntries(
    found.map((f) => [/[.[]/.test(f.field) ? f.field : path, f.message]),
  );
  return {
    amend: (amendment: Schemas["Amendment"], at: string, then?: Asked["then"]) =>
      asking.mutate({ plan: latest.current, amendment, path: at, then }),
    faults,
    forget: asking.reset,
  };
}
