// @vitest-environment happy-dom
import "fake-indexeddb/auto";
/** What is said at the bench leaves this tablet only when the server has it. */

import { QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { beforeEach, expect, it, vi } from "vitest";
import { queries } from "@/api/queries";
import { kept } from "@/offline/db";
import { again, drop, lookAfter, put } from "@/offline/outbox";
import { useRun } from "@/rooms/bench/useRun";
import { Around, refuse, serve } from "./screen";
import runs from "./written/runs.json";

const RUN = runs[0] as (typeof runs)[number];
const ID = "6c3f1b2e-0000-4000-8000-000000000001";
const KEY = `eight-turn.run.${ID}`;
const snapshot = {
  id: ID,
  plan_id: 1,
  plan: { name: "Station croissant", steps: [] },
  worked: RUN.worked,
  started_at: RUN.started_at,
  started_by: "tansy",
  order: RUN.order,
  tray_steps: RUN.tray_steps,
};
const nowAfter = (said: number) => ({
  id: ID,
  said,
  standing: RUN.standings[said],
  used: null,
  photos: [],
  now: RUN.started_at,
});
const LOOK = {
  [`GET /api/runs/${ID}/snapshot`]: () => snapshot,
  [`GET /api/runs/${ID}`]: () => nowAfter(0),
};
const SAY = `POST /api/runs/${ID}/events`;
type Sent = { events: { id: string; kind: string }[] };

const wrapper = ({ children }: { children: ReactNode }) => (
  <Around>
    <QueryClientProvider client={queries}>{children}</QueryClientProvider>
  </Around>
);
async function at() {
  const hook = renderHook(() => useRun(ID), { wrapper });
  await waitFor(() => expect(hook.result.current.run.data).toBeTruthy());
  return hook;
}
const inTheBox = async () => (await kept()).getAll("outbox");
const putAside = async () => (await inTheBox()).filter((e) => e.aside);
const done = { kind: "done", stop: "dough" } as const;

let leave: () => void = () => {};
beforeEach(async () => {
  leave();
  queries.clear();
  await (await kept()).clear("outbox");
  leave = lookAfter();
});

it("an entry is kept in the browser first, and let go when the server has it", async () => {
  const sent: Sent[] = [];
  serve({
    ...LOOK,
    [SAY]: async (body) => {
      sent.push(body as Sent);
      expect(await inTheBox()).toHaveLength(1);
      return nowAfter(1);
    },
  });
  const { result } = await at();
  await act(() => result.current.say(done));
  await waitFor(async () => expect(await inTheBox()).toEqual([]));
  expect(sent[0]?.events[0]).toMatchObject(done);
  await waitFor(() => expect(result.current.waiting).toHaveLength(0));
});

it("without a connection it waits here, and goes out by itself", async () => {
  serve(LOOK);
  const { result } = await at();
  await act(() => result.current.say(done));
  await waitFor(() => expect(result.current.lostSince).not.toBeNull());
  expect(await inTheBox()).toHaveLength(1);
  serve({ ...LOOK, [SAY]: () => nowAfter(1) });
  await waitFor(() => expect(result.current.waiting).toHaveLength(0));
  expect(result.current.lostSince).toBeNull();
}, 10_000);

it("one that is refused is put aside with its reason, and the others still go", async () => {
  serve({
    ...LOOK,
    [SAY]: (body) =>
      (body as Sent).events.some((e) => e.kind === "out")
        ? refuse(422, "events[0].stop", "Next is Dough, not {8|mm}.")
        : nowAfter(1),
  });
  const { result } = await at();
  act(() => {
    result.current.say({ kind: "out", stop: "dough" });
    result.current.say(done);
  });
  await waitFor(async () => expect(await putAside()).toHaveLength(1));
  await waitFor(() => expect(result.current.waiting).toHaveLength(0));
  const [aside] = await putAside();
  expect(aside?.aside?.[0]?.message).toBe("Next is Dough, not {8|mm}.");
  // a person may put its time right and send it again, or let it go
  const sent: Sent[] = [];
  serve({
    ...LOOK,
    [SAY]: (body) => {
      sent.push(body as Sent);
      return refuse(422, "events[0].at", "That was before this run was started.");
    },
  });
  await act(async () => aside && (await again(aside, "2026-11-28T05:00:00.000Z")));
  expect(sent[0]?.events[0]).toMatchObject({ at: "2026-11-28T05:00:00.000Z", kind: "out" });
  const [still] = await putAside();
  expect(still?.aside?.[0]?.message).toBe("That was before this run was started.");
  await act(async () => still && (await drop(still)));
  expect(await inTheBox()).toEqual([]);
});

it("undo of what was never sent simply does not send it", async () => {
  serve(LOOK);
  const { result } = await at();
  await act(() => result.current.say(done));
  await waitFor(() => expect(result.current.lostSince).not.toBeNull());
  await act(() => result.current.say({ kind: "note", words: "by mistake" }));
  await waitFor(() => expect(result.current.waiting).toHaveLength(2));
  await act(() => result.current.undo());
  expect((await inTheBox()).map((e) => e.what === "event" && e.body.kind)).toEqual(["done"]);
});

it("undo of what may have arrived, for all that came back, is said as well", async () => {
  serve({ ...LOOK, [SAY]: () => refuse(502, "", "") });
  const { result } = await at();
  await act(() => result.current.say(done));
  await waitFor(() => expect(result.current.waiting).toHaveLength(1));
  await waitFor(async () => expect((await inTheBox())[0]?.tries).toBe(1));
  await act(() => result.current.undo());
  const [first, second] = await inTheBox();
  expect(second?.body).toMatchObject({ kind: "undo", target: first?.id });
});

it("undo of what is on its way is said as well, and not swallowed", async () => {
  const sent: Sent[] = [];
  let answer = () => {};
  serve({
    ...LOOK,
    [SAY]: async (body) => {
      sent.push(body as Sent);
      if (sent.length === 1)
        await new Promise<void>((done) => {
          answer = done;
        });
      return nowAfter(sent.length === 1 ? 1 : 0);
    },
  });
  const { result } = await at();
  await act(() => result.current.say(done));
  await waitFor(() => expect(sent).toHaveLength(1));
  await act(() => result.current.undo());
  answer();
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]?.events[0]).toMatchObject({ kind: "undo", target: sent[0]?.events[0]?.id });
});

