import type { Schemas } from "@/api/client";

type Scale = Exclude<keyof Schemas["Verdict"], "words">;

/** What a bake is judged by, and what a 1 and a 5 look like. */
export const SCALES: [Scale, string, string, string][] = [
  ["lift", "lift", "flat", "tall"],
  ["honeycomb", "honeycomb", "closed", "open and even"],
  ["leaves", "leaves", "merged", "you can count them"],
  ["colour", "colour", "pale", "three browns"],
];

export const day = (iso: string) =>
  new Date(iso).toLocaleString("en-GB", {
    weekday: "short",
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });

/** The time of day; nothing for what is no time (an axis that has no ticks yet). */
export const clock = (at: string | number) => {
  const time = new Date(at);
  return Number.isNaN(time.getTime())
    ? ""
    : time.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
};
