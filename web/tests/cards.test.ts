import { expect, it } from "vitest";
import { freeKey } from "@/rooms/kitchen/freeKey";
import { cardIn } from "@/rooms/kitchen/OwnCards";

const card = { key: "boat", name: "Boat", steps: ["Fold it."], lines: [] };
const others = [{ key: "boat" }, { key: "boat-2" }] as never;

it("gives a card a key that no other has", () => {
  expect(freeKey("Boat", [])).toBe("boat");
  expect(freeKey("Boat", others)).toBe("boat-3");
  expect(freeKey("…", [])).toBe("-");
  expect(freeKey("", [])).toBe("own");
});

it.each([
  ["{", null],
  ["[]", null],
  [JSON.stringify({ format: "eight-turn/plan", card }), null],
  [JSON.stringify({ format: "eight-turn/card", version: 1 }), null],
  [JSON.stringify({ format: "eight-turn/card", version: 1, card }), card],
])("reads the card in a file, or says there is none: %s", (text, found) => {
  expect(cardIn(text)).toEqual(found);
});
