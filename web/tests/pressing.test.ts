/** What a day says of itself in short: what presses, what is given up, and which dough of it one is. */
import { expect, it } from "vitest";
import type { Schemas } from "@/api/client";
import { numbered } from "@/api/runs";
import { given } from "@/rooms/day/DayPlan";
import { calledOut, lateBy } from "@/rooms/today/pressing";

it("a run bears its number in its day before that among its plan's", () => {
  expect(numbered({ name: "Puff", number: 2, dough: "7", doughs: 15 })).toBe("Dough 7 of 15, Puff");
  expect(numbered({ name: "Puff", number: 2, dough: null, doughs: null })).toBe("Puff, no. 2");
  expect(numbered({ name: "Puff", number: 1 })).toBe("Puff");
});

it("calls out what has come due since the last look, once, and for whom it is", () => {
  const of = (dough: string, when: string, who: string | null, begun = false) =>
    ({ doughs: [dough], step: "roll", when, who, begun, minutes: -7 }) as never;
  const before = new Set(["1 roll now"]);
  const due = [of("1", "now", "Wren"), of("2", "now", "Tam"), of("3", "now", "Wren", true)];
  const called = (who: string) => calledOut(due, before, who).map((d) => d.doughs[0]);
  expect(called("")).toEqual(["2"]);
  expect(called("Wren")).toEqual([]);
  expect(called("Tam")).toEqual(["2"]);
  // what was due is called again when it is late
  const late = [of("1", "late", "Wren")];
  expect(calledOut(late, before, "").length).toBe(1);
  expect(lateBy(late, 5)).toBe("1 roll");
  expect(lateBy(late, 8)).toBe("");
});

it("says that everything is ready in its time only where nothing is", () => {
  const none = { late_min: 0, outside_min: 0, tight_min: 0, gives: [] };
  const give = (code: string) => ({ code, says: "", weighs: 1, minute: 0, dough: "1" });
  const missing = [give("hand"), give("tight"), give("place")] as Schemas["Give"][];
  expect(given(none)).toBe("everything is ready in its time");
  expect(given({ ...none, late_min: 9 })).toBe("nothing else had to give");
  expect(given({ ...none, gives: missing })).toBe("2 things could not be had");
  expect(given({ ...none, tight_min: 61, gives: missing.slice(0, 2) })).toBe(
    "one thing could not be had, 1 h 01 of tight rests",
  );
});
