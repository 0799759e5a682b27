/** Times of day as the bakery has them, whatever zone a tablet believes it is in. */

let zone: string | undefined;

/** Said once, when the session is known. */
export function inZone(timeZone: string): void {
  zone = timeZone;
}

const say = (at: string | number | Date, options: Intl.DateTimeFormatOptions) => {
  const time = new Date(at);
  // An axis without ticks asks for no time at all.
  if (Number.isNaN(time.getTime())) return "";
  return time.toLocaleString("en-GB", { timeZone: zone, ...options });
};

const HOUR: Intl.DateTimeFormatOptions = { hour: "2-digit", minute: "2-digit" };

/** `09:05` */
export const clock = (at: string | number | Date): string => say(at, HOUR);

/** `Sat, 21 Nov, 09:05` */
export const day = (at: string | number | Date): string =>
  say(at, { weekday: "short", day: "numeric", month: "short", ...HOUR });

/** A day without an hour, `2026-11-28`, as `Sat, 28 Nov`. */
export const date = (on: string): string =>
  new Date(`${on}T12:00Z`).toLocaleString("en-GB", {
    timeZone: "UTC",
    weekday: "short",
    day: "numeric",
    month: "short",
  });

/** `Saturday` */
export const weekday = (at: string | number | Date): string => say(at, { weekday: "long" });

/** A moment as a `datetime-local` input has it, in the bakery's zone: `2026-11-28T04:30`. */
export function wall(at: string | number | Date): string {
  const parts = new Intl.DateTimeFormat("en-CA", {
    timeZone: zone,
    year: "numeric",
    month: "2-digit",
    day: "2-digit",
    hour: "2-digit",
    minute: "2-digit",
    hourCycle: "h23",
  }).formatToParts(new Date(at));
  const of = (type: string) => parts.find((p) => p.type === type)?.value ?? "";
  return `${of("year")}-${of("month")}-${of("day")}T${of("hour")}:${of("minute")}`;
}

/** The moment at which the bakery's clocks show `text`; null where it is no time. */
export function fromWall(text: string): string | null {
  const wanted = Date.parse(`${text}Z`);
  if (Number.isNaN(wanted)) return null;
  // Twice, so that the hour before and after a clock change comes out right.
  let guess = wanted;
  for (let i = 0; i < 2; i++) guess += wanted - Date.parse(`${wall(guess)}Z`);
  return new Date(guess).toISOString();
}
