import { beforeEach, describe, expect, it } from "vitest";
import { clock, day, inZone } from "@/app/time";

describe("times of day", () => {
  beforeEach(() => inZone("Europe/London"));

  it("are the bakery's own, whatever zone the tablet is in", () => {
    expect(clock("2026-07-04T04:30:00Z")).toBe("05:30");
    inZone("America/Toronto");
    expect(clock("2026-07-04T04:30:00Z")).toBe("00:30");
  });

  it("go right across the night when the clocks change", () => {
    // In the small hours of 29 March 2026 the hour from one to two does not exist.
    expect(clock("2026-03-29T00:59:00Z")).toBe("00:59");
    expect(clock("2026-03-29T01:00:00Z")).toBe("02:00");
  });

  it("say the day where a run lasts longer than one", () => {
    expect(day("2026-11-21T16:10:00Z")).toMatch(/^Sat,? 21 Nov, 16:10$/);
  });

  it("say nothing for what is no time", () => {
    expect(clock(Number.NaN)).toBe("");
    expect(clock("soon")).toBe("");
  });
});
