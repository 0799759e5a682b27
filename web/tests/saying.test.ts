import { expect, it } from "vitest";
import { inZone } from "@/app/time";
import { span } from "@/measures/quantity";
import { localise } from "@/measures/words";
import { FACTS } from "@/rooms/plans/compare/facts";
import { put } from "@/rooms/plans/paths";
import said from "../../tests/said.json";

it.each(said.sentences)("reads “%s” as the core reads it", (marked, plain) => {
  expect(localise(marked as string, "metric", "letter")).toBe(plain);
});

it.each(said.spans)("says %d minutes as the core says them", (minutes, words) => {
  expect(span(minutes as number)).toBe(words);
});

it("turns what is marked, and nothing else", () => {
  const text =
    "This fridge cools harder: 11.9 W/(m²·K). At {21|°C} roll to {8|mm}; letter by letter.";
  expect(localise(text, "imperial", "single")).toBe(
    "This fridge cools harder: 11.9 W/(m²·K). At 69.8 °F roll to 5/16 in; letter by letter.",
  );
  expect(localise("{440×380|mm}", "imperial", "letter")).toBe("17 5/16 × 14 15/16 in");
  expect(localise("{2|K} warmer", "imperial", "letter")).toBe("3.6 °F warmer");
});

it("puts folds into the person's words", () => {
  expect(localise("Make turn 2 a {letter|fold}", "metric", "single")).toBe(
    "Make turn 2 a single turn",
  );
  expect(localise("{book|fold}: four", "metric", "single")).toBe("Double turn: four");
});

it("puts a whole rest into a plan, and into one that had none", () => {
  const plan = { turns: [{ rest: null }, { rest: { place: "fridge", minutes: 20 } }] };
  const rest = { place: "fridge", minutes: 34, first: { place: "freezer", minutes: 10 } };
  expect(put(plan, "turns[0].rest", rest).turns).toEqual([{ rest }, plan.turns[1]]);
  expect(put(plan, "turns[1].rest", rest).turns[0]).toBe(plan.turns[0]);
});

it("takes all the puts of one way out, one after another", () => {
  const plan = { dough: { mass_g: 9000 }, butter: { mass_g: 2400 }, final: { width_mm: 900 } };
  const puts = [
    { field: "dough.mass_g", value: 4500 },
    { field: "butter.mass_g", value: 1200 },
    { field: "final.width_mm", value: 636 },
  ];
  expect(puts.reduce((now, p) => put(now, p.field, p.value), plan)).toEqual({
    dough: { mass_g: 4500 },
    butter: { mass_g: 1200 },
    final: { width_mm: 636 },
  });
});

it("compares plans by facts that each have one name", () => {
  expect(new Set(FACTS.map((f) => f.label)).size).toBe(FACTS.length);
  const facts = { butter_layers: 27, piece_g: null } as never;
  expect(FACTS.find((f) => f.label === "Butter layers")?.of(facts)).toBe(27);
  expect(FACTS.find((f) => f.label === "Each")?.of(facts)).toBeNull();
});

it("reads an hour in the bakery's own zone", () => {
  inZone("Europe/Paris");
  expect(localise("That is before {2026-11-27T05:12+00:00|clock}.", "metric", "letter")).toBe(
    "That is before 06:12.",
  );
});
