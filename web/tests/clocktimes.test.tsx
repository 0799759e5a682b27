// @vitest-environment happy-dom
/** A plan with clock times: from when it begins, or when it is to be done. */
import { fireEvent, screen } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { inZone } from "@/app/time";
import { ClockTimes } from "@/rooms/plans/ClockTimes";
import { later, timeAt, useBegins } from "@/rooms/plans/clockTimes";
import { show, worked } from "./screen";

beforeEach(() => {
  inZone("Europe/London");
  sessionStorage.clear();
});

it("names the day only where it is another than the first, over a clock change as well", () => {
  const begins = "2026-10-24T20:00:00.000Z"; // nine in the evening before the clocks go back
  expect(timeAt(begins, 60)).toBe("22:00");
  expect(timeAt(begins, 4 * 60)).toBe("Sun 01:00");
  expect(timeAt(begins, 6 * 60)).toBe("Sun 02:00");
  expect(later(begins, -30)).toBe("2026-10-24T19:30:00.000Z");
});

it("said by its end it begins so much earlier, and the other way round", async () => {
  function Both() {
    const [begins] = useBegins(7);
    return (
      <>
        <output>{begins}</output>
        <ClockTimes planId={7} worked={worked} close={() => {}} />
      </>
    );
  }
  sessionStorage.setItem("begins.7", JSON.stringify("2026-11-28T05:00:00.000Z"));
  const { hand } = show(<Both />);
  const done = await screen.findByLabelText("Done: hour");
  const end = new Date(later("2026-11-28T05:00:00.000Z", worked.total_min));
  expect((done as HTMLInputElement).value).toBe(String(end.getUTCHours()).padStart(2, "0"));
  fireEvent.focus(done);
  await hand.clear(done);
  await hand.type(done, "09");
  const begins = screen.getByRole("status").textContent ?? "";
  const finished = new Date(later(begins, worked.total_min));
  expect(finished.getUTCHours()).toBe(9);
  await hand.click(screen.getByRole("button", { name: "Without clock times" }));
  expect(screen.getByRole("status").textContent).toBe("");
});
