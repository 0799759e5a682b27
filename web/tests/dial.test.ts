import { expect, it } from "vitest";
import { gapsOf } from "@/rooms/kitchen/Dial";

it("reads gaps as they are written, the widest first", () => {
  expect(gapsOf("40; 28; 20")).toEqual([40, 28, 20]);
  expect(gapsOf("4, 5, 8, 40, 8")).toEqual([40, 8, 5, 4]);
  expect(gapsOf("8,5 6")).toEqual([8.5, 6]);
  expect(gapsOf("")).toEqual([]);
  expect(gapsOf("40; wide")).toBeNull();
  expect(gapsOf("40; -3")).toBeNull();
});
