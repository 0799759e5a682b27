// @vitest-environment happy-dom
import "fake-indexeddb/auto";
/** Today and Day without a server: what is pressed, what is asked, what is said of it. */
import { screen, waitFor, within } from "@testing-library/react";
import { useState } from "react";
import { expect, it, vi } from "vitest";
import type { Schemas } from "@/api/client";
import { orders } from "@/app/WouldMove";
import { DayPlan } from "@/rooms/day/DayPlan";
import { HandsEditor, usualHands } from "@/rooms/day/HandsEditor";
import { useArranged } from "@/rooms/day/useArranged";
import { TodayRoom } from "@/rooms/today/TodayRoom";
import { refuse, serve, show } from "./screen";

const at = (minute: number) => new Date(Date.UTC(2027, 5, 19, 4) + minute * 60_000).toISOString();

const due = (doughs: string[], step: string, when: string, more = {}) => ({
  doughs,
  step,
  name: step,
  starts: at(0),
  ends: at(10),
  who: "early 1",
  when,
  begun: false,
  minutes: 0,
  says: "",
  first: false,
  ...more,
});

const TODAY = {
  order_id: 4,
  name: "Regatta",
  opened_at: at(-60),
  now: at(0),
  due: [
    due(["1"], "Turn 2", "late", { minutes: -12, says: "12 min late" }),
    due(["2", "3"], "Mix", "now", { begun: true, minutes: 8, says: "under way, 8 min left" }),
    due(["4"], "Poolish", "next", { minutes: 25, first: true }),
    due(["1"], "Mix", "done"),
  ],
  lying: [
    { dough: "1", place: "in the fridge", until: at(-12), following: "Turn 2", minutes: -12 },
    { dough: "5", place: "in the freezer", until: at(40), following: "Cut", minutes: 40 },
  ],
  doughs: ["1", "2", "3", "4", "5"].map((dough) => ({
    dough,
    ordered: 0,
    plan_id: 7,
    name: "Station croissant",
    dough_g: 2400,
    ready_at: at(300),
    products: ["Croissant"],
  })),
  runs: ["1", "2", "3"].map((dough) => ({ dough, run: `run-${dough}`, over: false })),
  on: [{ name: "early", starts: at(-60), ends: at(300), count: 2, only: [] }],
  next_on: null,
  gives: ["Dough 1 (Station croissant) is 12 min late: ready at 09:12, wanted at 09:00."],
  short: [],
  handover: "3 of 40 steps are done.",
  handover_is_own: false,
  proposed: null,
};

// what is late asks by itself what has to move; here nothing has to
const QUIET = { "POST /api/orders/4/again": () => ({}) };

it("says what is late before what is due, and how many are on", async () => {
  serve({ ...QUIET, "GET /api/today": () => TODAY });
  show(<TodayRoom />);
  const now = await screen.findByRole("region", { name: "Needs hands now" });
  const times = within(now).getAllByRole("listitem");
  expect(times[0]?.textContent).toContain("Turn 2");
  expect(times[0]?.textContent).toContain("12 min late");
  expect(times[1]?.textContent).toContain("under way, 8 min left");
  expect(screen.getByText(/^early, 2 hands until/)).toBeTruthy();
  expect(screen.getByText("Regatta · 1 of 4 steps done")).toBeTruthy();
  const rest = screen.getByRole("region", { name: "At rest" });
  expect(within(rest).getByText("may come out")).toBeTruthy();
  expect(within(rest).getByText("40 min")).toBeTruthy();
});

it("what is in the oven together is said tray by tray, at its dough", async () => {
  const baked = TODAY.due.map((due) => (due.doughs.length > 1 ? { ...due, by_tray: true } : due));
  serve({ ...QUIET, "GET /api/today": () => ({ ...TODAY, due: baked }) });
  show(<TodayRoom />);
  expect(await screen.findByRole("link", { name: "To the dough, 2" })).toBeTruthy();
  expect(screen.queryByRole("button", { name: "Done, all 2" })).toBeNull();
});

