// @vitest-environment happy-dom
/** Who is let in, who comes first, and what is told of what waits; the keys at the bench. */
import "fake-indexeddb/auto";
import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Entry } from "@/offline/db";
import { Notices, waitingOf } from "@/offline/Notices";
import { typed } from "@/rooms/bench/GoButton";
import { Choose } from "@/rooms/bench/Here";
import { Keypad } from "@/rooms/bench/Keypad";
import { usePedal } from "@/rooms/bench/usePedal";
import { FirstStart } from "@/rooms/people/FirstStart";
import { OwnPassword, People } from "@/rooms/people/People";
import { refuse, serve, show } from "./screen";

const ME = { username: "wren", role: "head", likes: {} } as never;
const PEOPLE = [
  { username: "tansy", role: "bench", here: true },
  { username: "wren", role: "head", here: true },
];

it("lets somebody in, and says at its field why not", async () => {
  let refused = true;
  const asked = serve({
    "GET /api/people": () => PEOPLE,
    "POST /api/people": () =>
      refused ? refuse(422, "username", "Somebody of this name is there already.") : PEOPLE[0],
  });
  const { hand } = show(<People me={ME} />);
  await screen.findByText("tansy");
  await hand.type(screen.getByLabelText("Who comes"), "Tansy");
  await hand.type(screen.getByLabelText("First password"), "reeds-by-the-weir");
  await hand.click(screen.getByRole("button", { name: "Let in" }));
  expect(await screen.findByText("Somebody of this name is there already.")).toBeTruthy();
  refused = false;
  await hand.click(screen.getByRole("button", { name: "Let in" }));
  await waitFor(() =>
    expect((screen.getByLabelText("Who comes") as HTMLInputElement).value).toBe(""),
  );
  expect(asked.find((a) => a.what === "POST /api/people")?.body).toMatchObject({ role: "bench" });
});

it("puts somebody else out, and nobody out of her own house", async () => {
  const asked = serve({
    "GET /api/people": () => PEOPLE,
    "PUT /api/people/tansy": () => PEOPLE[0],
    "PUT /api/people/wren": () =>
      refuse(422, "role", "Somebody must stay head baker. Make another one first."),
  });
  const { hand } = show(<People me={ME} />);
  await hand.click(await screen.findByRole("button", { name: "Bar from signing in: tansy" }));
  expect(screen.queryByRole("button", { name: "Bar from signing in: wren" })).toBeNull();
  expect(asked.at(-1)?.body).toEqual({ role: null, here: false, password: null });
  await hand.selectOptions(screen.getByLabelText("What wren may do"), "bench");
  expect((await screen.findByRole("alert")).textContent).toContain("must stay head baker");
});

it("one's own password is said twice: the old one, and the new", async () => {
  const done = vi.fn();
  const asked = serve({ "PUT /api/session/password": () => ({}) });
  const { hand } = show(<OwnPassword done={done} />);
  await hand.type(screen.getByLabelText("The one you have"), "old-one");
  await hand.type(screen.getByLabelText("The new one"), "new-one");
  await hand.click(screen.getByRole("button", { name: "Change it" }));
  await waitFor(() => expect(done).toHaveBeenCalled());
  expect(asked[0]?.body).toEqual({ old: "old-one", new: "new-one" });
});

it("a new house sends the code, the person and only what is different in the kitchen", async () => {
  const row = (key: string, label: string, value: number, unit: string) =>
    ({ key, label, value, unit, group: "bench", origin: "trade practice", choices: [] }) as const;
  const asked = serve({
    "GET /api/first": () => [
      row("bench.length_mm", "bench length", 1800, "mm"),
      row("fridge.c", "the fridge", 4, "°C"),
      {
        ...row("butter.usual", "the butter", 0, ""),
        choices: ["table butter", "laminating butter"],
      },
    ],
    "POST /api/first": () => refuse(422, "code", "This is not the code that the terminal shows."),
  });
  const { hand } = show(<FirstStart />);
  const fridge = await screen.findByLabelText(/^The fridge/);
  await hand.clear(fridge);
  await hand.type(fridge, "3");
  await hand.selectOptions(screen.getByLabelText("The butter"), "laminating butter");
  await hand.type(screen.getByLabelText("Code from the terminal"), "ABCD-EFGH");
  await hand.type(screen.getByLabelText("Your name"), "bryony");
  await hand.type(screen.getByLabelText("A password"), "reeds-by-the-weir");
  await hand.click(screen.getByRole("button", { name: "Begin" }));
  expect(await screen.findByText("This is not the code that the terminal shows.")).toBeTruthy();
  expect(asked.find((a) => a.what === "POST /api/first")?.body).toEqual({
    code: "ABCD-EFGH",
    username: "bryony",
    password: "reeds-by-the-weir",
    rows: { "fridge.c": 3, "butter.usual": 1 },
  });
});

