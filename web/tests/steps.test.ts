import { expect, it } from "vitest";
import {
  freshId,
  madeAt,
  type Plan,
  stepOf,
  stepsOf,
  withoutStep,
  withStep,
  withStepAt,
  withStepMoved,
} from "@/api/steps";
import { kindOf, kindsShown } from "@/steps/kinds";
import openapi from "../openapi.json";

const plan = (...dos: string[]) =>
  ({ steps: dos.map((what, n) => ({ do: what, id: `${what}-${n + 1}` })) }) as unknown as Plan;
const order = (of: Plan) => of.steps.map((s) => s.id);

it("knows every kind of step that the core has, and no other", () => {
  const { mapping } = openapi.components.schemas.Plan.properties.steps.items.discriminator;
  expect(kindsShown().sort()).toEqual(Object.keys(mapping).sort());
});

it("refuses to draw a step it does not know", () => {
  expect(() => kindOf("juggle")).toThrow("juggle");
});

it("finds steps by what they do", () => {
  const two = plan("lock_in", "turn", "turn");
  expect(stepsOf(two, "turn").map((t) => t.id)).toEqual(["turn-2", "turn-3"]);
  expect(stepOf(two, "cut")).toBeUndefined();
});

it("gives what is made only to those who ask for its kind", () => {
  const stop = { do: "turn", made: { do: "turn", butter_layers: 9 } } as never;
  expect(madeAt(stop, "turn")?.butter_layers).toBe(9);
  expect(madeAt(stop, "cut")).toBeUndefined();
  expect(madeAt(undefined, "turn")).toBeUndefined();
});

it("carries a step to another place and back", () => {
  const before = plan("mix", "lock_in", "turn");
  const moved = withStepMoved(before, 0, 2);
  expect(order(moved)).toEqual(["lock_in-2", "turn-3", "mix-1"]);
  expect(order(withStepMoved(moved, 2, 0))).toEqual(order(before));
  expect(withStepMoved(before, 7, 0)).toBe(before);
});

it("names a copy as no other step is named", () => {
  const before = plan("turn", "turn");
  expect(freshId(before, "turn")).toBe("turn-3");
  const more = withStepAt(withoutStep(before, 0), 1, before.steps[1] as never);
  expect(new Set(order(more)).size).toBe(more.steps.length);
});

it("changes one step and leaves the plan it was given", () => {
  const before = plan("turn", "turn");
  const after = withStep(before, 1, { words: "gently" });
  expect(after.steps.map((s) => s.words)).toEqual([undefined, "gently"]);
  expect(before.steps[1]?.words).toBeUndefined();
});
