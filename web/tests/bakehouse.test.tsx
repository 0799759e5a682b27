// @vitest-environment happy-dom
/** The kitchen drawn: things chosen, moved and sized where they stand. */
import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Schemas } from "@/api/client";
import type { Row } from "@/rooms/kitchen/found";
import { RangeBand } from "@/rooms/kitchen/RangeBand";
import { RoomPlan } from "@/rooms/kitchen/RoomPlan";
import { refuse, serve, show } from "./screen";
import written from "./written/panels.json";

const kitchen = written.kitchen as unknown as Schemas["KitchenView"];

function Bakehouse(props: {
  keep?: () => void;
  place?: () => void;
  ingredients?: (own: Schemas["Ingredient"][]) => void;
  readOnly?: boolean;
}) {
  const { keep = vi.fn(), place = vi.fn(), ingredients = vi.fn(), readOnly = false } = props;
  const { room, table, yours, library } = kitchen;
  const { butters: keys, usual } = kitchen;
  const butters = { own: kitchen.ingredients, library, keys, usual, keep: ingredients };
  return <RoomPlan {...{ room, table, yours, keep, place, readOnly, butters }} />;
}

it("a thing is chosen where it stands, and what a change would change is said before it is made", async () => {
  const keep = vi.fn();
  const asked = serve({
    "POST /api/plans/affected": () => [
      { id: 3, name: "Station kiosk", says: ["Turn 1, then to mind: Too long for the bench."] },
    ],
  });
  const { hand } = show(<Bakehouse keep={keep} />);
  await hand.click(screen.getByRole("button", { name: /^Fridge,/ }));
  expect(screen.getByRole("form", { name: "Fridge: values" })).toBeTruthy();
  await hand.click(screen.getByRole("button", { name: /^Bench,/ }));
  const edge = screen.getByRole("slider", { name: "Bench length" });
  edge.focus();
  await hand.keyboard("{PageDown}");
  expect(await screen.findByText(/Too long for the bench/)).toBeTruthy();
  const length = Number(edge.getAttribute("aria-valuenow"));
  expect(asked.at(-1)?.body).toMatchObject({ yours: { "bench.length_mm": length } });
  expect(keep).not.toHaveBeenCalled();
  await hand.click(screen.getByRole("button", { name: "Leave it" }));
  expect(Number(edge.getAttribute("aria-valuenow"))).toBeGreaterThan(length);
  edge.focus();
  await hand.keyboard("{PageDown}");
  await hand.click(await screen.findByRole("button", { name: "Change it" }));
  expect(keep).toHaveBeenCalledWith(expect.objectContaining({ "bench.length_mm": length }));
});

it("a thing is moved by keys and turned, and what stands there otherwise stays", async () => {
  const place = vi.fn();
  const { hand } = show(<Bakehouse place={place} />);
  const oven = kitchen.room.things.find((t) => t.what === "oven");
  screen.getByRole("button", { name: /^Oven,/ }).focus();
  await hand.keyboard("{ArrowRight}");
  const spots = place.mock.lastCall?.[0] as Schemas["Spot"][];
  expect(spots).toHaveLength(kitchen.room.things.length);
  expect(spots.find((s) => s.what === "oven")?.x_mm).toBe((oven?.x_mm ?? 0) + 100);
  await hand.keyboard("{Enter}");
  await hand.click(screen.getByRole("button", { name: "Turn it by a quarter" }));
  expect(place.mock.lastCall?.[0].find((s: Schemas["Spot"]) => s.what === "oven").turned).toBe(
    true,
  );
});

it("places are taken hold of from the front, and none below none", async () => {
  serve({ "POST /api/plans/affected": () => [] });
  const keep = vi.fn();
  const { hand } = show(<Bakehouse keep={keep} />);
  await hand.click(screen.getByRole("button", { name: /^Fridge,/ }));
  const holds = screen.getByRole("slider", { name: /^Packages the fridge holds/ });
  const there = Number(holds.getAttribute("aria-valuenow"));
  holds.focus();
  await hand.keyboard("{ArrowUp}{ArrowUp}{ArrowUp}");
  await hand.click(await screen.findByRole("button", { name: "Change it" }));
  expect(keep).toHaveBeenCalledWith(expect.objectContaining({ "fridge.holds": there + 3 }));
  await hand.click(screen.getByRole("button", { name: /^Oven,/ }));
  const trays = screen.getByRole("slider", { name: "Trays the oven takes" });
  trays.focus();
  await hand.keyboard("{Home}");
  expect(trays.getAttribute("aria-valuenow")).toBe("1");
  await hand.click(screen.getByRole("button", { name: /^Bench,/ }));
  expect(screen.queryByRole("slider", { name: /holds|takes/ })).toBeNull();
});