it("one press says the same step of several doughs done", async () => {
  const asked = serve({
    ...QUIET,
    "GET /api/today": () => TODAY,
    "POST /api/runs/run-2/events": () => ({}),
    "POST /api/runs/run-3/events": () => ({}),
  });
  const { hand } = show(<TodayRoom />);
  await hand.click(await screen.findByRole("button", { name: "Done, all 2" }));
  const events = () => asked.filter((a) => a.what.endsWith("/events"));
  await waitFor(() => expect(events()).toHaveLength(2));
  const said = events();
  expect(said.map((a) => a.what).toSorted()).toEqual([
    "POST /api/runs/run-2/events",
    "POST /api/runs/run-3/events",
  ]);
  for (const one of said)
    expect(one.body).toMatchObject({ events: [{ kind: "done", stop: "Mix" }] });
});

it("begins a dough of the day as that dough, and says why when it cannot", async () => {
  const asked = serve({
    ...QUIET,
    "GET /api/today": () => TODAY,
    "POST /api/runs": () => refuse(422, "plan_id", "There is no such plan."),
  });
  const { hand } = show(<TodayRoom />);
  await hand.click(await screen.findByRole("button", { name: "Begin: dough 4" }));
  expect((await screen.findByRole("alert")).textContent).toContain("There is no such plan.");
  expect(asked.find((a) => a.what === "POST /api/runs")?.body).toMatchObject({
    plan_id: 7,
    day: 4,
    dough: "4",
  });
});

it("asks by itself what has to move where something is late, once; a press asks again", async () => {
  const asked = serve({ ...QUIET, "GET /api/today": () => TODAY });
  const again = () => asked.filter((a) => a.what === "POST /api/orders/4/again").length;
  const { hand } = show(<TodayRoom />);
  const press = await screen.findByRole("button", { name: "What has to move?" });
  await waitFor(() => expect(again()).toBe(1));
  await hand.click(press);
  await waitFor(() => expect(again()).toBe(2));
});

const moving = (many: number) =>
  Array.from({ length: many }, (_, n) => ({
    dough: "1",
    step: `turn-${n + 1}`,
    name: `Turn ${n + 1}`,
    was: at(-12),
    starts: at(1),
    says: "13 min later, because the sheeter is with dough 4",
  }));

it("says what would move, by how much and why, and what becomes of the orders", async () => {
  const ready = [0, 12].map((late_min, n) => ({ dough: String(n + 1), late_min }));
  serve({ "GET /api/today": () => ({ ...TODAY, proposed: { moved: moving(7), ready } }) });
  show(<TodayRoom />);
  const would = await screen.findByRole("region", { name: "What would move" });
  expect(within(would).getByRole("heading").textContent).toBe("7 steps would move");
  expect(would.textContent).toContain("Then, dough 2 is 12 min late.");
  expect(would.textContent).toContain("13 min later, because the sheeter is with dough 4");
  expect(within(would).getByText("3 more")).toBeTruthy();
  expect(within(would).getAllByRole("listitem")).toHaveLength(7);
  expect(orders({ moved: [], ready: [] })).toBe("Every dough is still ready at its hour.");
});

it("asks nothing where a proposal is there already, and goes by it on a press", async () => {
  const proposed = { moved: moving(1), ready: [] };
  const asked = serve({
    "GET /api/today": () => ({ ...TODAY, proposed }),
    "POST /api/orders/4/take": () => ({}),
  });
  const { hand } = show(<TodayRoom />);
  await hand.click(await screen.findByRole("button", { name: "Use the new times" }));
  expect(asked.map((a) => a.what)).toContain("POST /api/orders/4/take");
  expect(asked.map((a) => a.what)).not.toContain("POST /api/orders/4/again");
});

it.each([
  [null, "POST /api/orders/4/timetable"],
  [at(-60), "POST /api/orders/4/again"],
])(
  "arranges what was changed, and once the day has begun (%s) proposes it",
  async (opened_at, what) => {
    const kept = { timetable: TIMETABLE, doughs: [], opened_at, stale: true, proposed: null };
    const asked = serve({
      "GET /api/orders/4/timetable": () => kept,
      "POST /api/orders/4/timetable": () => ({ ...kept, stale: false }),
      "POST /api/orders/4/again": () => kept,
    });
    const Day = () => (
      <p>{useArranged(4, "revision 2", true, true).kept.data ? "there" : "not yet"}</p>
    );
    show(<Day />);
    await screen.findByText("there");
    const posts = () => asked.map((a) => a.what).filter((a) => a.startsWith("POST"));
    await waitFor(() => expect(posts()).toContain(what));
    expect(new Set(posts()).size).toBe(1);
    if (opened_at) expect(posts()).toHaveLength(1);
  },
);

