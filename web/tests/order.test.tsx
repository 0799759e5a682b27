// @vitest-environment happy-dom
/** A slider that is dragged: whatever order the answers come in, none is shown over a later one. */
import { act, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { useWorked } from "@/api/queries";
import { useWarmth } from "@/cold/useWarmth";
import { Around, plan, serve, show, warmth, worked } from "./screen";

type Ask = { today?: { room_c: number }; name?: string };

/** Answers that come when they are told to, by what was asked. */
function held(path: string, keyOf: (ask: Ask) => string, answer: (ask: Ask) => unknown) {
  const waiting = new Map<string, () => void>();
  serve({
    [path]: (body) =>
      new Promise((done) => waiting.set(keyOf(body as Ask), () => done(answer(body as Ask)))),
  });
  return async (key: string) => {
    await waitFor(() => expect(waiting.has(key)).toBe(true));
    await act(async () => waiting.get(key)?.());
    waiting.delete(key);
  };
}

test("the warmth on the screen is that of where the slider stands", async () => {
  const come = held(
    "POST /api/warmth",
    (ask) => String(ask.today?.room_c),
    (ask) => ({ ...warmth, summary: `At ${ask.today?.room_c}` }),
  );
  const Shown = ({ room_c }: { room_c: number }) => (
    <p>{useWarmth(plan, { room_c }).data?.summary ?? "nothing yet"}</p>
  );
  const { rerender } = show(<Shown room_c={24} />);
  rerender(
    <Around>
      <Shown room_c={26} />
    </Around>,
  );
  rerender(
    <Around>
      <Shown room_c={28} />
    </Around>,
  );
  await come("28");
  await waitFor(() => expect(screen.getByText("At 28")).toBeTruthy());
  await come("24");
  await come("26");
  expect(screen.getByText("At 28")).toBeTruthy();
});

test("what the slider comes to next is asked for ahead, and shown without being asked for again", async () => {
  const asked = serve({
    "POST /api/warmth": (ask) => ({ ...warmth, summary: `At ${(ask as Ask).today?.room_c}` }),
  });
  // what another test left to ask for is none of this one's
  const rooms = () =>
    asked.flatMap((a) => (a.what.endsWith("/warmth") ? [(a.body as Ask).today?.room_c] : []));
  const Shown = ({ room_c }: { room_c: number }) => (
    <p>{useWarmth(plan, { room_c }).data?.summary ?? "nothing yet"}</p>
  );
  const { rerender } = show(<Shown room_c={24} />);
  const move = (room_c: number) =>
    rerender(
      <Around>
        <Shown room_c={room_c} />
      </Around>,
    );
  await screen.findByText("At 24");
  expect(rooms()).toEqual([24]);
  move(24.5);
  await screen.findByText("At 24.5");
  await waitFor(() => expect(rooms()).toEqual([24, 24.5, 25]));
  move(25);
  expect(screen.getByText("At 25")).toBeTruthy();
  await waitFor(() => expect(rooms()).toEqual([24, 24.5, 25, 25.5]));
  // a leap says nothing of where it goes on to
  move(31);
  await screen.findByText("At 31");
  expect(rooms()).toEqual([24, 24.5, 25, 25.5, 31]);
});

test("an answer that was overtaken is taken back, and the sheets are those of the last key", async () => {
  const come = held(
    "POST /api/work",
    (ask) => ask.name ?? "",
    (ask) => ({ ...worked, name: ask.name }),
  );
  const Shown = ({ name }: { name: string }) => (
    <p>{useWorked({ ...plan, name }).data?.name ?? "nothing yet"}</p>
  );
  const { rerender } = show(<Shown name="a" />);
  rerender(
    <Around>
      <Shown name="ab" />
    </Around>,
  );
  await come("ab");
  await waitFor(() => expect(screen.getByText("ab")).toBeTruthy());
  await come("a");
  expect(screen.getByText("ab")).toBeTruthy();
  // back at the first: it is asked for again, or was kept, and is shown
  rerender(
    <Around>
      <Shown name="a" />
    </Around>,
  );
  await come("a");
  await waitFor(() => expect(screen.getByText("a")).toBeTruthy());
});
