import { expect, it } from "vitest";
import { type Event, type RunView, spokeLately, undoTarget, whereNow } from "@/rooms/bench/now";

const stop = (key: string, name: string, minutes?: number) => ({
  do: key.startsWith("turn") ? "turn" : key,
  turn: key.startsWith("turn"),
  key,
  name,
  rest: minutes ? { place: "fridge", minutes } : null,
});

/** A run of lock-in, one turn with a rest, and the last sheet; `deeds` are known to the server. */
const run = (...deeds: string[]): RunView =>
  ({
    worked: {
      strip: [
        stop("lock_in", "Lock-in"),
        stop("turn-1", "Turn 1", 30),
        stop("final", "Last sheet"),
      ],
    },
    order: [
      { kind: "done", stop: "lock_in" },
      { kind: "done", stop: "turn-1" },
      { kind: "out", stop: "turn-1" },
      { kind: "done", stop: "final" },
    ],
    started_at: "2026-03-07T04:00:00Z",
    tray_steps: [],
    standing: {
      started_at: "2026-03-07T04:00:00Z",
      put_right: [],
      trays: [],
      phase: "work",
      undoable: deeds.at(-1) ?? null,
      since: "2026-03-07T05:00:00Z",
      turns_done: 0,
      rests: [],
      deeds: deeds.map((stop) => ({
        event_id: stop,
        kind: "done",
        stop,
        at: "2026-03-07T05:00:00Z",
      })),
    },
  }) as unknown as RunView;

const event = (kind: string, key: string, at: string) => ({ id: at, kind, stop: key, at }) as Event;

it("stands where the server says", () => {
  expect(whereNow(run(), []).stop?.key).toBe("lock_in");
  expect(whereNow(run("lock_in"), []).stop?.key).toBe("turn-1");
});

it("goes on without a connection, by what waits here", () => {
  const now = whereNow(run("lock_in"), [event("done", "turn-1", "2026-03-07T06:00:00Z")]);
  expect(now.phase).toBe("rest");
  expect(now.until?.toISOString()).toBe("2026-03-07T06:30:00.000Z");
  expect(now.next?.key).toBe("final");
  expect(now.turnsDone).toBe(1);
  expect(now.lastDeed?.name).toBe("Turn 1");
});

it("ends after the last deed, or when it is given up", () => {
  const deeds = [
    event("done", "turn-1", "2026-03-07T06:00:00Z"),
    event("out", "turn-1", "2026-03-07T06:30:00Z"),
    event("done", "final", "2026-03-07T06:40:00Z"),
  ];
  expect(whereNow(run("lock_in"), deeds).phase).toBe("finished");
  expect(whereNow(run("lock_in"), [event("give_up", "", "2026-03-07T06:00:00Z")]).phase).toBe(
    "given_up",
  );
});

const undoing = (target: string) => ({ id: `undo ${target}`, kind: "undo", target }) as Event;

it("takes back what the server knows before the undo has reached it", () => {
  const now = whereNow(run("lock_in", "turn-1"), [undoing("turn-1")]);
  expect(now.phase).toBe("work");
  expect(now.stop?.key).toBe("turn-1");
  expect(now.turnsDone).toBe(0);
  expect(now.lastDeed?.name).toBe("Lock-in");
});

it("goes back to the start of the run when the first deed is taken back", () => {
  const now = whereNow(run("lock_in"), [undoing("lock_in")]);
  expect(now.lastDeed).toBeNull();
  expect(now.since.toISOString()).toBe("2026-03-07T04:00:00.000Z");
});

it("counts an entry once that a poll has brought back before its answer came", () => {
  const entry = { ...event("done", "turn-1", "2026-03-07T05:00:00Z"), id: "turn-1" };
  expect(whereNow(run("lock_in", "turn-1"), [entry]).phase).toBe("rest");
});

it("shows a time put right before the server has it", () => {
  const move = { id: "m", kind: "move", target: "lock_in", minutes: -5 } as Event;
  expect(whereNow(run("lock_in"), [move]).since.toISOString()).toBe("2026-03-07T04:55:00.000Z");
});

it("knows what an undo would take back, and that an undo is not undone", () => {
  const entry = event("done", "turn-1", "2026-03-07T06:00:00Z");
  expect(undoTarget(run(), [])).toBeNull();
  expect(undoTarget(run("lock_in"), [])).toBe("lock_in");
  expect(undoTarget(run("lock_in"), [entry])).toBe(entry.id);
  expect(undoTarget(run("lock_in"), [undoing("lock_in")])).toBeNull();
  expect(undoTarget(run("lock_in"), [entry, undoing(entry.id)])).toBe("lock_in");
});

it("offers a probe's reading only while it is fresh", () => {
  const probe = (id: number, last_at: string | null, last_c: number | null) => ({
    id,
    name: `Probe ${id}`,
    samples: 1,
    last_at,
    last_c,
  });
  const now = new Date("2026-11-28T05:00:00Z");
  const known = [
    probe(1, "2026-11-28T04:50:00Z", 6.2),
    probe(2, "2026-11-28T04:30:00Z", 5),
    probe(3, null, null),
    probe(4, "2026-11-28T04:59:00Z", 0),
  ];
  expect(spokeLately(known, now).map((p) => p.id)).toEqual([1, 4]);
});
