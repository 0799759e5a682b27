// @vitest-environment happy-dom
import { screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { ring } from "@/app/sound";
import { TrayAlarms } from "@/rooms/bench/Alarm";
import { type Called, dueNow } from "@/rooms/bench/called";
import { type RunView, whereNow } from "@/rooms/bench/now";
import { show } from "./screen";
import runs from "./written/runs.json";

vi.mock("@/app/sound", async (real) => ({ ...(await real<object>()), ring: vi.fn() }));

const at = (minute: number) => new Date(Date.UTC(2026, 2, 7, 6, minute));
const call = (tray: number, minute: number, says: string, ends = false): Called => ({
  tray,
  stop: "bake",
  at: at(minute),
  says,
  ends,
});
const TURN = "turn the trays";
const OUT = "take it out";

it("says of each tray the last that is due, once for all whose it is", () => {
  const called = [1, 2].flatMap((tray) => [call(tray, 9, TURN), call(tray, 18, OUT, true)]);
  called.push(call(3, 14, TURN));
  expect([...dueNow(called, at(8))]).toEqual([]);
  expect([...dueNow(called, at(10)).values()]).toEqual([
    { trays: [1, 2], says: TURN, ends: false },
  ]);
  expect([...dueNow(called, at(20)).values()]).toEqual([
    { trays: [1, 2], says: OUT, ends: true },
    { trays: [3], says: TURN, ends: false },
  ]);
});

beforeEach(() => vi.useFakeTimers({ toFake: ["Date"] }));
afterEach(() => vi.useRealTimers());

it("calls a tray whose time is up by its number, until somebody has heard", async () => {
  const run = runs.find((r) => r.name.startsWith("trays")) as (typeof runs)[number];
  // the first tray went in, the second is still in the proofer
  const n = run.standings.findIndex((s) => s.trays[0]?.deeds.length === 4);
  const view = { ...run, standing: run.standings[n] } as unknown as RunView;
  const bake = run.called[n]?.filter((c) => c.tray === 1).at(-1);
  vi.setSystemTime(Date.parse(bake?.at ?? "") + 30_000);
  vi.mocked(ring).mockClear();
  const { hand } = show(<TrayAlarms run={view} now={whereNow(view, [])} name="Market" />);
  const called = screen.getByRole("button", { name: /^Market: tray 1: look at the colour/ });
  expect(ring).toHaveBeenCalledWith(2);
  await hand.click(called);
  expect(screen.queryByRole("button", { name: /tray 1: look at the colour/ })).toBeNull();
});
