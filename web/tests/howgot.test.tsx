// @vitest-environment happy-dom
import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { HowGot } from "@/cold/HowGot";
import { show } from "./screen";

it("a mark says how this was worked out, with each row it rests on, where that is from, and the way there", async () => {
  const { hand } = show(<HowGot of={["relaxing", "brittle", "relaxing", null]} />);
  await hand.click(screen.getByRole("button", { name: "how this was worked out" }));
  expect(await screen.findByText("Relaxing")).toBeTruthy();
  expect(screen.getAllByText("Relaxing")).toHaveLength(1);
  expect(screen.getByText("Brittle butter")).toBeTruthy();
  const rows = screen.getAllByRole("link");
  expect(rows.length).toBeGreaterThan(5);
  for (const row of rows) expect(row.getAttribute("href")).toMatch(/^\/kitchen\?find=/);
  expect(screen.getAllByText(/trade practice|published|yours/).length).toBeGreaterThan(3);
});

it("says nothing of what nobody knows", () => {
  show(<HowGot of={["no such cause", null]} />);
  expect(screen.queryByRole("button")).toBeNull();
});
