// @vitest-environment happy-dom
/** The strip walked by keys, at whatever pace the screen follows. */
import { fireEvent, render, screen } from "@testing-library/react";
import { expect, test } from "vitest";
import { Strip } from "@/steps/Strip";
import { Around, plan, worked } from "./screen";

test("keys that are ahead of the screen end on the step they came to", () => {
  const chosen: string[] = [];
  const [first, second, third] = worked.strip.map((s) => s.key) as [string, string, string];
  const strip = (selected: string) => (
    <Around>
      <Strip plan={plan} worked={worked} selected={selected} onSelect={(key) => chosen.push(key)} />
    </Around>
  );
  const { rerender } = render(strip(first));
  const tab = (key: string) =>
    screen.getAllByRole("tab").find((t) => t.dataset.stop === key) as HTMLElement;
  tab(first).focus();
  fireEvent.keyDown(tab(first), { key: "ArrowRight" });
  fireEvent.keyDown(tab(first), { key: "ArrowRight" });
  expect(chosen).toEqual([second, third]);
  rerender(strip(second));
  rerender(strip(third));
  expect(document.activeElement).toBe(tab(third));
  // a press elsewhere ends it: what is chosen there does not pull the focus back
  fireEvent.keyDown(tab(third), { key: "ArrowLeft" });
  fireEvent.pointerDown(tab(first));
  tab(first).focus();
  rerender(strip(second));
  expect(document.activeElement).toBe(tab(first));
});
