// @vitest-environment happy-dom
/** An ingredient by the figures of its packet. */
import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Schemas } from "@/api/client";
import { FromPacket } from "@/rooms/kitchen/FromPacket";
import { refuse, serve, show } from "./screen";
import written from "./written/panels.json";

const [like] = written.kitchen.library as unknown as Schemas["Ingredient"][];
const made = { ...like?.composition, fat_pct: 81 };

it("sends what the packet says, takes what comes of it, and says what was estimated", async () => {
  const asked = serve({
    "POST /api/kitchen/label": () => ({
      composition: made,
      says: ["Water is what is left: 16 %."],
    }),
  });
  const take = vi.fn();
  const { hand } = show(<FromPacket like={like as Schemas["Ingredient"]} take={take} />);
  await hand.type(screen.getByLabelText("Fat"), "81");
  await hand.click(screen.getByRole("button", { name: "Work it out" }));
  expect(await screen.findByText("Water is what is left: 16 %.")).toBeTruthy();
  expect(asked[0]?.body).toEqual({ label: { fat_g: 81 }, like });
  expect(take).toHaveBeenCalledExactlyOnceWith(made);
});

it("a figure that cannot be is said beside its field, and nothing is taken", async () => {
  serve({
    "POST /api/kitchen/label": () => refuse(422, "label.sugar_g", "Sugar is part of it."),
  });
  const take = vi.fn();
  const { hand } = show(<FromPacket like={like as Schemas["Ingredient"]} take={take} />);
  await hand.type(screen.getByLabelText("of which sugars"), "70");
  await hand.click(screen.getByRole("button", { name: "Work it out" }));
  expect(await screen.findByText("Sugar is part of it.")).toBeTruthy();
  expect(take).not.toHaveBeenCalled();
});
