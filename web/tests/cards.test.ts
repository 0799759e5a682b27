import { expect, it } from "vitest";
import { freeKey } from "@/rooms/kitchen/freeKey";
import { without } from "@/rooms/kitchen/OwnCards";

const others = [{ key: "boat" }, { key: "boat-2" }] as never;

it("gives a card a key that no other has", () => {
  expect(freeKey("Boat", [])).toBe("boat");
  expect(freeKey("Boat", others)).toBe("boat-3");
  expect(freeKey("…", [])).toBe("-");
  expect(freeKey("", [])).toBe("own");
});

it("lets go of what belongs to a step, and keeps the rest with theirs", () => {
  const of = [0, 1, 1, 2].map((step, n) => ({ step, n }));
  expect(without(of, 1)).toEqual([
    { step: 0, n: 0 },
    { step: 1, n: 3 },
  ]);
});
