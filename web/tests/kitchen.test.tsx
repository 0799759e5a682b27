// @vitest-environment happy-dom
/** The kitchen's values: what is one's own first, the rest by search, and nothing drawn that is folded. */
import { MantineProvider } from "@mantine/core";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter } from "react-router";
import { afterEach, expect, test, vi } from "vitest";
import { found, type Row } from "@/rooms/kitchen/found";
import { Values } from "@/rooms/kitchen/Values";

const row = (key: string, label: string, group: string, origin = "practice"): Row =>
  ({
    key,
    label,
    group,
    value: 5,
    unit: "min",
    low: 0,
    high: 90,
    source: "",
    origin,
    choices: [] as string[],
  }) as Row;

const TABLE = [
  row("relax.book", "relaxing after a book fold", "rest"),
  row("relax.letter", "relaxing after a letter fold", "rest"),
  row("room.c", "the room", "cold", "yours"),
  row("fridge.c", "the fridge", "cold"),
];

function shown(set = vi.fn()) {
  const client = new QueryClient({ defaultOptions: { queries: { enabled: false } } });
  render(
    <MantineProvider>
      <QueryClientProvider client={client}>
        <MemoryRouter>
          <Values table={TABLE} readOnly={false} set={set} reset={vi.fn()} />
        </MemoryRouter>
      </QueryClientProvider>
    </MantineProvider>,
  );
  return set;
}

afterEach(cleanup);

test("words are looked for at their beginnings, and a word that nobody knows counts for nothing", () => {
  const keys = (sought: string) => found(TABLE, sought, (r) => r.label).map((r) => r.key);
  expect(keys("Relaxing after a BOOK fold")).toEqual(["relax.book"]);
  expect(keys("how long relaxing")).toEqual(["relax.book", "relax.letter"]);
  expect(keys("ridge")).toEqual([]);
  expect(keys("?!")).toEqual([]);
});

test("what is one's own stands first, and what is folded is not drawn", async () => {
  shown();
  expect(screen.getAllByRole("textbox")).toHaveLength(1);
  expect(screen.getByLabelText("The room")).toBeTruthy();
  await userEvent.click(
    screen.getByText("relaxing after a book fold, relaxing after a letter fold"),
  );
  expect(await screen.findByLabelText("Relaxing after a letter fold")).toBeTruthy();
});

test("what was changed stays under the hand, what was learned comes to the top", async () => {
  const seen = (table: Row[]) => (
    <MantineProvider>
      <QueryClientProvider client={new QueryClient()}>
        <MemoryRouter>
          <Values table={table} readOnly={false} set={vi.fn()} reset={vi.fn()} />
        </MemoryRouter>
      </QueryClientProvider>
    </MantineProvider>
  );
  const own = (...keys: string[]) =>
    TABLE.map((r) => (keys.includes(r.key) ? { ...r, origin: "yours" as const } : r));
  const { rerender } = render(seen(TABLE));
  await userEvent.click(screen.getByText(/^relaxing after a book fold/));
  const book = await screen.findByLabelText("Relaxing after a book fold");
  await userEvent.type(book, "7");
  await userEvent.tab();
  rerender(seen(own("room.c", "relax.book", "fridge.c")));
  const top = screen.getByRole("heading", { name: "Yours" }).parentElement as HTMLElement;
  expect(within(top).getAllByRole("textbox")).toHaveLength(2);
  expect(within(top).getByLabelText("The fridge")).toBeTruthy();
  expect(screen.getByLabelText("Relaxing after a book fold")).toBe(book);
  // put back where it stands: it does not jump away either
  rerender(seen(own("relax.book")));
  expect(within(top).getAllByRole("textbox")).toHaveLength(2);
});

test("a value is found by a word of it, changed, and nothing else is in the way", async () => {
  const set = shown();
  await userEvent.type(screen.getByRole("searchbox", { name: "Find a value" }), "book");
  const values = screen.getByRole("region", { name: "Values" });
  expect(within(values).getAllByRole("textbox")).toHaveLength(1);
  const input = screen.getByLabelText("Relaxing after a book fold");
  await userEvent.clear(input);
  await userEvent.type(input, "25");
  await userEvent.tab();
  expect(set).toHaveBeenCalledWith("relax.book", 25);
  await userEvent.clear(screen.getByRole("searchbox"));
  await userEvent.type(screen.getByRole("searchbox"), "xyz");
  expect(screen.getByRole("status").textContent).toContain("No value is called so");
});

test("what is being typed stays where it is when the trade's words come later", async () => {
  const set = vi.fn();
  const client = new QueryClient({ defaultOptions: { queries: { enabled: false } } });
  render(
    <MantineProvider>
      <QueryClientProvider client={client}>
        <MemoryRouter initialEntries={["/kitchen?find=fridge"]}>
          <Values table={TABLE} readOnly={false} set={set} reset={vi.fn()} />
        </MemoryRouter>
      </QueryClientProvider>
    </MantineProvider>,
  );
  const input = screen.getByLabelText("The fridge");
  await userEvent.clear(input);
  await userEvent.type(input, "7");
  act(() => {
    const words = { family: [{ value: "cold", said: "what is cold" }] };
    client.setQueryData(["trade"], { words });
  });
  expect(await screen.findByText("What is cold")).toBeTruthy();
  expect(screen.getByLabelText("The fridge")).toBe(input);
  await userEvent.tab();
  expect(set).toHaveBeenCalledWith("fridge.c", 7);
});
