// @vitest-environment happy-dom
/** Parts of the rooms: trays at the bench, the builders' page, what a saved word says. */
import { cleanup, screen, within } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { SavedWord } from "@/drafts/SavedWord";
import { found, sooner } from "@/rooms/bench/BenchList";
import { deedOf, PutRight } from "@/rooms/bench/GoButton";
import { type RunView, whereNow } from "@/rooms/bench/now";
import { Resting } from "@/rooms/bench/Resting";
import { firstTray, TrayBoard, TrayGo } from "@/rooms/bench/TrayBoard";
import Drawings from "@/rooms/drawings/Drawings";
import { endedAtCut } from "@/steps/kinds/look";
import { stayIn } from "@/steps/stays";
import { coiled, plan, serve, show, warmth, worked } from "./screen";
import runs from "./written/runs.json";

const BY_TRAYS = runs.find((r) => r.name.startsWith("trays")) as (typeof runs)[number];

function board(said: number) {
  const view = {
    ...BY_TRAYS,
    plan,
    worked: { ...worked, strip: BY_TRAYS.worked.strip },
    standing: BY_TRAYS.standings[said],
  } as unknown as RunView;
  const { trays } = whereNow(view, []);
  const say = vi.fn();
  const clock = new Date("2026-03-07T04:40:00Z");
  const all = { view, trays, clock, say, waiting: [] };
  return {
    say,
    trays,
    ...show(
      <>
        <TrayBoard {...all} />
        <TrayGo {...all} />
      </>,
    ),
  };
}

it("a tray's own button says what it is and says it to the run", async () => {
  const { hand, say } = board(5);
  await hand.click(screen.getByRole("button", { name: "Tray 1: shaped" }));
  expect(say).toHaveBeenCalledWith({ kind: "done", stop: "shape", tray: 1 });
});

it("a tray's time is touched to put it right, not to before what it follows", async () => {
  const { hand, say, trays } = board(10);
  const touch = (tray: number) =>
    hand.click(screen.getByRole("button", { name: `Put right when: tray ${tray}` }));
  const earlier = () => screen.getByRole("button", { name: "A minute earlier" });
  const five = () => screen.getByRole("button", { name: "−5 minutes" });
  // washed three minutes after it came out of the proof
  await touch(1);
  expect(five()).toHaveProperty("disabled", true);
  await hand.click(earlier());
  const entry = trays.find((t) => t.tray === 1)?.entry;
  expect(say).toHaveBeenCalledExactlyOnceWith({ kind: "move", minutes: -1, target: entry });
});

it("a tray is lost only after it was asked", async () => {
  const { hand, say } = board(5);
  await hand.click(screen.getByRole("button", { name: "Tray 2 is lost" }));
  expect(say).not.toHaveBeenCalled();
  const asked = await screen.findByRole("dialog", { name: "Tray 2 is lost?" });
  await hand.click(within(asked).getByRole("button", { name: "Keep the tray" }));
  expect(say).not.toHaveBeenCalled();
  await hand.click(screen.getByRole("button", { name: "Tray 2 is lost" }));
  const again = await screen.findByRole("dialog", { name: "Tray 2 is lost?" });
  await hand.click(within(again).getByRole("button", { name: "Lost" }));
  expect(say).toHaveBeenCalledExactlyOnceWith({ kind: "lost", tray: 2 });
});

it("nothing more is asked of a tray that is lost, and it is counted", () => {
  const { trays } = board(8);
  const lost = trays.filter((t) => t.lost);
  expect(lost.length).toBeGreaterThan(0);
  expect(screen.getByText(new RegExp(`, ${lost.length} lost`))).toBeTruthy();
  for (const { tray } of lost) {
    expect(screen.queryByRole("button", { name: new RegExp(`^Tray ${tray}:`) })).toBeNull();
  }
});

it("all trays of a load go by one press, those that are lost left out", async () => {
  const { hand, say } = board(5);
  const [all] = screen.getAllByRole("button", { name: /^All \d+: shaped$/ });
  if (!all) throw new Error("no button for all");
  await hand.click(all);
  const of = Number(/\d+/.exec(all.textContent ?? "")?.[0]);
  expect(say).toHaveBeenCalledTimes(of);
});

it("the builders' page shows every drawing of a plan, each by its name", async () => {
  serve({
    "GET /api/plans": () => [{ id: 1, name: plan.name }],
    "GET /api/plans/1": () => ({ id: 1, plan }),
    "POST /api/work": () => worked,
    "POST /api/warmth": () => warmth,
  });
  show(<Drawings />);
  await screen.findByText("warmth");
  for (const stop of worked.strip) expect(screen.getByText(`${stop.name}: glyph`)).toBeTruthy();
  const figures = document.querySelectorAll("figure");
  for (const figure of figures) {
    expect(figure.textContent, figure.textContent ?? "").not.toMatch(/undefined|NaN/);
    expect(figure.children.length, figure.textContent ?? "").toBeGreaterThan(1);
  }
  expect(figures.length).toBeGreaterThan(60);
}, 20_000);

it.each([
  [{ state: "saved", at: new Date("2026-11-21T04:05:00Z") }, /^saved \d\d:05$/],
  [{ state: "saving" }, /^saving$/],
  [{ state: "waiting", why: "No connection." }, /^No connection\.$/],
  [{ state: "refused", why: "See the note." }, /^See the note\.$/],
] as const)("says %o in a word", (saving, word) => {
  show(<SavedWord saving={saving} readOnly={false} />);
  expect(screen.getByRole("status").textContent).toMatch(word);
});