it("looks no longer where enough was said before the first answer came", async () => {
  const kept = { timetable: TIMETABLE, doughs: [], opened_at: null, stale: true, proposed: null };
  let answer = (_: unknown) => {};
  const first = new Promise((resolve) => {
    answer = resolve;
  });
  const asked = serve({
    "GET /api/orders/4/timetable": () => kept,
    "POST /api/orders/4/timetable": () => first,
    "DELETE /api/orders/4/look": () => null,
  });
  const Day = () => {
    const { arranging, stop } = useArranged(4, "revision 3", true, true);
    return (
      <button type="button" onClick={stop}>
        {arranging ? "looking" : "looked"}
      </button>
    );
  };
  const { hand } = show(<Day />);
  await hand.click(await screen.findByText("looking"));
  answer({ ...kept, stale: false, settled: false });
  await screen.findByText("looked");
  expect(asked.filter((a) => a.what.startsWith("POST")).length).toBe(1);
});

it("keeps a handover that was changed by hand", async () => {
  const kept = vi.fn();
  serve({
    ...QUIET,
    "GET /api/today": () => TODAY,
    "PUT /api/orders/4/handover": (body) => {
      kept(body);
      return null;
    },
  });
  const { hand } = show(<TodayRoom />);
  const handover = await screen.findByRole("region", { name: "Handover" });
  expect(handover.textContent).toContain("3 of 40 steps are done.");
  await hand.click(within(handover).getByRole("button", { name: "Change it" }));
  const text = within(handover).getByRole("textbox");
  await hand.clear(text);
  await hand.type(text, "Mind dough 1.");
  await hand.click(within(handover).getByRole("button", { name: "Keep it" }));
  expect(kept).toHaveBeenCalledWith({ text: "Mind dough 1." });
});

it("says how to begin where no day is started", async () => {
  serve({ "GET /api/today": () => null });
  show(<TodayRoom />);
  expect(await screen.findByRole("heading", { name: "No day is started" })).toBeTruthy();
  expect(screen.getByRole("link", { name: "To the days" })).toBeTruthy();
});

const ORDER = {
  name: "Regatta",
  doughs: [],
  ready_at: at(300),
  hands: [],
  prefer: "neither",
  held: [],
  quiet: [],
  every: [],
} as Schemas["Order"];

function Editor({ seen }: { seen: (order: Schemas["Order"]) => void }) {
  const [order, setOrder] = useState(ORDER);
  return (
    <HandsEditor
      order={order}
      faults={{ "hands[0].ends": "This shift ends before it begins." }}
      set={(part) => {
        const next = { ...order, ...part };
        setOrder(next);
        seen(next);
      }}
    />
  );
}

it("starts from the usual shifts, and takes one off and puts another on", async () => {
  const seen = vi.fn();
  const { hand } = show(<Editor seen={seen} />);
  await hand.click(screen.getByRole("button", { name: /^The afternoon before/ }));
  expect(seen.mock.lastCall?.[0].hands.map((s: Schemas["Shift"]) => s.name)).toEqual([
    "day before",
    "early",
  ]);
  expect(await screen.findByText("This shift ends before it begins.")).toBeTruthy();
  await hand.click(screen.getByRole("button", { name: "Remove day before" }));
  await hand.click(screen.getByRole("button", { name: "Another shift" }));
  const hands = seen.mock.lastCall?.[0].hands as Schemas["Shift"][];
  expect(hands.map((s) => s.name)).toEqual(["early", "shift 2"]);
  expect(hands[1]?.starts).toBe(hands[0]?.ends);
});

it("the usual shifts are there before the hour they are for, and end after they begin", () => {
  for (const shift of usualHands(at(300))) {
    expect(Date.parse(shift.starts)).toBeLessThan(Date.parse(shift.ends));
    expect(Date.parse(shift.starts)).toBeLessThan(Date.parse(at(300)));
    expect(Date.parse(shift.starts) % 1_800_000).toBe(0);
  }
});

