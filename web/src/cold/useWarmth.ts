/** A plan's warmth, today: one room and one fridge of the house for the day, and what is tried on a plan. */
import { useDebouncedValue } from "@mantine/hooks";
import {
  keepPreviousData,
  queryOptions,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, got, type Schemas } from "@/api/client";
import { climate } from "@/api/queries";

/** What is different today, °C; empty where it is as the kitchen says. */
export interface Today {
  room_c?: number;
  fridge_c?: number;
}

const SETTLES_MS = 180;

/** What somebody said of today, for all; what is tried here and judged by on this screen alone. */
export function useToday() {
  const queries = useQueryClient();
  const said = useQuery(climate).data;
  const [tried, attempt] = useState<Today>({});
  const house: Today = { room_c: said?.room_c ?? undefined, fridge_c: said?.fridge_c ?? undefined };
  const say = useMutation({
    mutationFn: (today: Today) => got(api.PUT("/api/climate", { body: today })),
    onSuccess: (answer) => {
      queries.setQueryData(climate.queryKey, answer);
      queries.invalidateQueries({ queryKey: ["run-warmth"] });
      attempt({});
    },
  });
  const trying = tried.room_c !== undefined || tried.fridge_c !== undefined;
  return {
    today: { room_c: tried.room_c ?? house.room_c, fridge_c: tried.fridge_c ?? house.fridge_c },
    said,
    trying,
    attempt,
    say: (today: Today) => say.mutate(today),
    failed: say.error,
  };
}

/** A step of the hand so small that it is likely to go on, K. */
const SMALL_STEP = 1;

/** A plan's warmth in a room and a fridge, as a query. */
const asked = (plan: Schemas["Plan"], what_if: boolean, room_c?: number, fridge_c?: number) =>
  queryOptions({
    queryKey: ["warmth", plan, room_c, fridge_c, what_if],
    queryFn: ({ signal }) =>
      got(
        api.POST("/api/warmth", {
          body: { plan, today: { room_c, fridge_c, starts: [], room_at_min: 0 }, what_if },
          signal,
        }),
      ),
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 30_000,
  });

/** Where a dial comes to when it goes on as it went; where it is, when nobody can say. */
const onwards = (now?: number, was?: number) =>
  now === undefined || was === undefined || Math.abs(now - was) > SMALL_STEP
    ? now
    : now + (now - was);

export function useWarmth(plan: Schemas["Plan"], today: Today, what_if = false) {
  const { room_c, fridge_c } = today;
  // Sizes follow every key that is pressed; the simulation waits until the hand rests.
  const [settled] = useDebouncedValue(plan, SETTLES_MS);
  const queries = useQueryClient();
  const found = useQuery({
    ...asked(settled, what_if, room_c, fridge_c),
    placeholderData: keepPreviousData,
  });
  // What a slider shows next is asked for while the hand still looks at this.
  const before = useRef({ room_c, fridge_c });
  const answered = found.isSuccess && !found.isPlaceholderData;
  useEffect(() => {
    if (!answered) return;
    const next = [
      onwards(room_c, before.current.room_c),
      onwards(fridge_c, before.current.fridge_c),
    ] as const;
    before.current = { room_c, fridge_c };
    queries.prefetchQuery(asked(settled, what_if, ...next));
  }, [answered, queries, settled, what_if, room_c, fridge_c]);
  return found;
}
