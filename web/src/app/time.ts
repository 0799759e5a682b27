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
