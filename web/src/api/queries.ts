/** What the screens read, by name. */
import { QueryClient, useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import { api, got, Offline, Problem, type Schemas } from "./client";

export const queries = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (count, error) => error instanceof Offline && count < 2,
      staleTime: 5_000,
    },
  },
});

export const useSession = () =>
  useQuery({
    queryKey: ["session"],
    queryFn: () => got(api.GET("/api/session")),
    staleTime: 60_000,
  });

export const usePlans = () =>
  useQuery({ queryKey: ["plans"], queryFn: () => got(api.GET("/api/plans")) });

export const useKitchen = () =>
  useQuery({ queryKey: ["kitchen"], queryFn: () => got(api.GET("/api/kitchen")) });

export const useRuns = () =>
  useQuery({
    queryKey: ["runs"],
    queryFn: () => got(api.GET("/api/runs")),
    refetchInterval: 15_000,
  });

/**
 * A plan worked. While the next answer is on its way, and while a field is at fault, the last sheets
 * that could be worked stay on the screen.
 */
export function useWorked(plan: Schemas["Plan"]) {
  const work = useQuery({
    queryKey: ["work", plan],
    queryFn: () => got(api.POST("/api/work", { body: plan })),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
  const last = useRef(work.data);
  if (work.data) last.current = work.data;
  return { ...work, data: last.current };
}

/** What a failed query has to say, in a sentence. */
export function sentence(error: unknown): string {
  if (error instanceof Problem || error instanceof Offline) return error.message;
  return "Something went wrong on this screen. Reload to try again.";
}
