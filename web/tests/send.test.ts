/** What waits is sent run by run, in order, and nothing is thrown away; the bakehouse's clock is learnt. */
import { beforeEach, expect, it, vi } from "vitest";
import type { Entry } from "@/offline/db";
import { pause, type Sent, sendAll, together } from "@/offline/send";

const event = (n: number, run = "a", more: Partial<Entry> = {}): Entry =>
  ({
    n,
    id: `event-${n}`,
    run,
    by: null,
    tries: 0,
    next: 0,
    what: "event",
    body: { id: `event-${n}` },
    ...more,
  }) as Entry;

function shelfOf(...first: Entry[]) {
  let entries = first;
  return {
    get left() {
      return entries;
    },
    all: async () => [...entries],
    put: async (entry: Entry) => {
      entries = entries.map((e) => (e.n === entry.n ? entry : e));
    },
    drop: async (gone: Entry[]) => {
      entries = entries.filter((e) => !gone.some((g) => g.n === e.n));
    },
  };
}
const said = (status: number, body: unknown = { id: "a" }): Sent => ({
  status,
  body,
  faults: status === 422 ? [{ field: "stop", message: "Not now." }] : [],
});
const ids = (entries: Entry[]) => entries.map((e) => e.id);

it("all events of a run go together and in order; a picture and a start go by themselves", async () => {
  const shelf = shelfOf(
    event(1, "a", { what: "start" } as never),
    event(2),
    event(3, "b"),
    event(4),
    event(5, "a", { what: "picture" } as never),
    event(6),
  );
  const sent: string[][] = [];
  const all = await sendAll(
    shelf,
    async (e) => {
      sent.push(ids(e));
      return said(200);
    },
    () => 0,
  );
  expect(all).toBe(true);
  expect(sent).toEqual([
    ["event-1"],
    ["event-2", "event-4"],
    ["event-3"],
    ["event-5"],
    ["event-6"],
  ]);
  expect(shelf.left).toEqual([]);
});

it.each([400, 401, 403, 404, 408, 413, 429, 500, 502, 503])(
  "a refusal that is not about the entry, %i, keeps it and tries again later; other runs go on",
  async (status) => {
    const shelf = shelfOf(event(1), event(2), event(3, "b"));
    const done = await sendAll(
      shelf,
      async ([first]) => (first?.run === "b" ? said(200) : said(status)),
      () => 1_000,
    );
    expect(done).toBe(false);
    expect(ids(shelf.left)).toEqual(["event-1", "event-2"]);
    for (const left of shelf.left) expect(left).toMatchObject({ tries: 1, next: 2_000 });
    expect(shelf.left[0]?.aside).toBeUndefined();
  },
);

it("nothing is sent before its pause is over, and the pauses grow to a minute", async () => {
  const shelf = shelfOf(event(1, "a", { tries: 1, next: 5_000 }));
  const post = vi.fn(async () => said(503));
  await sendAll(shelf, post, () => 4_999);
  expect(post).not.toHaveBeenCalled();
  await sendAll(shelf, post, () => 5_000);
  expect(shelf.left[0]).toMatchObject({ tries: 2, next: 7_000 });
  expect([0, 1, 2, 5, 6, 40].map(pause)).toEqual([1000, 2000, 4000, 32000, 60000, 60000]);
});

it("where nobody answers no other run is tried", async () => {
  const shelf = shelfOf(event(1), event(2, "b"));
  const post = vi.fn(async () => null);
  expect(await sendAll(shelf, post, () => 0)).toBe(false);
  expect(post).toHaveBeenCalledOnce();
  expect(shelf.left).toHaveLength(2);
});

it("what is refused for what it says is found out one by one, put aside with its reason, and kept", async () => {
  const shelf = shelfOf(event(1), event(2), event(3));
  const done = await sendAll(
    shelf,
    async (e) => (ids(e).includes("event-2") ? said(422) : said(200)),
    () => 0,
  );
  expect(done).toBe(true);
  expect(ids(shelf.left)).toEqual(["event-2"]);
  expect(shelf.left[0]?.aside).toEqual([{ field: "stop", message: "Not now." }]);
});

it("where another tablet has started the same dough, what waits is said to that run", async () => {
  const shelf = shelfOf(event(1, "a", { what: "start" } as never), event(2), event(3, "b"));
  const runs: string[] = [];
  await sendAll(
    shelf,
    async ([e]) => {
      runs.push(e?.run ?? "");
      return said(200, { id: e?.what === "start" ? "c" : e?.run });
    },
    () => 0,
  );
  expect(runs).toEqual(["a", "c", "b"]);
});

it("what one person entered does not go out as another's", () => {
  const entries = [
    event(1, "a", { by: "tansy" }),
    event(2, "a", { by: "tansy" }),
    event(3, "a", { by: "alder" }),
  ];
  expect(ids(together(entries))).toEqual(["event-1", "event-2"]);
});

it("a heap of events goes in portions", () => {
  expect(together(Array.from({ length: 120 }, (_, n) => event(n)))).toHaveLength(50);
});

async function clock() {
  vi.resetModules();
  return await import("@/wire/clock");
}
const store = new Map<string, string>();
beforeEach(() => {
  store.clear();
  vi.stubGlobal("localStorage", {
    getItem: (k: string) => store.get(k) ?? null,
    setItem: (k: string, v: string) => void store.set(k, v),
  });
  vi.useFakeTimers({ now: 1_000_000 });
  return () => vi.useRealTimers();
});

it("a tablet ten minutes ahead stamps by the bakehouse's clock, and is told", async () => {
  const { houseTime, learn, tabletIsOff } = await clock();
  expect(houseTime()).toBe(1_000_000);
  learn(400_100, 1_000_000, 1_000_200);
  expect(houseTime()).toBe(400_000);
  expect(tabletIsOff()).toBe(600_000);
  // after a cold start without a connection it is known still
  const later = await clock();
  expect(later.houseTime()).toBe(400_000);
});

it("a slow answer does not spoil what a quick one said; a clock that was set is believed", async () => {
  const { houseTime, learn, tabletIsOff } = await clock();
  learn(1_000_050, 1_000_000, 1_000_100);
  learn(1_001_900, 1_000_000, 1_004_000);
  expect(houseTime()).toBe(1_000_000);
  expect(tabletIsOff()).toBe(0);
  learn(2_500_000, 1_000_000, 1_000_400);
  expect(houseTime()).toBe(2_499_800);
  learn(Number.NaN, 1_000_000, 1_000_001);
  expect(houseTime()).toBe(2_499_800);
});