it("what cannot be is said beside its field before it is changed, and what was typed stays", async () => {
  const keep = vi.fn();
  serve({
    "POST /api/plans/affected": () => refuse(422, "yours.oven.trays", "Must be from 1 to 100."),
  });
  const { hand } = show(<Bakehouse keep={keep} />);
  await hand.click(screen.getByRole("button", { name: /^Oven,/ }));
  const trays = screen.getByRole<HTMLInputElement>("textbox", { name: "Trays the oven takes" });
  await hand.clear(trays);
  await hand.type(trays, "0");
  await hand.tab();
  expect(await screen.findByText("Must be from 1 to 100.")).toBeTruthy();
  expect(trays.value).toBe("0");
  expect(screen.queryByText("not counted")).toBeNull();
  await hand.click(screen.getByRole("button", { name: "Change it" }));
  expect(keep).not.toHaveBeenCalled();
});

it("a butter is added on its shelf, where one sees what the others bear", async () => {
  const ingredients = vi.fn();
  const { hand } = show(<Bakehouse ingredients={ingredients} />);
  await hand.click(screen.getByRole("button", { name: /^Butter shelf,/ }));
  expect(screen.getAllByRole("img", { name: /^Breaks below/ }).length).toBeGreaterThan(2);
  const like = screen.getByRole("combobox", { name: "Another butter, like" });
  const option = like.querySelectorAll("option")[1] as HTMLOptionElement;
  await hand.selectOptions(like, option);
  const name = screen.getByRole("textbox", { name: "Name" });
  await hand.clear(name);
  await hand.type(name, "Towpath butter");
  await hand.click(screen.getByRole("button", { name: "Save" }));
  const kept = ingredients.mock.lastCall?.[0] as Schemas["Ingredient"][];
  expect(kept).toHaveLength(kitchen.ingredients.length + 1);
  expect(kept.at(-1)).toMatchObject({ name: "Towpath butter", kind: "fat" });
  expect(kept.at(-1)?.window?.oils_c).toBeGreaterThan(15);
});

it("who only reads moves nothing", async () => {
  const place = vi.fn();
  const { hand } = show(<Bakehouse place={place} readOnly />);
  screen.getByRole("button", { name: /^Oven,/ }).focus();
  await hand.keyboard("{ArrowRight}");
  expect(place).not.toHaveBeenCalled();
  expect(screen.queryByRole("slider")).toBeNull();
});

it("a range is pulled over what one's own plans have, and kept when it is let go", async () => {
  serve({
    "GET /api/plans/seen": () => [{ plan: "Regatta puff", of: "puff.butter_layers", value: 243 }],
  });
  const row = (end: "low" | "high", value: number): Row => ({
    key: `puff.butter_layers.${end}`,
    group: "puff",
    label: `butter layers ${end}`,
    value,
    unit: "",
    low: 1,
    high: 5000,
    origin: "trade practice",
    source: "trade practice",
    choices: [],
    whole: true,
  });
  const set = vi.fn();
  const { hand } = show(
    <RangeBand low={row("low", 96)} high={row("high", 1024)} set={set} readOnly={false} />,
  );
  expect(await screen.findByRole("img", { name: /your plans: Regatta puff 243$/ })).toBeTruthy();
  const end = screen.getByRole("slider", { name: "Butter layers low" });
  end.focus();
  await hand.keyboard("{ArrowRight}{ArrowRight}");
  expect(end.getAttribute("aria-valuenow")).toBe("98");
  expect(set).not.toHaveBeenCalled();
  await hand.tab();
  expect(set).toHaveBeenCalledOnce();
  expect(set).toHaveBeenCalledWith("puff.butter_layers.low", 98);
  screen.getByRole("slider", { name: "Butter layers high" }).focus();
  await hand.keyboard("{ArrowLeft}{Escape}");
  await hand.tab();
  expect(set).toHaveBeenCalledOnce();
});
