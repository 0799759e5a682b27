// @vitest-environment happy-dom
/** A day wider than its screen shows the hour it is, and keeps in sight what was when it is drawn larger. */
import { renderHook } from "@testing-library/react";
import { expect, it } from "vitest";
import { useSight } from "@/threads/useSight";

function seen(now: number | null) {
  const box = document.createElement("div");
  Object.defineProperty(box, "clientWidth", { value: 300 });
  const { rerender } = renderHook(
    ({ scale, at }) => {
      const sight = useSight(scale, at);
      sight.current = box;
    },
    { initialProps: { scale: 60, at: now } },
  );
  return { box, at: (scale: number, at = now) => rerender({ scale, at }) };
}

it("begins where it is now, a third from the left, and is not moved as time goes", () => {
  const { box, at } = seen(10 * 60);
  expect(box.scrollLeft).toBe(500);
  box.scrollLeft = 80;
  at(60, 10 * 60 + 5);
  expect(box.scrollLeft).toBe(80);
});

it("keeps its place when it is drawn larger", () => {
  const { box, at } = seen(10 * 60);
  at(120);
  expect(box.scrollLeft).toBe(1100);
  at(60);
  expect(box.scrollLeft).toBe(500);
});

it("begins at its beginning where that day is not now", () => {
  expect(seen(null).box.scrollLeft).toBe(0);
});