it("who is here is one press, or a short number; a longer one is waited for", async () => {
  const choose = vi.fn();
  const people = [3, 4, 41].map((number) => ({
    number,
    username: `p${number}`,
    role: "bench" as const,
    here: true,
  }));
  const { hand } = show(<Choose people={people} choose={choose} />);
  await hand.click(screen.getByRole("button", { name: /^p4 4$/ }));
  fireEvent.keyDown(document.body, { key: "3" });
  fireEvent.keyDown(document.body, { key: "4" });
  expect(choose.mock.calls).toEqual([["p4"], ["p3"]]);
  fireEvent.keyDown(document.body, { key: "1" });
  expect(choose.mock.lastCall).toEqual(["p41"]);
});

const entry = (more: Partial<Entry>): Entry =>
  ({
    id: "e",
    run: "r",
    by: null,
    tries: 0,
    next: 0,
    what: "event",
    body: { id: "e", kind: "done", stop: "turn-1", at: "2026-11-28T05:00:00.000Z" },
    ...more,
  }) as Entry;

it("what is on its way for the first time is nothing to speak of", () => {
  const entries = [entry({}), entry({ tries: 2 }), entry({ aside: [] })];
  expect(waitingOf(entries, null)).toBe(1);
  expect(waitingOf(entries, 1)).toBe(2);
  show(<Notices waiting={2} lostSince={Date.parse("2026-11-28T05:02:00Z")} />);
  expect(screen.getByRole("status").textContent).toMatch(
    /^No connection since \d\d:02\. 2 entries wait here and will be sent\.$/,
  );
});

it("a pedal presses the one thing to press, and no key does so in a dialog or on another button", () => {
  const go = vi.fn();
  function Bench({ asking }: { asking: boolean }) {
    usePedal();
    return (
      <>
        <button type="button">Note</button>
        <button type="button" data-go="" onClick={go}>
          Turn 1 done
        </button>
        {asking && <div role="dialog">How warm?</div>}
      </>
    );
  }
  const { unmount } = show(<Bench asking={false} />);
  fireEvent.keyDown(document.body, { key: "PageDown" });
  fireEvent.keyDown(document.body, { key: "Enter" });
  expect(go).toHaveBeenCalledTimes(2);
  fireEvent.keyDown(screen.getByRole("button", { name: "Note" }), { key: "Enter" });
  fireEvent.keyDown(document.body, { key: "PageDown", repeat: true });
  fireEvent.keyDown(document.body, { key: "x" });
  expect(go).toHaveBeenCalledTimes(2);
  fireEvent.keyDown(screen.getByRole("button", { name: "Note" }), { key: "PageDown" });
  expect(go).toHaveBeenCalledTimes(3);
  unmount();
  show(<Bench asking />);
  fireEvent.keyDown(document.body, { key: "PageDown" });
  expect(go).toHaveBeenCalledTimes(3);
});

it("the keypad takes a real keyboard, a comma too, and keeps what was entered when it is closed", async () => {
  serve({ "GET /api/probes": () => [] });
  const enter = vi.fn();
  const first = show(<Keypad onEnter={enter} />);
  for (const key of ["1", "2", ",", "5"]) fireEvent.keyDown(document.body, { key });
  expect(screen.getByLabelText("Temperature entered").textContent).toContain("12.5");
  first.unmount();
  show(<Keypad onEnter={enter} />);
  expect(screen.getByLabelText("Temperature entered").textContent).toContain("12.5");
  fireEvent.keyDown(document.body, { key: "Backspace" });
  fireEvent.keyDown(document.body, { key: "-" });
  fireEvent.keyDown(document.body, { key: "Enter" });
  expect(enter).toHaveBeenCalledWith("dough", -12);
});

it("a time that is typed is the last one of that hour", () => {
  const at = new Date("2026-11-28T00:10:00Z");
  expect(typed("00:05", at, at)?.toISOString()).toBe("2026-11-28T00:05:00.000Z");
  expect(typed("23:50", at, at)?.toISOString()).toBe("2026-11-27T23:50:00.000Z");
  for (const text of ["0005", "0:05", "00.05"])
    expect(typed(text, at, at)?.toISOString()).toBe("2026-11-28T00:05:00.000Z");
  for (const text of ["", "noon", "25:00", "1:7"]) expect(typed(text, at, at)).toBeNull();
});
