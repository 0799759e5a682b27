// @vitest-environment happy-dom
import { screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, expect, it, vi } from "vitest";
import { date, inZone } from "@/app/time";
import { MomentInput } from "@/measures/MomentInput";
import { show } from "./screen";

inZone("Europe/London");
afterEach(() => inZone("Europe/London"));

function When({ from, took }: { from: string | null; took: (at: string | null) => void }) {
  const [at, setAt] = useState(from);
  return (
    <MomentInput
      label="Ready at"
      value={at}
      onChange={(next) => {
        setAt(next);
        took(next);
      }}
    />
  );
}
const hour = () => screen.findByLabelText<HTMLInputElement>("Ready at: hour");
const minute = () => screen.findByLabelText<HTMLInputElement>("Ready at: minute");

it("says a moment as the bakery does: the day by its name, the clock of 24 hours", async () => {
  show(<When from="2026-11-28T17:05:00Z" took={vi.fn()} />);
  expect((await hour()).value).toBe("17");
  expect((await minute()).value).toBe("05");
  const day = screen.getByRole("button", { name: `Ready at: ${date("2026-11-28")}` });
  expect(day.textContent).toBe(date("2026-11-28"));
  expect(day.textContent).toMatch(/^Sat,? 28 Nov$/);
});

it("gives the moment itself, in summer as in winter", async () => {
  const took = vi.fn();
  const { hand } = show(<When from="2026-07-04T03:00:00Z" took={took} />);
  expect((await hour()).value).toBe("04");
  await hand.click(await hour());
  await hand.keyboard("05");
  expect(took).toHaveBeenLastCalledWith("2026-07-04T04:00:00.000Z");
  await hand.click(await minute());
  await hand.keyboard("40");
  expect(took).toHaveBeenLastCalledWith("2026-07-04T04:40:00.000Z");
});

it("has no hour before it has a day", async () => {
  show(<When from={null} took={vi.fn()} />);
  expect((await hour()).disabled).toBe(true);
});
