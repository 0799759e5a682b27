/** When a plan is to begin, where somebody said so: kept on this tablet, for the strip and its paper. */
import { useSessionStorage } from "@mantine/hooks";
import { clock, day } from "@/app/time";

const MINUTE = 60_000;

/** The moment so many minutes after another. */
export const later = (at: string, minutes: number) =>
  new Date(Date.parse(at) + minutes * MINUTE).toISOString();

/** The clock at a minute of a plan; with its day where that is another than the one it begins on. */
export function timeAt(begins: string, minutes: number): string {
  const at = later(begins, minutes);
  const dayOf = (moment: string) => day(moment).slice(0, -7);
  return dayOf(at) === dayOf(begins) ? clock(at) : `${day(at).slice(0, 3)} ${clock(at)}`;
}

export const useBegins = (planId: number | string) =>
  useSessionStorage<string | null>({ key: `begins.${planId}`, defaultValue: null });