it("undo of what the server has is an entry itself", async () => {
  const sent: Sent[] = [];
  serve({
    ...LOOK,
    [`GET /api/runs/${ID}`]: () => nowAfter(1),
    [SAY]: (body) => {
      sent.push(body as Sent);
      return nowAfter(0);
    },
  });
  const { result } = await at();
  await act(() => result.current.undo());
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]?.events[0]).toMatchObject({ kind: "undo", target: RUN.events[0]?.id });
});

it("what an earlier version kept of a run is sent as well", async () => {
  leave();
  localStorage.setItem(KEY, JSON.stringify([{ id: "event-0000", at: RUN.started_at, ...done }]));
  const say = vi.fn(() => nowAfter(1));
  serve({ ...LOOK, [SAY]: say });
  leave = lookAfter();
  await waitFor(() => expect(say).toHaveBeenCalledOnce());
  await waitFor(async () => expect(await inTheBox()).toEqual([]));
  expect(localStorage.getItem(KEY)).toBeNull();
});

it("a run that was started without a connection starts later, as of then, before what was said to it", async () => {
  serve({});
  const start = { id: ID, plan_id: 1, started_at: RUN.started_at };
  await act(() => put(ID, { what: "start", body: start }, ID));
  const event = { id: "event-0001", at: RUN.started_at, ...done };
  await act(() => put(ID, { what: "event", body: event as never }, event.id));
  const asked = serve({
    ...LOOK,
    "POST /api/runs": () => nowAfter(0),
    [SAY]: () => nowAfter(1),
  });
  leave();
  window.dispatchEvent(new Event("online"));
  leave = lookAfter();
  window.dispatchEvent(new Event("online"));
  await waitFor(async () => expect(await inTheBox()).toEqual([]));
  const said = asked.filter((a) => a.what.startsWith("POST"));
  expect(said.map((a) => a.what)).toEqual(["POST /api/runs", SAY]);
  expect(said[0]?.body).toEqual(start);
}, 10_000);
