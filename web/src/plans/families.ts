import type { Schemas } from "@/api/client";

export const FAMILIES: Record<Schemas["Family"], string> = {
  croissant: "croissant",
  danish: "Danish",
  brioche: "laminated brioche",
  kouign: "kouign-amann",
  puff: "puff",
};
