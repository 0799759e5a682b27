// @vitest-environment happy-dom
/** A newer version waits until somebody takes it; the screen stays on while a dough is under way. */
import { act, cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { useAwake } from "@/offline/awake";

type Listener = (event: { isUpdate?: boolean }) => void;
const heard: Record<string, Listener> = {};
const skip = vi.fn();

vi.mock("workbox-window", () => ({
  Workbox: class {
    addEventListener(name: string, listener: Listener) {
      heard[name] = listener;
    }
    register = async () => undefined;
    update = async () => undefined;
    messageSkipWaiting = skip;
  },
}));

const reload = vi.fn();
beforeEach(() => {
  vi.resetModules();
  vi.stubEnv("DEV", false);
  Object.defineProperty(navigator, "serviceWorker", { value: {}, configurable: true });
  vi.spyOn(window.location, "reload").mockImplementation(reload);
});
afterEach(() => {
  cleanup();
  vi.unstubAllEnvs();
  vi.restoreAllMocks();
  reload.mockClear();
  skip.mockClear();
});

it("a newer version is offered, taken by a press, and only then the page begins anew", async () => {
  const { register, useNewer } = await import("@/offline/worker");
  function Offer() {
    const take = useNewer();
    return take ? (
      <button type="button" onClick={take}>
        Take it now
      </button>
    ) : (
      <p>the latest</p>
    );
  }
  await register();
  render(<Offer />);
  expect(screen.getByText("the latest")).toBeTruthy();
  act(() => heard.waiting?.({}));
  expect(skip).not.toHaveBeenCalled();
  expect(reload).not.toHaveBeenCalled();
  await userEvent.click(screen.getByRole("button", { name: "Take it now" }));
  expect(skip).toHaveBeenCalledOnce();
  // the very first worker takes over without a new beginning
  heard.controlling?.({ isUpdate: false });
  expect(reload).not.toHaveBeenCalled();
  heard.controlling?.({ isUpdate: true });
  expect(reload).toHaveBeenCalledOnce();
});

it("the screen is kept on, asked for again when the page comes back, and let go at the end", async () => {
  const release = vi.fn();
  const request = vi.fn(async () => ({ release }));
  Object.defineProperty(navigator, "wakeLock", { value: { request }, configurable: true });
  function Desk({ on }: { on: boolean }) {
    useAwake(on);
    return null;
  }
  const { rerender } = render(<Desk on />);
  await act(async () => undefined);
  expect(request).toHaveBeenCalledExactlyOnceWith("screen");
  await act(async () => document.dispatchEvent(new Event("visibilitychange")));
  expect(request).toHaveBeenCalledTimes(2);
  rerender(<Desk on={false} />);
  expect(release).toHaveBeenCalled();
  await act(async () => document.dispatchEvent(new Event("visibilitychange")));
  expect(request).toHaveBeenCalledTimes(2);
});
