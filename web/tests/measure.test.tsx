// @vitest-environment happy-dom
import { act, screen } from "@testing-library/react";
import { useState } from "react";
import { expect, it, vi } from "vitest";
import { FaultsContext, LitContext, MindedContext, UnreadContext } from "@/measures/faults";
import { MeasureInput } from "@/measures/MeasureInput";
import { show } from "./screen";

function Field(props: Partial<Parameters<typeof MeasureInput>[0]> & { from?: number | null }) {
  const { from = 8, onChange, ...more } = props;
  const [value, setValue] = useState<number | null>(from);
  return (
    <MeasureInput
      label="Roll to"
      quantity="length"
      path="steps[2].roll_to_mm"
      value={value}
      onChange={(next) => {
        setValue(next);
        onChange?.(next);
      }}
      {...more}
    />
  );
}
const field = () => screen.getByRole<HTMLInputElement>("textbox", { name: "Roll to" });

it("takes a bare figure in the person's unit, and says nothing of it", async () => {
  const took = vi.fn();
  const { hand } = show(<Field onChange={took} />);
  await hand.clear(field());
  await hand.type(field(), "6,5");
  expect(took).toHaveBeenLastCalledWith(6.5);
  expect(screen.queryByText(/understood/)).toBeNull();
});

it("says what it understood of another unit", async () => {
  const took = vi.fn();
  const { hand } = show(<Field onChange={took} />);
  await hand.clear(field());
  await hand.type(field(), "1/2 in");
  expect(took).toHaveBeenLastCalledWith(12.7);
  expect(screen.getByText(/^understood as 12.7 mm/)).toBeTruthy();
});

it("reads and shows inches to a person who likes them", async () => {
  show(<Field from={25.4} />, { units: "imperial" });
  expect(field().value).toBe("1");
});

it("keeps what cannot be read, says why, gives nothing, and tells the form", async () => {
  const took = vi.fn();
  const told = vi.fn();
  const { hand } = show(
    <UnreadContext.Provider value={told}>
      <Field onChange={took} />
    </UnreadContext.Provider>,
  );
  await hand.clear(field());
  took.mockClear();
  await hand.type(field(), "abc");
  expect(took).not.toHaveBeenCalled();
  await hand.tab();
  expect(field().value).toBe("abc");
  expect(field().getAttribute("aria-invalid")).toBe("true");
  expect(told).toHaveBeenLastCalledWith("steps[2].roll_to_mm", true);
});

it("gives up on what it could not read when it is taken off the screen", async () => {
  const told = vi.fn();
  const { hand, unmount } = show(
    <UnreadContext.Provider value={told}>
      <Field />
    </UnreadContext.Provider>,
  );
  await hand.type(field(), "x");
  unmount();
  expect(told).toHaveBeenLastCalledWith("steps[2].roll_to_mm", false);
});

it("an empty field means what it says, where it may be empty", async () => {
  const took = vi.fn();
  const { hand } = show(<Field onChange={took} emptyMeans="as wide as the package" />);
  await hand.clear(field());
  expect(took).toHaveBeenLastCalledWith(null);
  expect(field().placeholder).toBe("as wide as the package");
});

it("waits for the hand to leave where each key would be too soon", async () => {
  const took = vi.fn();
  const { hand } = show(<Field onChange={took} onLeaving />);
  await hand.clear(field());
  await hand.type(field(), "12");
  expect(took).not.toHaveBeenCalled();
  await hand.tab();
  expect(took).toHaveBeenCalledExactlyOnceWith(12);
});

it("shows the core's complaint under the field it is about", () => {
  const faults = { "steps[2].roll_to_mm": "Must be from {1|mm} to {60|mm}." };
  show(
    <FaultsContext.Provider value={faults}>
      <Field />
    </FaultsContext.Provider>,
  );
  expect(screen.getByText(/^Must be from 1.mm to 60.mm\.$/)).toBeTruthy();
});

