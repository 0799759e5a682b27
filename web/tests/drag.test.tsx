// @vitest-environment happy-dom
import { act, fireEvent, render, screen } from "@testing-library/react";
import { useRef } from "react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { useDrag } from "@/drawings/useDrag";

const told = vi.fn();
const pressed = vi.fn();

function Surface({ slack, scrolls }: { slack?: number; scrolls?: boolean }) {
  const surface = useRef<HTMLDivElement>(null);
  const dragging = useDrag<string>({
    slack,
    scrolls: scrolls ? surface : undefined,
    drop: (what, by) => told("drop", what, by.x, by.y),
    cancel: (what) => told("cancel", what),
  });
  return (
    <div ref={surface} onClickCapture={dragging.onClickCapture}>
      <button type="button" onClick={pressed} {...dragging.hold("knot")}>
        knot
      </button>
      <output>{dragging.dragged ? dragging.dragged.by.x : "still"}</output>
    </div>
  );
}

const knot = () => screen.getByRole("button");
const drawn = () => screen.getByRole("status").textContent;
const point = (x: number, pointerType: string) => ({
  clientX: x,
  clientY: 0,
  pointerId: 1,
  button: 0,
  buttons: 1,
  pointerType,
});

beforeEach(() => {
  vi.useFakeTimers();
  told.mockClear();
  pressed.mockClear();
  Element.prototype.setPointerCapture = () => {};
});
afterEach(() => vi.useRealTimers());

it("a mouse drags once it has moved, is followed anywhere, and what it dragged is not pressed", () => {
  render(<Surface slack={6} />);
  fireEvent.pointerDown(knot(), point(0, "mouse"));
  fireEvent.pointerMove(document.body, point(4, "mouse"));
  expect(drawn()).toBe("still");
  fireEvent.pointerMove(document.body, point(40, "mouse"));
  expect(drawn()).toBe("40");
  fireEvent.pointerUp(document.body, point(40, "mouse"));
  expect(told).toHaveBeenCalledExactlyOnceWith("drop", "knot", 40, 0);
  fireEvent.click(knot());
  expect(pressed).not.toHaveBeenCalled();
  fireEvent.click(knot());
  expect(pressed).toHaveBeenCalledOnce();
});

it("a finger scrolls where it moves at once, and drags where it lay still first", () => {
  render(<Surface slack={6} scrolls />);
  fireEvent.pointerDown(knot(), point(0, "touch"));
  fireEvent.pointerMove(document.body, point(40, "touch"));
  act(() => vi.advanceTimersByTime(500));
  fireEvent.pointerUp(document.body, point(40, "touch"));
  expect(told).not.toHaveBeenCalled();

  fireEvent.pointerDown(knot(), point(0, "touch"));
  act(() => vi.advanceTimersByTime(400));
  fireEvent.pointerMove(document.body, point(40, "touch"));
  expect(drawn()).toBe("40");
  fireEvent.pointerUp(document.body, point(40, "touch"));
  expect(told).toHaveBeenCalledExactlyOnceWith("drop", "knot", 40, 0);
});

it("a pointer that is taken away, Escape, and a second finger change nothing", () => {
  render(<Surface />);
  fireEvent.pointerDown(knot(), point(0, "touch"));
  fireEvent.pointerMove(document.body, { ...point(90, "touch"), pointerId: 2 });
  expect(drawn()).toBe("0");
  fireEvent.pointerCancel(document.body, point(20, "touch"));
  expect(told).toHaveBeenLastCalledWith("cancel", "knot");
  fireEvent.pointerDown(knot(), point(0, "mouse"));
  fireEvent.pointerMove(document.body, point(20, "mouse"));
  fireEvent.keyDown(document.body, { key: "Escape" });
  fireEvent.pointerUp(document.body, point(20, "mouse"));
  expect(told.mock.calls.map(([what]) => what)).toEqual(["cancel", "cancel"]);
  expect(drawn()).toBe("still");
});
