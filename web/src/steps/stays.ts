/** Where a dough rests, one place after another: what a plan says, and the hours of it at the bench. */
import type { Schemas } from "@/api/client";
import { span } from "@/measures/quantity";

type Rest = Schemas["Rest"];
export type Stay = Schemas["Stay"];
export type Place = Schemas["Place"];

/** A stay in a place, lying as it usually does. */
export const stayIn = (place: Place, minutes: number): Stay => ({
  place,
  minutes,
  on: "usual",
  iced: false,
  chilled: "not",
});

/** Its stays. What a tablet kept from before version 5 has one place, in the rest itself. */
const staysOf = (rest: Rest | (Stay & { stays?: undefined })): Stay[] => rest.stays ?? [rest];

/** How long a rest is in all. */
export const restMin = (rest: Rest | null | undefined) =>
  rest ? staysOf(rest).reduce((sum, stay) => sum + stay.minutes, 0) : 0;

/** Where it really lies: the stays without a minute left out. */
export const passed = (rest: Rest) => staysOf(rest).filter((stay) => stay.minutes > 0);

export const withStay = (rest: Rest, n: number, stay: Partial<Stay>): Rest => ({
  stays: staysOf(rest).map((one, k) => (k === n ? { ...one, ...stay } : one)),
});

/** The rest with another length: the stay that gives takes it. */
export const lasting = (rest: Rest, gives: number, minutes: number): Rest => {
  const others = restMin(rest) - (staysOf(rest)[gives]?.minutes ?? 0);
  return withStay(rest, gives, { minutes: Math.max(minutes - others, 0) });
};

export const onOrIn = (place: Place) => (place === "bench" ? "on the bench" : `in the ${place}`);
export const ontoOrInto = (place: Place) =>
  place === "bench" ? "onto the bench" : `into the ${place}`;

/** Its places in order, with the minutes of each where it has several: `10 min freezer, 30 min fridge`. */
export function placesSaid(rest: Rest): string {
  const all = passed(rest);
  if (all.length < 2) return (all[0] ?? staysOf(rest)[0])?.place ?? "";
  return all.map((stay) => `${span(stay.minutes)} ${stay.place}`).join(", ");
}

/** A stay at the bench: from when until when. */
export interface Spent {
  stay: Stay;
  from: Date;
  to: Date;
}

const MINUTE = 60_000;

/**
 * The stays of a rest by the clock. It may have been made longer or shorter at the bench: what comes before
 * the stay that gives is counted from its beginning, what comes after from its end.
 */
export function spentIn(rest: Rest, gives: number, since: Date, until: Date): Spent[] {
  const whole = lasting(rest, gives ?? 0, (until.getTime() - since.getTime()) / MINUTE);
  let at = since.getTime();
  return passed(whole).map((stay) => {
    const from = at;
    at = Math.min(at + stay.minutes * MINUTE, Math.max(until.getTime(), from));
    return { stay, from: new Date(from), to: new Date(at) };
  });
}

/** Where it lies at a moment, and what comes after that; at the end the last of them. */
export function stayAt(spent: Spent[], clock: Date): [here?: Spent, next?: Spent] {
  const n = spent.findIndex((one) => clock < one.to);
  return n < 0 ? [spent.at(-1)] : [spent[n], spent[n + 1]];
}

/** What is done with it next, in a few words: `into the fridge, 40 min`; every place where it has several. */
export const restSaid = (rest: Rest) =>
  passed(rest)
    .map((stay, n) => {
      const where =
        n === 0 && stay.place === "bench" ? "rest on the bench" : ontoOrInto(stay.place);
      return `${where}, ${span(stay.minutes)}`;
    })
    .join("; then ");

/** That it is over, by the place it comes out of. */
export const outOf = (rest: Rest | null | undefined) => {
  const place = rest && passed(rest).at(-1)?.place;
  return !place || place === "bench" ? "Rest on the bench over" : `Out of the ${place}`;
};
