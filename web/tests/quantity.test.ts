import { describe, expect, it } from "vitest";
import { figure, format, leaf, parse, type QuantityName, span } from "@/measures/quantity";
import { snapped, stepped } from "@/measures/steps";
import numbers from "./written/numbers.json";

const value = (...args: Parameters<typeof parse>) => {
  const read = parse(...args);
  return "value" in read ? Number(read.value.toFixed(4)) : read.complaint;
};

describe("what a baker types", () => {
  it.each([
    ["8", 8],
    ["8mm", 8],
    ["0,8 cm", 8],
    [" 12.5 ", 12.5],
    ["1/2 in", 12.7],
    ["1 1/2 in", 38.1],
    ["½ in", 12.7],
    ["16 ½ in", 419.1],
    ["⅜ in", 9.525],
    ["17 5/16 in", 439.7375],
    ["1½in", 38.1],
    ['2"', 50.8],
    ["0.3 m", 300],
  ])("reads the length %s as %d mm", (typed, mm) => {
    expect(value("length", typed, "metric")).toBe(mm);
  });

  it("takes a bare number in the person's own unit", () => {
    expect(value("length", "1/2", "imperial")).toBe(12.7);
    expect(value("mass", "16", "imperial")).toBe(453.5924);
    expect(value("temperature", "50", "imperial")).toBe(10);
  });

  it.each([
    ["2.4 kg", 2400],
    ["1 lb", 453.5924],
    ["1 lb 2 oz", 510.2914],
    ["1lb2oz", 510.2914],
    ["5 lb ½ oz", 2282.1366],
    ["1 kg 250 g", 1250],
    ["650", 650],
  ])("reads the mass %s", (typed, g) => {
    expect(value("mass", typed, "metric")).toBe(g);
  });

  it.each([
    ["45", 45],
    ["1:30", 90],
    ["1 h 30", 90],
    ["14h", 840],
  ])("reads the time %s", (typed, min) => {
    expect(value("time", typed, "metric")).toBe(min);
  });

  it.each([
    ["1 ft 2 lb", "is not a unit for this"],
    ["", "Enter a length"],
    ["a good deal", "is not a length"],
    ["1/0 in", "is not a length"],
    ["8 kg", "is not a unit for this"],
    ["NaN", "is not a length"],
    ["Infinity", "is not a length"],
    ["1e9", "is not a unit for this"],
  ])("says why it cannot read “%s”", (typed, says) => {
    expect(value("length", typed, "metric")).toContain(says);
  });

  it("knows when there is something to say about what it understood", () => {
    expect(parse("length", "8", "metric")).toMatchObject({ plain: true });
    expect(parse("length", "0,8 cm", "metric")).toMatchObject({ plain: false });
  });
});

describe("what a baker reads", () => {
  it("comes back as it went in", () => {
    for (const mm of [8, 12.7, 300.5]) {
      expect(value("length", figure("length", mm, "metric"), "metric")).toBe(mm);
    }
  });

  it("drops what says nothing", () => {
    expect(format("length", 300, "metric")).toBe("300 mm");
    expect(format("length", 15.53, "metric")).toBe("15.5 mm");
    expect(format("temperature", 4, "imperial")).toBe("39.2 °F");
  });

  it("says many ounces as pounds", () => {
    expect(format("mass", 500, "imperial")).toBe("17.64 oz");
    expect(format("mass", 2268, "imperial")).toBe("5 lb");
  });

  it("rounds a share as the sentences of the core do", () => {
    for (const [value, words] of numbers as [number, string][])
      expect(figure("share", value, "metric"), String(value)).toBe(words);
  });

  it.each([
    [419.1, "16 ½ in"],
    [440, "17 5/16 in"],
    [9.525, "⅜ in"],
    [8, "5/16 in"],
    [25.4, "1 in"],
    [1800, "70 ⅞ in"],
    // a sheet is thinner than a ruler tells
    [4, "0.16 in"],
    [3.5, "0.14 in"],
    [0, "0 in"],
  ])("says %d mm in inches as a ruler has them", (mm, said) => {
    expect(format("length", mm, "imperial")).toBe(said);
  });

  it("reads back what it says of a length, to within half a sixteenth", () => {
    for (let mm = 1; mm < 3000; mm += 7.3) {
      const read = parse("length", format("length", mm, "imperial"), "imperial");
      expect("value" in read && Math.abs(read.value - mm), String(mm)).toBeLessThanOrEqual(0.8);
    }
  });

  it("says minutes, hours and leaves in their own way", () => {
    expect([span(12), span(120), span(845), span(-5)]).toEqual([
      "12 min",
      "2 h",
      "14 h 05",
      "−5 min",
    ]);
    expect([36.14, 1.34, 1080, 19400].map((um) => leaf(um, "metric"))).toEqual([
      "36 µm",
      "1.3 µm",
      "1.1 mm",
      "19.4 mm",
    ]);
    expect([leaf(36.14, "imperial"), leaf(10160, "imperial")]).toEqual(["36 µm", "0.4 in"]);
  });
});

