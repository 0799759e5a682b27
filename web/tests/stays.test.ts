import { expect, it } from "vitest";
import { lasting, placesSaid, restMin, restSaid, spentIn, stayAt, stayIn } from "@/steps/stays";

const at = (minute: number) => new Date(Date.parse("2026-03-07T04:00:00Z") + minute * 60_000);
// a night in the freezer, the proofer, and a last chill so that it can be scored
const NIGHT = {
  stays: [stayIn("freezer", 600), stayIn("proofer", 150), stayIn("fridge", 15)],
};

it("is as long as all its stays, and the one that gives is made longer", () => {
  expect(restMin(NIGHT)).toBe(765);
  expect(lasting(NIGHT, 1, 800).stays.map((s) => s.minutes)).toEqual([600, 185, 15]);
  // what is set for its own sake is not cut by a pull
  expect(lasting(NIGHT, 1, 100).stays.map((s) => s.minutes)).toEqual([600, 0, 15]);
});

it("says every place in order", () => {
  expect(placesSaid(NIGHT)).toBe("10 h freezer, 2 h 30 proofer, 15 min fridge");
  expect(placesSaid({ stays: [stayIn("fridge", 40), stayIn("bench", 0)] })).toBe("fridge");
  expect(restSaid({ stays: [stayIn("bench", 10)] })).toBe("rest on the bench, 10 min");
});

it("has every change at its hour, counted from the end after the stay that gives", () => {
  const spent = spentIn(NIGHT, 1, at(0), at(780));
  expect(spent.map((s) => [s.stay.place, s.to])).toEqual([
    ["freezer", at(600)],
    ["proofer", at(765)],
    ["fridge", at(780)],
  ]);
  const [here, next] = stayAt(spent, at(605));
  expect([here?.stay.place, next?.stay.place]).toEqual(["proofer", "fridge"]);
  expect(stayAt(spent, at(900)).map((s) => s?.stay.place)).toEqual(["fridge"]);
});

it("reads what a tablet kept from before a rest had stays", () => {
  const old = { place: "fridge", minutes: 40, on: "usual" } as never;
  expect([restMin(old), placesSaid(old), restSaid(old)]).toEqual([
    40,
    "fridge",
    "into the fridge, 40 min",
  ]);
  expect(spentIn(old, undefined as never, at(0), at(50)).map((s) => s.to)).toEqual([at(50)]);
});
