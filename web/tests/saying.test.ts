import { expect, it } from "vitest";
import { FACTS } from "@/compare/facts";
import { localise } from "@/measures/words";
import { put } from "@/plans/paths";

it("leaves coefficients of heat alone and turns their temperatures", () => {
  const said = "This fridge cools harder than assumed: 11.9 W/(m²·K), not 7.";
  expect(localise(said, "imperial", "letter")).toBe(said);
  expect(localise("At 21 °C it works as planned.", "imperial", "letter")).toBe(
    "At 69.8 °F it works as planned.",
  );
  expect(localise("Wait 12 more minutes: the middle is still 17 °C.", "imperial", "letter")).toBe(
    "Wait 12 more minutes: the middle is still 62.6 °F.",
  );
});

it("puts a fix's fold into the person's words", () => {
  expect(localise("Make turn 2 a letter fold", "metric", "single")).toBe(
    "Make turn 2 a single turn",
  );
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
