/** A plan's warmth, today: one room and one fridge for every plan, kept on this screen for the day. */
import { useLocalStorage } from "@mantine/hooks";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, got, type Schemas } from "@/api/client";

/** What is different today, °C; empty where it is as the kitchen says. */
export interface Today {
  day: string;
  room_c?: number;
  fridge_c?: number;
}

const thisDay = () => new Date().toDateString();

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
  return useQuery({
    queryKey: ["warmth", plan, room_c, fridge_c, what_if],
    queryFn: ({ signal }) =>
      got(
        api.POST("/api/warmth", {
          body: { plan, today: { room_c, fridge_c, starts: [] }, what_if },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 30_000,
  });
}
