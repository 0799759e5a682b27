import type { Schemas } from "@/api/client";

type Scale = Exclude<keyof Schemas["Verdict"], "words" | "before_g" | "after_g">;

/** What a bake is judged by, and what a 1 and a 5 look like. */
export const SCALES: [Scale, string, string, string][] = [
  ["lift", "lift", "flat", "tall"],
  ["honeycomb", "honeycomb", "closed", "open and even"],
  ["leaves", "leaves", "merged", "you can count them"],
  ["colour", "colour", "pale", "three browns"],
  ["shape", "shape", "leaning, opened", "even and straight"],
  ["dryness", "dryness", "damp inside", "dry leaves"],
  ["fat", "fat on the tray", "swimming", "none"],
  ["taste", "taste", "flat", "as it should be"],
];