it("says that a field cannot be read before anything else", () => {
  show(<SavedWord saving={{ state: "saved", at: new Date() }} readOnly={false} unread />);
  expect(screen.getByRole("status").textContent).toMatch(/^not saved: a field cannot be read/);
});

it("puts what is ready first before what waits for hands", () => {
  const line = (id: string, until: string | null, since: string) => ({ id, until, since }) as never;
  const [a, b, c, d] = [
    line("shape on the bench", null, "2026-03-07T04:00:00Z"),
    line("a tray over its proof", "2026-03-07T06:00:00Z", "2026-03-07T04:30:00Z"),
    line("a turn at rest", "2026-03-07T06:40:00Z", "2026-03-07T06:10:00Z"),
    line("begun later", null, "2026-03-07T05:00:00Z"),
  ];
  expect([d, a, c, b].toSorted(sooner).map((r: { id: string }) => r.id)).toEqual([
    "a tray over its proof",
    "a turn at rest",
    "shape on the bench",
    "begun later",
  ]);
});

it("names the tray that is over its time before one that only waits", () => {
  const clock = new Date("2026-03-07T06:00:00Z");
  const tray = (n: number, until: string | null) =>
    ({ tray: n, next: { kind: "out", stop: "shape" }, until: until && new Date(until) }) as never;
  const trays = [tray(1, "2026-03-07T06:20:00Z"), tray(2, "2026-03-07T05:42:00Z"), tray(3, null)];
  expect(firstTray(trays, clock)?.tray).toBe(2);
  expect(firstTray([{ tray: 4, next: null, until: null } as never], clock)).toBeUndefined();
});

it("plans are found by name or family, and those of today's doughs come first", () => {
  const plans = [
    { id: 1, name: "Café boat puff", family: "puff" },
    { id: 2, name: "Station croissant", family: "croissant" },
    { id: 3, name: "Market croissant", family: "croissant" },
  ];
  const ids = (sought: string, due: number[] = []) =>
    found(plans, sought, new Set(due)).map((p) => p.id);
  expect(ids("")).toEqual([1, 2, 3]);
  expect(ids("", [3])).toEqual([3, 1, 2]);
  expect(ids("croissant mark")).toEqual([3]);
  expect(ids("brioche")).toEqual([]);
});

it("what was begun before the first press is told by the minute, and the first deed takes it along", async () => {
  const said = runs.find((r) => r.name.startsWith("begun")) as (typeof runs)[number];
  const at = (n: number) =>
    deedOf(whereNow({ ...said, standing: said.standings[n] } as unknown as RunView, []));
  const before = at(0);
  if (!before) throw new Error("nothing to put right");
  const say = vi.fn();
  const { hand, unmount } = show(<PutRight deed={before} say={say} />);
  await hand.click(screen.getByRole("button", { name: "−5 minutes" }));
  expect(say).toHaveBeenCalledExactlyOnceWith({ kind: "begun", minutes: -5 });
  say.mockClear();
  const first = at(4);
  if (!first?.began) throw new Error("the first deed was not found");
  const minutes = Math.round((first.at.getTime() - first.began.getTime()) / 60_000);
  unmount();
  show(<PutRight deed={{ ...first, at: first.began }} say={say} />);
  await hand.click(screen.getByRole("button", { name: "A minute earlier" }));
  expect(minutes).toBeGreaterThan(0);
  expect(say.mock.calls.map(([s]) => s)).toEqual([
    { kind: "begun", minutes: -1 },
    { kind: "move", target: first.entries[0], minutes: -1 },
  ]);
});

it("a change of place is called in a person's words, and what ends by its warmth by that", () => {
  const at = (minute: number) => new Date(Date.parse("2026-03-07T04:00:00Z") + minute * 60_000);
  const stays = [
    { ...stayIn("proofer", 30), air_c: 6 },
    { ...stayIn("proofer", 40), air_c: 18, until_c: 12 },
  ];
  const stop = {
    ...worked.strip[4],
    rest: { stays },
    gives: 1,
    alarms: [
      { after: "done", minutes: 30, says: "set the proofer to {18|°C}, 40 min" },
      { after: "done", minutes: null, says: "is its middle at {12|°C}? Then take it out" },
    ],
  };
  const run = { worked: { ...worked, strip: [stop] } } as unknown as RunView;
  const resting = (minute: number) => {
    vi.setSystemTime(at(minute));
    const now = { phase: "rest", stop, next: null, trays: [], since: at(0), until: at(70) };
    show(
      <Resting run={run} now={now as never} name="Kiosk">
        {null}
      </Resting>,
    );
  };
  localStorage.setItem("eight-turn.sound", '"off"');
  vi.useFakeTimers({ toFake: ["Date"] });
  resting(35);
  expect(screen.getByText("Kiosk: set the proofer to 18 °C, 40 min")).toBeTruthy();
  expect(screen.getByText(/Until its middle is 12 °C/)).toBeTruthy();
  cleanup();
  resting(71);
  expect(screen.getByText("Kiosk: is its middle at 12 °C? Then take it out")).toBeTruthy();
  expect(document.body.textContent).not.toMatch(/\{\d+\|/);
  vi.useRealTimers();
});

it("a plan that ends with its cut keeps nothing of the oven, nor of the fat", () => {
  const ended = endedAtCut(coiled.plan, coiled.worked);
  expect(coiled.plan.steps.some((s) => s.do === "fry")).toBe(true);
  expect(ended.steps.at(-1)?.do).toBe("offcuts");
});
