/** What the lessons ask of the house. */
import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { api, got } from "@/api/client";
import type { Decision } from "./play";

export const lessonsQuery = queryOptions({
  queryKey: ["lessons"],
  queryFn: () => got(api.GET("/api/lessons")),
});

export const morningsQuery = queryOptions({
  queryKey: ["mornings"],
  queryFn: () => got(api.GET("/api/mornings")),
});

export const lessonQuery = (key: string) =>
  queryOptions({
    queryKey: ["lesson", key],
    queryFn: () => got(api.GET("/api/lessons/{key}", { params: { path: { key } } })),
  });

/** The bench as a play stands; without a connection what was read last stays on the screen. */
export const benchQuery = (key: string, decisions: Decision[]) =>
  queryOptions({
    queryKey: ["lesson-bench", key, decisions],
    queryFn: () =>
      got(
        api.POST("/api/lessons/{key}/bench", {
          params: { path: { key } },
          body: { decisions, seconds: 0 },
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });

export const outcomeOf = (key: string, decisions: Decision[], seconds: number) =>
  got(
    api.POST("/api/lessons/{key}/outcome", {
      params: { path: { key } },
      body: { decisions, seconds },
    }),
  );
