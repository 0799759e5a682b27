/** A plan's warmth, today: one room and one fridge for every plan, kept on this screen for the day. */
import { useDebouncedValue, useLocalStorage } from "@mantine/hooks";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
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

export function useWarmth(plan: Schemas["Plan"], today: Today, what_if = false) {
  const { room_c, fridge_c } = today;
  // Sizes follow every key that is pressed; the simulation waits until the hand rests.
  const [settled] = useDebouncedValue(plan, SETTLES_MS);
  return useQuery({
    queryKey: ["warmth", settled, room_c, fridge_c, what_if],
    queryFn: ({ signal }) =>
      got(
        api.POST("/api/warmth", {
          body: { plan: settled, today: { room_c, fridge_c, starts: [], room_at_min: 0 }, what_if },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 30_000,
  });
}
