// @vitest-environment happy-dom
/** Every kind of step on a screen: its panel can be read, used and taken back to what it was. */
import { screen, within } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { madeAt } from "@/api/steps";
import { kindOf, kindsShown } from "@/steps/kinds";
import type { PanelProps } from "@/steps/parts/props";
import { StopGlyph } from "@/steps/Strip";
import * as written from "./screen";
import { show, warmth } from "./screen";

function panel(what: string, over: Partial<PanelProps> = {}) {
  const has = written.plan.steps.some((s) => s.do === what);
  const { plan, worked } = has ? written : written.coiled;
  const n = plan.steps.findIndex((s) => s.do === what);
  const step = plan.steps[n];
  const stop = worked.strip.find((s) => s.key === step?.id);
  if (!step || !stop) throw new Error(`no ${what} in the plan`);
  const given = {
    stop: { ...stop, n },
    plan,
    worked,
    warmth,
    readOnly: false,
    change: vi.fn(),
    amend: vi.fn(),
    select: vi.fn(),
    searchFolds: vi.fn(),
    step,
    made: madeAt(stop, step.do),
    at: `steps[${n}]`,
    set: vi.fn(),
    ...over,
  } as PanelProps;
  const { Panel } = kindOf(what);
  return { given, ...show(<Panel {...given} />) };
}

/** What a field is called, as a reader of the screen hears it. */
const nameOf = (field: HTMLElement) =>
  field.getAttribute("aria-label") ??
  (field as HTMLInputElement).labels?.[0]?.textContent ??
  field.textContent ??
  "";

describe.each(kindsShown())("the panel of %s", (what) => {
  it("gives every field and button a name of its own", () => {
    const { container } = panel(what);
    const fields = container.querySelectorAll<HTMLElement>("input, select, textarea, button");
    expect(fields.length).toBeGreaterThan(0);
    for (const field of fields) expect(nameOf(field).trim(), field.outerHTML).not.toBe("");
  });

  it("says no mark of a measure and no name of a key", () => {
    const { container } = panel(what);
    const read = container.cloneNode(true) as HTMLElement;
    for (const style of read.querySelectorAll("style")) style.remove();
    expect(read.textContent).not.toMatch(/[{}|]|undefined|NaN|\[object/);
  });

  it("has a drawing for the strip", () => {
    const { given } = panel(what);
    const { container } = show(<StopGlyph {...given} />);
    expect(container.querySelector("svg")?.children.length).toBeGreaterThan(0);
  });
});

async function typed(what: string, name: string, text: string) {
  const { hand, given } = panel(what);
  const field = screen.getByRole("textbox", { name });
  await hand.clear(field);
  await hand.type(field, text);
  await hand.tab();
  return given;
}

it("a turn is rolled thinner", async () => {
  const { set } = await typed("turn", "Roll to", "6");
  expect(set).toHaveBeenLastCalledWith(expect.objectContaining({ roll_to_mm: 6 }), "roll_to_mm");
});

it("a turn is folded otherwise", async () => {
  const { hand, given } = panel("turn");
  const folds = screen.getByRole("group", { name: "Fold" });
  await hand.click(within(folds).getByRole("radio", { name: /^Book/ }));
  expect(given.set).toHaveBeenCalledWith(expect.objectContaining({ fold: "book" }), "fold");
});

it("the block's thickness is worked by the core", async () => {
  const { amend } = await typed("lock_in", "Block thickness", "12");
  expect(amend).toHaveBeenLastCalledWith(
    { change: "block_thickness", value: 12 },
    expect.stringMatching(/^steps\[\d+\]\.thickness$/),
  );
});

it("another way to lock in is asked of the core, for block and margins follow", async () => {
  const { hand, given } = panel("lock_in");
  await hand.selectOptions(screen.getByLabelText(/^Lock-in method/), "envelope");
  expect(given.amend).toHaveBeenCalledWith(
    { change: "method", ingredient: "envelope" },
    expect.any(String),
  );
});

it("the last sheet is rolled to another thickness", async () => {
  const { set } = await typed("last_sheet", "Roll to", "3.5");
  expect(set).toHaveBeenLastCalledWith(expect.objectContaining({ roll_to_mm: 3.5 }), "roll_to_mm");
});

it("a step of one's own is called what one likes", async () => {
  const { hand, given } = panel("own");
  await hand.type(screen.getByLabelText("What it is called"), "!");
  expect(given.set).toHaveBeenLastCalledWith({ title: "Turn the tub!" }, "title");
});

it("a bench hand reads a panel and changes nothing", () => {
  const { container } = panel("turn", { readOnly: true });
  expect(container.textContent).toContain("Roll to");
});

it("a last sheet by its length lets the thickness follow, for all three cannot be chosen", async () => {
  const { hand, given } = panel("last_sheet");
  await hand.type(screen.getByRole("textbox", { name: "Length" }), "600");
  await hand.tab();
  const width = given.step.do === "last_sheet" ? given.step.width_mm : null;
  expect(given.set).toHaveBeenLastCalledWith(
    { roll_to_mm: null, width_mm: width, length_mm: 600 },
    "length_mm",
  );
});

it("as big as the tray is one press", async () => {
  const { hand, given } = panel("last_sheet");
  await hand.click(screen.getByRole("button", { name: /^As big as the tray/ }));
  const [part] = vi.mocked(given.set).mock.lastCall ?? [];
  expect(part).toMatchObject({ roll_to_mm: null });
  expect(Object.values(part ?? {}).filter((v) => typeof v === "number")).toHaveLength(2);
});

it("a thickness taken away leaves the size it had", async () => {
  const { hand, given } = panel("turn");
  await hand.clear(screen.getByRole("textbox", { name: "Roll to" }));
  await hand.tab();
  expect(given.set).toHaveBeenLastCalledWith(
    expect.objectContaining({ roll_to_mm: null, length_mm: expect.any(Number) }),
    "roll_to_mm",
  );
});
