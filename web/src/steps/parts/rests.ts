import type { Schemas } from "@/api/client";

type Rest = Schemas["Rest"];

/** A rest in one place, lying as it usually does. */
export const restIn = (place: Rest["place"], minutes: number): Rest => ({
  place,
  minutes,
  on: "usual",
  iced: false,
  chilled: "not",
});