const TIMETABLE = {
  name: "Regatta",
  tasks: [
    ["1", "mix", 0, 25],
    ["1", "turn", 60, 70],
  ].map(([dough, step, from, to]) => ({
    dough,
    step,
    name: step,
    starts: at(from as number),
    ends: at(to as number),
    hands: 1,
    who: "early 1",
    machine: null,
    together: null,
    done: false,
    held: step === "turn",
  })),
  rests: [
    {
      dough: "1",
      step: "mix",
      place: "fridge",
      starts: at(25),
      ends: at(60),
      minutes: 35,
      planned_min: 60,
      verdict: "short",
    },
  ],
  ready: [{ dough: "1", name: "Station croissant", at: at(70), wanted: at(60), late_min: 10 }],
  gives: [
    {
      code: "late",
      dough: "1",
      step: "turn",
      weighs: 600,
      says: "Dough 1 is 10 min late.",
      minute: 60,
      mend: "One more hand would mend it.",
    },
    {
      code: "tight",
      dough: "1",
      step: "mix",
      weighs: 3,
      says: "A rest is tight.",
      minute: 60,
      mend: "",
    },
  ],
  hours: [{ at: at(0), there: 2, busy: 1 }],
  moved: [],
  late_min: 10,
  outside_min: 0,
  tight_min: 3,
};

function dayPlan(change = vi.fn()) {
  const arranged = {
    kept: { data: { timetable: TIMETABLE, doughs: TODAY.doughs.slice(0, 1), proposed: null } },
    arranging: false,
    doing: { mutate: vi.fn() },
  } as unknown as Parameters<typeof DayPlan>[0]["arranged"];
  const order = { ...ORDER, held: [{ dough: "1", step: "turn", at: at(60) }] };
  return {
    change,
    ...show(<DayPlan id={4} order={order} arranged={arranged} readOnly={false} change={change} />),
  };
}

it("says what could not be had with what would mend it, and the tight ones apart", () => {
  dayPlan();
  const gives = screen.getByRole("region", { name: "What could not be had" });
  expect(gives.textContent).toContain("One more hand would mend it.");
  expect(within(gives).getByText("One rest is tight")).toBeTruthy();
  expect(screen.getByRole("status").textContent).toContain("10 min late in all");
});

it("tells a chosen dough in words, moves its step by key, and lets a fixed one go", async () => {
  const { hand, change } = dayPlan();
  await hand.click(screen.getByRole("button", { name: /^1 ?Station croissant/ }));
  const words = screen.getByRole("region", { name: "Dough 1 in words" });
  expect(words.textContent).toContain("35 min in the fridge: short");
  screen.getByRole("button", { name: /^Dough 1, mix/ }).focus();
  await hand.keyboard("{Shift>}{ArrowRight}{/Shift}");
  expect(change).toHaveBeenLastCalledWith(
    { held: [expect.objectContaining({ step: "turn" }), { dough: "1", step: "mix", at: at(5) }] },
    "held",
  );
  await hand.click(within(words).getByRole("button", { name: "fixed: let it move" }));
  expect(change).toHaveBeenLastCalledWith({ held: [] }, "held");
});

it("five quick keys move a step five times, before any timetable has come", async () => {
  const { hand, change } = dayPlan();
  screen.getByRole("button", { name: /^Dough 1, turn/ }).focus();
  // it is fixed at 60 already, wherever the last timetable drew it
  await hand.keyboard("{Shift>}{ArrowRight}{/Shift}");
  expect(change.mock.lastCall?.[0].held).toEqual([{ dough: "1", step: "turn", at: at(65) }]);
});

it("leaves to each shift what it does: all of it is none, and nobody comes to do nothing", async () => {
  const set = vi.fn();
  const shift = { name: "Wren", starts: at(0), ends: at(300), count: 1, only: [] };
  const { hand } = show(
    <HandsEditor order={{ ...ORDER, hands: [shift] } as never} faults={{}} set={set} />,
  );
  await hand.click(screen.getByRole("button", { name: "Wren does everything: choose" }));
  const does = await screen.findByRole("group", { name: "What Wren does" });
  await hand.click(await within(does).findByText("Proof and oven"));
  expect(set).toHaveBeenCalledWith(
    { hands: [{ ...shift, only: ["before", "turns", "cut"] }] },
    "hands[0].only",
  );
  await hand.click(screen.getByRole("button", { name: "Hours with nobody at the bench" }));
  expect(set.mock.lastCall?.[0].quiet).toEqual([{ starts: at(300), ends: at(360) }]);
});
