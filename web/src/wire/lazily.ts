/** A part of the screen that is fetched when it is first wanted. */
import { type ComponentType, lazy } from "react";

export function lazily<P extends object>(fetched: () => Promise<ComponentType<P>>) {
  return lazy(async () => ({ default: await fetched() }));
}
