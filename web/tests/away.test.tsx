// @vitest-environment happy-dom
import "fake-indexeddb/auto";
/** A tablet that was away: times put right, entries that need a person, a house put back to a copy. */
import { act, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { hear } from "@/api/client";
import { AfterCopy } from "@/offline/AfterCopy";
import { type Entry, kept } from "@/offline/db";
import { lookAfter } from "@/offline/outbox";
import { putTimesRight } from "@/offline/post";
import { Refused } from "@/offline/Refused";
import { forgetSent, remember } from "@/offline/sent";
import { placing, type Stamp, stampNow } from "@/offline/times";
import { houseTime, learn } from "@/wire/clock";
import { hearLife, knownLife } from "@/wire/life";
import { refuse, serve, show } from "./screen";

const MIN = 60_000;
const RUN = "6c3f1b2e-0000-4000-8000-000000000009";
const stamp = (more: Partial<Stamp>): Stamp => ({
  wall: 0,
  ticks: 0,
  page: "this",
  offset: 0,
  ...more,
});
const note = (id: string, more: Partial<Entry> = {}): Entry =>
  ({
    id,
    run: RUN,
    by: null,
    tries: 0,
    next: 0,
    what: "event",
    body: { id, at: "2026-11-28T04:00:00.000Z", kind: "note", words: id },
    ...more,
  }) as Entry;
const box = async () => (await kept()).getAll("outbox");

let leave = () => {};
beforeEach(async () => {
  leave();
  await (await kept()).clear("outbox");
  await forgetSent();
  leave = lookAfter();
});

it("a clock that was set ten minutes ahead before the entry: the house's time counts", () => {
  // thought to be right; heard at the end to be ten minutes ahead; ticks and clock went alike since
  const then = stamp({ wall: 100 * MIN, ticks: 5 * MIN, offset: 0 });
  const now = stamp({ wall: 112 * MIN, ticks: 17 * MIN, offset: -10 * MIN });
  expect(placing(then, now)).toEqual({ offset: -10 * MIN });
});

it("a clock that was set after the entry: what was thought then counts", () => {
  const then = stamp({ wall: 100 * MIN, ticks: 5 * MIN, offset: 0 });
  const now = stamp({ wall: 122 * MIN, ticks: 17 * MIN, offset: -10 * MIN });
  expect(placing(then, now)).toEqual({ offset: 0 });
});

it("a tablet that only slept is left alone, and one that nobody can tell about is asked of a person", () => {
  const then = stamp({ wall: 100 * MIN, ticks: 5 * MIN, offset: 2 * MIN });
  expect(placing(then, stamp({ wall: 190 * MIN, ticks: 6 * MIN, offset: 2 * MIN }))).toEqual({
    offset: 2 * MIN,
  });
  const anew = stamp({ wall: 190 * MIN, ticks: 0, page: "opened anew", offset: -8 * MIN });
  expect(placing(then, anew)).toEqual({ either: [2 * MIN, -8 * MIN] });
  // but nothing is entered later than now
  const soon = stamp({ wall: 101 * MIN, ticks: 0, page: "opened anew", offset: -8 * MIN });
  expect(placing(then, soon)).toEqual({ offset: -8 * MIN });
});

it("what waits is put right before it is sent, and what was sent once is left as it is", async () => {
  const db = await kept();
  const at = stampNow(-10 * MIN);
  await db.add("outbox", note("a", { stamp: { ...at, offset: 0 } }));
  await db.add("outbox", note("b", { stamp: { ...at, offset: 0 }, tries: 1 }));
  await putTimesRight(at);
  const [a, b] = await box();
  expect(a?.what === "event" && Date.parse(a.body.at)).toBe(at.wall - 10 * MIN);
  expect(b?.what === "event" && b.body.at).toBe("2026-11-28T04:00:00.000Z");
});

it("time is learnt from the answer to this question alone, and never from one that was kept", () => {
  const now = Date.now();
  learn(now, now, now);
  const old = new Response(null, {
    headers: { "X-House-Time": String(now - 86_400_000), "X-Asked": "yesterday" },
  });
  hear("today", now, old);
  expect(Math.abs(houseTime() - Date.now())).toBeLessThan(1_000);
  const fresh = new Response(null, {
    headers: { "X-House-Time": String(now - 5 * MIN), "X-Asked": "today" },
  });
  hear("today", now, fresh);
  expect(Math.round((houseTime() - Date.now()) / MIN)).toBe(-5);
  learn(now, now, now);
});

it("what was refused stands in one place with its reason, and can be discarded", async () => {
  const db = await kept();
  const aside = [{ field: "events[0].stop", message: "Next is Lock-in, not Turn 1." }];
  await db.add("outbox", note("a", { aside }));
  await db.add("outbox", note("b", { nowhere: true }));
  leave();
  leave = lookAfter();
  const { hand } = show(<Refused />);
  const said = await screen.findByRole("alert");
  expect(said.textContent).toContain("2 entries need looking at");
  await hand.click(within(said).getByRole("button", { name: "Look at them" }));
  const list = await screen.findByRole("dialog");
  expect(list.textContent).toContain("Next is Lock-in, not Turn 1.");
  expect(list.textContent).toContain("The bakehouse has no such dough");
  for (let left = 2; left > 0; left--) {
    const [discard] = within(list).getAllByRole("button", { name: "Discard this entry" });
    if (discard) await hand.click(discard);
    await waitFor(async () => expect(await box()).toHaveLength(left - 1));
  }
});

it("entries of two possible times are asked about in one dialog and sent with what was chosen", async () => {
  const said: unknown[] = [];
  serve({
    [`POST /api/runs/${RUN}/events`]: (body) => {
      said.push(...(body as { events: { id: string; at: string }[] }).events);
      return refuse(422, "", "Kept for the test.");
    },
  });
  const [early, late] = ["2026-11-28T03:50:00.000Z", "2026-11-28T04:00:00.000Z"];
  const db = await kept();
  for (const id of ["a", "b"]) await db.add("outbox", note(id, { either: [early, late] }));
  leave();
  leave = lookAfter();
  const { hand } = show(<Refused />);
  await hand.click(await screen.findByRole("button", { name: "Look at them" }));
  expect(said).toEqual([]); // nobody sends what nobody is sure of
  const [first] = screen.getAllByRole("radio");
  if (first) await hand.click(first);
  await hand.click(screen.getByRole("button", { name: "Send with these times" }));
  await waitFor(() => expect(said.length).toBeGreaterThanOrEqual(2));
  expect(said).toEqual(
    expect.arrayContaining([
      expect.objectContaining({ id: "a", at: early }),
      expect.objectContaining({ id: "b", at: late }),
    ]),
  );
});

it("after a copy was put back, what was sent since is offered and goes once more", async () => {
  const copied = Date.parse("2026-11-28T01:30:00Z");
  await remember([note("old", { n: 1 })], copied - 60 * MIN);
  await remember([note("new", { n: 2 })], copied + 60 * MIN);
  const said: string[] = [];
  serve({
    "GET /api/house": () => ({
      life: { id: "second", copied_at: new Date(copied).toISOString() },
    }),
    [`POST /api/runs/${RUN}/events`]: (body) => {
      said.push(...(body as { events: { id: string }[] }).events.map((e) => e.id));
      return { id: RUN };
    },
  });
  vi.stubGlobal("localStorage", window.localStorage);
  hearLife("first");
  expect(knownLife()).toBe("first");
  act(() => hearLife("second"));
  const { hand } = show(<AfterCopy />);
  const offer = await screen.findByRole("alert");
  expect(offer.textContent).toContain("1 entry");
  await hand.click(within(offer).getByRole("button", { name: "Send them again" }));
  await waitFor(() => expect(said).toEqual(["new"]));
  await waitFor(() => expect(screen.queryByRole("alert")).toBeNull());
  expect(knownLife()).toBe("second");
});
