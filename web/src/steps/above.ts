/** The sheet from above at a stop: as its kind draws it, or as any sheet is drawn. */
import type { Plan, Stop, Worked } from "@/api/steps";
import { aboveAt, type DrawnAbove } from "@/drawings/views";
import { kindOf } from "./kinds";

export function aboveOf(stop: Stop, plan: Plan, worked: Worked): DrawnAbove {
  const step = plan.steps.find((s) => s.id === stop.key);
  const own = step && kindOf(stop.do).above;
  const drawn = own?.({ stop, plan, worked, step: step as never, made: stop.made as never });
  return drawn ?? aboveAt(stop, plan, worked);
}
