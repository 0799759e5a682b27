import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { Problem } from "@/api/client";

interface Asked<D, A> {
  amendment: A;
  path: string;
  /** What comes after, when it went well. */
  then?: (made: D) => void;
}

/**
 * Changes that the core works out, one after the other: each is asked of the document that the one before
 * it made. Complaints about the request itself belong to its field.
 */
export function useAmend<D, A>(
  document: D,
  change: (made: D, path: string) => void,
  ask: (from: D, amendment: A) => Promise<D>,
) {
  const latest = useRef(document);
  latest.current = document;
  const asking = useMutation({
    scope: { id: "amend" },
    mutationFn: async ({ amendment }: Asked<D, A>) => {
      const from = latest.current;
      return { from, made: await ask(from, amendment) };
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
    amend: (amendment: A, at: string, then?: Asked<D, A>["then"]) =>
      asking.mutate({ amendment, path: at, then }),
    faults,
    forget: asking.reset,
  };
}
