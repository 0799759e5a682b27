/** What the screens read, by name. */
import { QueryClient, queryOptions, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import { localise } from "@/measures/words";
import { leavingIsToBeTold, leavingIsTold } from "@/wire/leaving";
import { api, got, Offline, Problem, type Schemas } from "./client";

export const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (count, error) => error instanceof Offline && count < 2,
      staleTime: 5_000,
      // asked for whatever the browser believes of the network: the bakehouse is in the house
      networkMode: "always",
    },
    mutations: { networkMode: "always" },
  },
});

export const useSession = () =>
  useQuery({
    queryKey: ["session"],
    queryFn: async () => {
      // somebody signed out here while the house could not be told: that comes first
      if (leavingIsToBeTold()) {
        const session = await got(api.DELETE("/api/session")).catch((error) => {
          if (error instanceof Problem && error.status === 401) return null;
          throw error;
        });
        leavingIsTold();
        if (session) return session;
      }
      return got(api.GET("/api/session"));
    },
    staleTime: 60_000,
  });

/** Whether the house has simulated things to try: the demo has, a real one has not. */
export const useSimulated = (): boolean => (useSession().data?.demo_accounts.length ?? 0) > 0;

export const usePlans = () =>
  useQuery({ queryKey: ["plans"], queryFn: () => got(api.GET("/api/plans")) });

export const useKitchen = () =>
  useQuery({ queryKey: ["kitchen"], queryFn: () => got(api.GET("/api/kitchen")) });

/** The doughs under way. */
export const underWay = queryOptions({
  queryKey: ["runs", "under way"],
  queryFn: () => got(api.GET("/api/runs", { params: { query: { under_way: true } } })),
});

export const useRuns = () => useQuery({ ...underWay, refetchInterval: 15_000 });

/** The day that is started; null where none is. */
export const today = queryOptions({
  queryKey: ["today"],
  queryFn: () => got(api.GET("/api/today")),
});

/** How warm it is today, as somebody of the house said. */
export const climate = queryOptions({
  queryKey: ["climate"],
  queryFn: () => got(api.GET("/api/climate")),
  refetchInterval: 60_000,
});

/** Everybody of the house. */
export const people = queryOptions({
  queryKey: ["people"],
  queryFn: () => got(api.GET("/api/people")),
});

/** Every dough that was run, latest first, page by page. */
export interface Sought {
  words?: string;
  family?: Schemas["Family"];
  by?: string;
  good?: boolean;
}

export const useBook = (sought: Sought = {}) =>
  useInfiniteQuery({
    queryKey: ["runs", "book", sought],
    queryFn: ({ pageParam }) =>
      got(
        api.GET("/api/runs", {
          params: { query: { ...sought, older_than: pageParam ?? undefined } },
        }),
      ),
    initialPageParam: null as string | null,
    getNextPageParam: (page: Schemas["RunPage"]) => page.older_than,
    refetchInterval: 15_000,
  });

/**
 * A plan worked. While the next answer is on its way, and while a field is at fault, the last sheets
 * that could be worked stay on the screen.
 */
export function useWorked(plan: Schemas["Plan"]) {
  const work = useQuery({
    queryKey: ["work", plan],
    queryFn: ({ signal }) => got(api.POST("/api/work", { body: plan, signal })),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
  const last = useRef(work.data);
  if (work.data) last.current = work.data;
  return { ...work, data: last.current };
}

/** What a failed query has to say, in a sentence. */
export function sentence(error: unknown): string {
  // Where no field stands by, marked measures are read in metric.
  if (error instanceof Problem) return localise(error.message, "metric", "letter");
  if (error instanceof Offline) return error.message;
  return "Something went wrong on this screen. Reload to try again.";
}
