/** The names of everything one chooses from, as the core has them: none is written here again. */
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, got, type Schemas } from "./client";

type Words = Schemas["TradeWords"];
const NONE: Words = {
  words: {},
  steps: [],
  multiplies: {},
  margins: [],
  blocks: [],
  squares: [],
  round_shapes: [],
  tall_shapes: [],
  limits: {},
  grounds: {},
  old_dough: "",
};

export function useTrade() {
  const trade =
    useQuery({
      queryKey: ["trade"],
      queryFn: () => got(api.GET("/api/trade")),
      staleTime: Number.POSITIVE_INFINITY,
    }).data ?? NONE;
  return useMemo(
    () => ({
      ...trade,
      /** What a choice is called. */
      said: (of: string, value: string) =>
        trade.words[of]?.find((w) => w.value === value)?.said ?? value,
      /** All choices, for an input. */
      options: <T extends string>(of: string) =>
        (trade.words[of] ?? []).map(({ value, said }) => ({
          value: value as T,
          label: said.charAt(0).toUpperCase() + said.slice(1),
        })),
    }),
    [trade],
  );
}
