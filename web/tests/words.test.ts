import { expect, it } from "vitest";
import { localise } from "@/measures/words";

it("leaves a metric sentence as the core wrote it", () => {
  const text = "1540 × 230 mm on a bench of 1800 × 800 mm. 650 g at 12 °C.";
  expect(localise(text, "metric", "letter")).toBe(text);
});

it("puts every measure of a sentence into inches, ounces and degrees", () => {
  expect(
    localise("Rolled to 12.7 mm it is 254 × 508 mm, 283.5 g at 10 °C.", "imperial", "letter"),
  ).toBe("Rolled to 0.5 in it is 10 × 20 in, 10 oz at 50 °F.");
});

it("does not touch what is no length, mass or temperature", () => {
  const text = "940 kg/m³, 36 µm, 27 %, 12 min, 691 cm³";
  expect(localise(text, "imperial", "letter")).toBe(text);
});

it("speaks of single and double turns to those who do", () => {
  expect(localise("Letter fold: far third in. Then a book fold.", "metric", "single")).toBe(
    "Single turn: far third in. Then a double turn.",
  );
});

it("changes both ends of a range", () => {
  expect(localise("It must be from 12.7 to 254 mm. Rest 20 to 30 min.", "imperial", "letter")).toBe(
    "It must be from 0.5 to 10 in. Rest 20 to 30 min.",
  );
});
