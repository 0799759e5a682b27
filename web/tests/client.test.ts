import { describe, expect, it } from "vitest";
import { Offline, Problem } from "@/api/client";
import { sentence } from "@/api/queries";

const problem = (status: number, ...messages: string[]) =>
  new Problem(
    status,
    messages.map((message) => ({ field: "", message })),
  );

describe("what the server refuses", () => {
  it.each([
    [401, true],
    [403, true],
    [500, true],
    [503, true],
    [404, false],
    [409, false],
    [422, false],
  ])("with %d may pass later: %s", (status, passing) => {
    expect(problem(status, "No.").passing).toBe(passing);
  });

  it("is said in the server's own sentences", () => {
    expect(sentence(problem(422, "Too thick.", "Too thin."))).toBe("Too thick. Too thin.");
  });

  it("is told apart from no answer and from a mistake of ours", () => {
    expect(sentence(new Offline())).toBe("No connection to the bakehouse.");
    expect(sentence(new TypeError("x is undefined"))).toContain("Something went wrong");
  });
});