it("shows advice about its value in a few words", () => {
  show(
    <MindedContext.Provider value={{ "steps[2].roll_to_mm": "Thin for butter" }}>
      <Field />
    </MindedContext.Provider>,
  );
  expect(screen.getByText("Thin for butter")).toBeTruthy();
});

it("is its writer's while they are in it; what came from outside shows when they leave", async () => {
  const outside: { set?: (value: number) => void } = {};
  function Late() {
    const [value, setValue] = useState<number | null>(27);
    outside.set = setValue;
    return (
      <MeasureInput label="Roll to" quantity="length" path="p" value={value} onChange={setValue} />
    );
  }
  const { hand } = show(<Late />);
  act(() => {
    outside.set?.(21.6);
    field().focus();
  });
  const stood = field().value;
  expect(field().selectionEnd).toBe(stood.length);
  act(() => outside.set?.(33));
  expect(field().value).toBe(stood);
  await hand.tab();
  expect(field().value).toBe("33");
});

it("steps as a baker would, by arrows and by the wheel, from what stands there", async () => {
  const took = vi.fn();
  const { hand } = show(<Field from={597} onChange={took} />);
  await hand.click(field());
  await hand.keyboard("{ArrowUp}");
  expect(took).toHaveBeenLastCalledWith(600);
  await hand.keyboard("{ArrowDown}{ArrowDown}");
  expect(field().value).toBe("590");
  await hand.clear(field());
  await hand.type(field(), "2 cm{ArrowUp}");
  expect(took).toHaveBeenLastCalledWith(20.5);
  act(() => void field().dispatchEvent(new WheelEvent("wheel", { deltaY: 10, cancelable: true })));
  expect(took).toHaveBeenLastCalledWith(20);
  await hand.click(screen.getByRole("button", { name: "Roll to: a step more" }));
  expect(field().value).toBe("20.5");
});

it("turns with the wheel only while one is in it", () => {
  const took = vi.fn();
  show(<Field from={8} onChange={took} />);
  act(() => void field().dispatchEvent(new WheelEvent("wheel", { deltaY: 10 })));
  expect(took).not.toHaveBeenCalled();
});

it("says long times as hours and minutes, and reads them so", async () => {
  const took = vi.fn();
  const { hand } = show(<Field quantity="time" from={100} onChange={took} />);
  expect(field().value).toBe("1 h 40");
  await hand.click(field());
  await hand.keyboard("{ArrowUp}");
  expect(field().value).toBe("1 h 45");
  expect(took).toHaveBeenLastCalledWith(105);
  await hand.clear(field());
  await hand.type(field(), "45");
  expect(took).toHaveBeenLastCalledWith(45);
});

it("says what it made of a sum", async () => {
  const { hand } = show(<Field quantity="mass" from={100} />);
  await hand.clear(field());
  await hand.type(field(), "3 × 58 g");
  expect(screen.getByText("understood as 174 g")).toBeTruthy();
});

it("is lit by what points at it or at the group it belongs to", () => {
  const lit = (...at: string[]) =>
    show(
      <LitContext.Provider value={at}>
        <Field />
      </LitContext.Provider>,
    ).container.querySelectorAll("[data-lit]").length;
  expect([lit("steps[2].roll_to_mm"), lit("name", "steps[2]")]).toEqual([1, 1]);
  expect([lit("steps[2].roll"), lit()]).toEqual([0, 0]);
});

it("gives what was typed when it is taken away before anybody left it", async () => {
  const took = vi.fn();
  const { hand, unmount } = show(<Field onChange={took} onLeaving />);
  await hand.clear(field());
  await hand.type(field(), "12");
  expect(took).not.toHaveBeenCalled();
  unmount();
  expect(took).toHaveBeenCalledExactlyOnceWith(12);
});

it("gives nothing that it could not read when it is taken away", async () => {
  const took = vi.fn();
  const { hand, unmount } = show(<Field onChange={took} onLeaving />);
  await hand.clear(field());
  await hand.type(field(), "12 x");
  unmount();
  expect(took).not.toHaveBeenCalled();
});
