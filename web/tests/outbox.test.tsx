// @vitest-environment happy-dom
/** What is said at the bench leaves this tablet only when the server has it. */

import { QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { beforeEach, expect, it, vi } from "vitest";
import { queries } from "@/api/queries";
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
const kept = () => JSON.parse(localStorage.getItem(KEY) ?? "[]");
const done = { kind: "done", stop: "dough" } as const;

beforeEach(() => queries.clear());

it("an entry is kept in the browser first, and let go when the server has it", async () => {
  const sent: Sent[] = [];
  serve({
    ...LOOK,
    [SAY]: (body) => {
      sent.push(body as Sent);
      expect(kept()).toHaveLength(1);
      return nowAfter(1);
    },
  });
  const { result } = await at();
  act(() => result.current.say(done));
  await waitFor(() => expect(result.current.waiting).toHaveLength(0));
  expect(sent[0]?.events[0]).toMatchObject(done);
  expect(kept()).toEqual([]);
});

it("without a connection it waits here, and goes out by itself", async () => {
  serve(LOOK);
  const { result } = await at();
  act(() => result.current.say(done));
  await waitFor(() => expect(result.current.offline).toBe(true));
  expect(kept()).toHaveLength(1);
  serve({ ...LOOK, [SAY]: () => nowAfter(1) });
  await waitFor(() => expect(result.current.waiting).toHaveLength(0), { timeout: 5000 });
  expect(result.current.offline).toBe(false);
}, 10_000);

it("one that is refused is said, and the others still go", async () => {
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
  await waitFor(() => expect(result.current.waiting).toHaveLength(0));
  expect(result.current.refusal).toMatch(/^Next is Dough, not 8.mm\.$/);
});

it("undo of what was not sent yet simply does not send it", async () => {
  serve(LOOK);
  const { result } = await at();
  act(() => result.current.say(done));
  await waitFor(() => expect(result.current.offline).toBe(true));
  act(() => result.current.undo());
  expect(result.current.waiting).toHaveLength(0);
  expect(kept()).toEqual([]);
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
  act(() => result.current.undo());
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]?.events[0]).toMatchObject({ kind: "undo", target: RUN.events[0]?.id });
});

it("what lay here before a reload is sent after it", async () => {
  localStorage.setItem(KEY, JSON.stringify([{ id: "event-0000", at: RUN.started_at, ...done }]));
  const say = vi.fn(() => nowAfter(1));
  serve({ ...LOOK, [SAY]: say });
  const { result } = await at();
  await waitFor(() => expect(result.current.waiting).toHaveLength(0));
  expect(say).toHaveBeenCalledOnce();
});
