/** A plan's warmth, today: one room and one fridge for every plan, kept on this screen for the day. */
import { useDebouncedValue, useLocalStorage } from "@mantine/hooks";
import { keepPreviousData, queryOptions, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { api, got, type Schemas } from "@/api/client";
import { wall } from "@/app/time";
import { houseTime } from "@/wire/clock";

/** What is different today, °C; empty where it is as the kitchen says. */
export interface Today {
  day: string;
  room_c?: number;
  fridge_c?: number;
}

const SETTLES_MS = 180;

const thisDay = () => wall(houseTime()).slice(0, 10);

export function useToday(): [Today, (today: Omit<Today, "day">) => void] {
  const [kept, keep] = useLocalStorage<Today>({
    key: "eight-turn.today",
    defaultValue: { day: thisDay() },
    getInitialValueInEffect: false,
  });
  // Yesterday's heat is not today's.
  const today = kept.day === thisDay() ? kept : { day: thisDay() };
  return [today, (next) => keep({ ...next, day: thisDay() })];
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