describe("a sum", () => {
  it.each<[QuantityName, string, number]>([
    ["mass", "3 × 58 g", 174],
    ["mass", "3x58", 174],
    ["mass", "1,2 kg + 200", 1400],
    ["mass", "1,2 kg + 200 - 50", 1350],
    ["mass", "40*58 + 2 kg", 4320],
    ["mass", "2 kg / 8", 250],
    ["length", "2 x 30 cm", 600],
    ["time", "3 × 25", 75],
    ["time", "1 h + 20", 80],
    ["temperature", "25 - 4", 21],
    ["percent", "100 / 8", 12.5],
    ["count", "3 × 6", 18],
  ])("of %s, %s, is understood", (name, text, wanted) => {
    expect(parse(name, text, "metric")).toEqual({ value: wanted, plain: false });
  });

  it("is in the unit that is shown, in another's units too", () => {
    expect(value("mass", "3 × 2", "imperial")).toBe(170.0971);
    expect(value("length", "2 x 16 1/2", "imperial")).toBe(838.2);
    expect(value("temperature", "60 + 8", "imperial")).toBe(20);
    // a fraction is no sum
    expect(value("length", "1/2", "imperial")).toBe(12.7);
    expect(value("length", "16 1/2 in", "metric")).toBe(419.1);
  });

  it.each(["3 × ", "2 kg × 3 kg", "4 + kg", "5 / 0", "3 × 5 cups", "2 - - 3", "7 +"])(
    "that makes no sense, %s, is refused in words",
    (text) => {
      expect(value("mass", text, "metric")).toMatch(/^“|^Enter|is not/);
    },
  );
  it("of things that are counted comes out whole or not at all", () => {
    expect(value("count", "10 / 4", "metric")).toMatch(/not|counted/);
  });
});

describe("a baker's step", () => {
  it.each<[QuantityName, number, number, number]>([
    ["length", 4, 4.5, 3.5],
    ["length", 4.2, 4.5, 4],
    ["length", 30, 31, 29.5],
    ["length", 597, 600, 595],
    ["length", 100, 105, 99],
    ["time", 42, 45, 40],
    ["time", 180, 195, 175],
    ["time", 9, 10, 8],
    ["temperature", -18, -17, -19],
    ["mass", 1980, 2000, 1950],
    ["percent", 2.1, 2.2, 2],
    ["count", 3, 4, 2],
  ])("of %s from %d is to %d and %d", (name, from, up, down) => {
    expect(stepped(name, from, 1, "metric")).toBe(up);
    expect(stepped(name, from, -1, "metric")).toBe(down);
  });

  it("is what a ruler or a dial shows in the person's own units", () => {
    expect(figure("length", stepped("length", 25.4 * 16, 1, "imperial"), "imperial")).toBe("16 ¼");
    expect(figure("temperature", stepped("temperature", 20, 1, "imperial"), "imperial")).toBe("69");
    expect(figure("length", snapped("length", 611.3, "imperial"), "imperial")).toBe("24");
  });

  it("is coarser where a hand cannot go finer, and round", () => {
    expect(snapped("length", 596.8, "metric", 5.8)).toBe(600);
    expect(snapped("length", 604, "metric", 12)).toBe(600);
    expect(snapped("length", 4.3, "metric", 0.1)).toBe(4.5);
  });

  it("adds up: a hundred steps there and back are where one began", () => {
    let value = 27;
    for (let i = 0; i < 100; i += 1) value = stepped("length", value, 1, "metric");
    for (let i = 0; i < 100; i += 1) value = stepped("length", value, -1, "metric");
    expect(value).toBe(27);
  });
});
