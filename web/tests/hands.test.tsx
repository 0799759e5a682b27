// @vitest-environment happy-dom
import { act, fireEvent, screen } from "@testing-library/react";
import { useRef, useState } from "react";
import { expect, it } from "vitest";
import { back, begin, edit, undo } from "@/drafts/history";
import { Hands } from "@/drawings/Handle";
import { type Grip, GroundContext, linear, useHand } from "@/drawings/hands";
import { show } from "./screen";

const MOST = 700; // a sheet longer than this does not go through the sheeter

/** A drawing of one sheet on a ground that works what it is given at once, or when it is told to. */
function Drawing({ slow, stops }: { slow?: boolean; stops?: Grip["stops"] }) {
  const [history, setHistory] = useState(begin(500));
  const [busy, setBusy] = useState(false);
  const hold = useRef(0);
  const value = history.present;
  const wrong = value > MOST ? "It does not go through." : undefined;
  return (
    <GroundContext.Provider
      value={{
        take: () => {
          hold.current += 1;
        },
        letGo: (asItWas) => asItWas && setHistory((h) => back(h, hold.current)),
        busy,
        wrong,
      }}
    >
      <Sheet
        value={value}
        stops={stops}
        put={(v) => {
          setHistory((h) => edit(h, v, "length_mm", 0, hold.current));
          setBusy(slow ?? false);
        }}
      />
      <output>{value}</output>
      <button type="button" onClick={() => setHistory(undo)}>
        Undo
      </button>
      <button type="button" onClick={() => setBusy(false)}>
        Worked
      </button>
    </GroundContext.Provider>
  );
}

function Sheet({ value, put, stops }: Pick<Grip, "value" | "put" | "stops">) {
  const hand = useHand();
  const grip: Grip = {
    path: "length_mm",
    label: "Length of the sheet",
    quantity: "length",
    value,
    limits: [100, 2000],
    dir: "x",
    ...linear(0, 1),
    from: 0,
    to: 300,
    stops,
    put,
  };
  const half = (mm: number) => 20 + mm / 2;
  return <Hands grips={[grip]} hand={hand} wide={900} high={400} x={half} y={half} />;
}

const edge = () => screen.getByRole("slider", { name: "Length of the sheet" });
const length = () => Number(screen.getByRole("status").textContent);
Object.assign(Element.prototype, {
  setPointerCapture() {},
  hasPointerCapture: () => true,
});
const down = (x: number) => fireEvent.pointerDown(edge(), { button: 0, clientX: x, clientY: 0 });
const to = (x: number) => fireEvent.pointerMove(edge(), { clientX: x, clientY: 0 });
const up = () => fireEvent.pointerUp(edge());

it("follows the hand by what a ruler can show, and is one step to undo", () => {
  show(<Drawing />);
  down(270);
  for (const x of [280, 291, 303, 321.3]) to(x);
  expect(length()).toBe(605);
  expect(screen.getByText("605 mm")).toBeTruthy();
  up();
  expect(length()).toBe(605);
  expect(screen.queryByText("605 mm")).toBeNull();
  fireEvent.click(screen.getByText("Undo"));
  expect(length()).toBe(500);
});

it("is as it was when the hand escapes, and what was tried leaves no trace", () => {
  show(<Drawing />);
  down(270);
  to(310);
  expect(length()).toBe(580);
  fireEvent.keyDown(edge(), { key: "Escape" });
  expect(length()).toBe(500);
  up();
  fireEvent.click(screen.getByText("Undo"));
  expect(length()).toBe(500);
});

it("pushes back from what does not work, to the last that did, and says why", () => {
  show(<Drawing />);
  down(270);
  to(330);
  expect(length()).toBe(620);
  to(390);
  expect(length()).toBe(740);
  up();
  expect(length()).toBe(620);
  expect(screen.getByRole("alert").textContent).toBe("It does not go through.");
});

it("is as it was where nothing that was tried works, with nothing to undo", () => {
  show(<Drawing />);
  down(270);
  to(400);
  expect(length()).toBe(760);
  up();
  expect(length()).toBe(500);
  expect(screen.getByRole("alert")).toBeTruthy();
  fireEvent.click(screen.getByText("Undo"));
  expect(length()).toBe(500);
});

it("waits for what is being worked before it gives more, and loses no last word", () => {
  show(<Drawing slow />);
  down(270);
  to(280);
  expect(length()).toBe(520);
  to(300);
  to(320);
  expect(length()).toBe(520);
  act(() => screen.getByText("Worked").click());
  expect(length()).toBe(600);
  to(330);
  up();
  expect(length()).toBe(620);
});

it("feels a mark in passing", () => {
  show(<Drawing stops={[{ at: 613, said: "good from" }]} />);
  down(270);
  to(328);
  expect(length()).toBe(613);
  expect(screen.getByText("613 mm, good from")).toBeTruthy();
});

it("is a slider to whoever has no pointer: steps, leaps, ends, and back", () => {
  show(<Drawing />);
  const key = (name: string) => fireEvent.keyDown(edge(), { key: name });
  act(() => edge().focus());
  key("ArrowRight");
  expect(length()).toBe(505);
  key("PageDown");
  expect(length()).toBe(455);
  expect(edge().getAttribute("aria-valuetext")).toBe("455 mm");
  expect(edge().getAttribute("aria-valuemin")).toBe("100");
  key("Escape");
  expect(length()).toBe(500);
  key("Home");
  act(() => edge().blur());
  expect(length()).toBe(100);
  fireEvent.click(screen.getByText("Undo"));
  expect(length()).toBe(500);
});
