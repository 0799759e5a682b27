// @vitest-environment happy-dom
import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { PasteFormula } from "@/rooms/plans/PasteFormula";
import { plan, serve, show } from "./screen";

const line = (text: string, ingredient: string, grams: number, says: string) => ({
  text,
  ingredient,
  grams,
  says,
  in_block: false,
  of_flour: false,
});
const FLOUR = line("500 g flour", "flour-medium", 500, "{500|g} of plain wheat flour");
const OATS = line("200 ml oat milk", "milk-whole", 206, "{206|g} of whole milk");

it("asks what is not certain, and takes it only when somebody said yes", async () => {
  const asked = serve({
    "POST /api/formula/pasted": (body) => {
      const yes = (body as { accepted: number[] }).accepted.includes(1);
      const read = yes ? [FLOUR, OATS] : [FLOUR];
      return {
        lines: read.map((r) => ({ ingredient: r.ingredient, pct: r.grams / 5 })),
        read,
        asked: yes ? [] : [{ number: 1, asks: "“oat” was not understood.", reading: OATS }],
        missed: [],
        dough_g: 500,
        block_g: 0,
      };
    },
  });
  const change = vi.fn();
  const { hand } = show(<PasteFormula plan={plan} close={() => {}} change={change} />);
  await hand.type(
    await screen.findByLabelText("One ingredient on each line"),
    "500 g flour\n200 ml oat milk",
  );
  await hand.click(screen.getByRole("button", { name: "Read it" }));
  const question = await screen.findByRole("region", { name: "What is not certain" });
  expect(question.textContent).toContain("“oat” was not understood.");
  await hand.click(screen.getByRole("button", { name: /^Yes, 206/ }));
  await vi.waitFor(() =>
    expect(screen.queryByRole("region", { name: "What is not certain" })).toBeNull(),
  );
  expect(asked.at(-1)?.body).toMatchObject({ accepted: [1] });
  await hand.click(screen.getByRole("button", { name: "Take it as the formula" }));
  expect(change.mock.lastCall?.[0].formula.lines).toEqual([
    { ingredient: "flour-medium", pct: 100 },
    { ingredient: "milk-whole", pct: 41.2 },
  ]);
});
