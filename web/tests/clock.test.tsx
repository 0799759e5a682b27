// @vitest-environment happy-dom
/** One clock for the screen: what asks for it is drawn again each second, and nothing round it. */
import { act, cleanup, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { Notices } from "@/offline/Notices";
import { useClock } from "@/rooms/bench/useClock";
import { learn } from "@/wire/clock";

afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

test("a tick draws what shows the time, all of it at one moment, and stops with the last of it", () => {
  vi.useFakeTimers({ now: Date.parse("2026-11-26T05:00:00Z") });
  const drawn = { desk: 0, hands: [] as number[][] };
  function Hand({ n }: { n: number }) {
    drawn.hands[n] = [...(drawn.hands[n] ?? []), useClock().getTime()];
    return null;
  }
  function Desk() {
    drawn.desk += 1;
    return [0, 1].map((n) => <Hand key={n} n={n} />);
  }
  const { unmount } = render(<Desk />);
  const idle = drawn.hands[0]?.length ?? 0;
  for (let s = 0; s < 3; s++) act(() => vi.advanceTimersByTime(1_000));
  expect(drawn.desk).toBe(1);
  expect(drawn.hands[0]?.length).toBe(idle + 3);
  expect(drawn.hands[0]?.slice(-3)).toEqual(drawn.hands[1]?.slice(-3));
  const [before, after] = drawn.hands[0]?.slice(-2) ?? [];
  expect((after ?? 0) - (before ?? 0)).toBe(1_000);
  unmount();
  expect(vi.getTimerCount()).toBe(0);
});

test("that a tablet's clock is off is said as soon as an answer shows it", () => {
  const now = Date.now();
  render(<Notices waiting={0} lostSince={null} />);
  expect(screen.queryByRole("status")).toBeNull();
  act(() => learn(now - 600_000, now, now));
  expect(screen.getByRole("status").textContent).toContain("This tablet's clock is 10 min ahead");
  act(() => learn(now, now, now));
  expect(screen.queryByRole("status")).toBeNull();
});
