// @vitest-environment happy-dom
/** The kitchen's room: what was typed stays until the house has it. */
import { screen } from "@testing-library/react";
import { Outlet, Route, Routes } from "react-router";
import { expect, it } from "vitest";
import { Offline } from "@/api/client";
import { KitchenRoom } from "@/rooms/kitchen";
import { refuse, serve, show } from "./screen";

const me = { role: "head" };
const room = () =>
  show(
    <Routes>
      <Route element={<Outlet context={me} />}>
        <Route index element={<KitchenRoom />} />
      </Route>
    </Routes>,
  );
const input = () =>
  screen.findByRole<HTMLInputElement>("textbox", { name: "Largest dough in the mixer" });

async function typed(hand: ReturnType<typeof room>["hand"], text: string) {
  await hand.type(
    screen.getByRole("searchbox", { name: "Find a value" }),
    "largest dough in the mixer",
  );
  await hand.clear(await input());
  await hand.type(await input(), text);
  await hand.tab();
}

it("a value that is refused stays where it was typed, with its sentence", async () => {
  serve({
    "PUT /api/kitchen": () => refuse(422, "yours.mixer.most_g", "Must be from 500 g to 90000 g."),
  });
  const { hand } = room();
  await typed(hand, "7");
  expect(await screen.findByText("Must be from 500 g to 90000 g.")).toBeTruthy();
  expect((await input()).value).toBe("7");
});

it("a value that found nobody to take it stays, and goes out again with a press or the next change", async () => {
  const asked = serve({
    "PUT /api/kitchen": () => {
      throw new Offline();
    },
  });
  const { hand } = room();
  await typed(hand, "7000");
  await hand.click(await screen.findByRole("button", { name: "Send it again" }));
  expect((await input()).value).toBe("7000");
  const sent = () => asked.filter((a) => a.what === "PUT /api/kitchen").map((a) => a.body);
  expect(sent()).toHaveLength(2);
  expect(sent()[1]).toEqual(sent()[0]);
  await hand.clear(screen.getByRole("searchbox", { name: "Find a value" }));
  await hand.type(
    screen.getByRole("searchbox", { name: "Find a value" }),
    "smallest dough in the mixer",
  );
  const other = await screen.findByRole("textbox", { name: "Smallest dough in the mixer" });
  await hand.clear(other);
  await hand.type(other, "900");
  await hand.tab();
  await expect.poll(() => sent().length).toBe(3);
  const [first, , third] = sent() as { yours: Record<string, number> }[];
  expect(third?.yours).toMatchObject(first?.yours ?? {});
});

it("what counts things is stepped by one and taken in whole ones alone", async () => {
  const asked = serve({ "PUT /api/kitchen": () => new Promise(() => undefined) });
  const { hand } = room();
  await hand.type(screen.getByRole("searchbox", { name: "Find a value" }), "trays the oven takes");
  const trays = await screen.findByRole<HTMLInputElement>("textbox", {
    name: "Trays the oven takes",
  });
  const before = Number(trays.value);
  await hand.clear(trays);
  await hand.type(trays, "2.5");
  expect(await screen.findByText(/Here it is counted/)).toBeTruthy();
  await hand.clear(trays);
  await hand.type(trays, String(before));
  await hand.click(screen.getByRole("button", { name: "Trays the oven takes: a step more" }));
  expect(trays.value).toBe(String(before + 1));
  await hand.tab();
  await expect
    .poll(() => asked.find((a) => a.what === "PUT /api/kitchen")?.body)
    .toMatchObject({ yours: { "oven.trays": before + 1 } });
});
