/** What this tablet keeps of the house is let go when somebody signs out. What waits to be sent stays. */
import type { QueryClient } from "@tanstack/react-query";
import { nobodyHere } from "./here";
import { forgetRead } from "./keep";
import { forgetSent } from "./sent";

const GO = ["eight-turn.half.", "eight-turn.today", "eight-turn.play."];

export async function forgetTheHouse(queries: QueryClient): Promise<void> {
  queries.removeQueries({ predicate: (query) => query.queryKey[0] !== "session" });
  nobodyHere();
  for (const key of Object.keys(localStorage))
    if (GO.some((start) => key.startsWith(start))) localStorage.removeItem(key);
  await Promise.all([forgetRead(), forgetSent()]);
}
