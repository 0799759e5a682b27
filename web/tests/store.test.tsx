// @vitest-environment happy-dom
/** Blocks of the cold store on a tablet: what waits, what their codes say, how they are drawn. */
import { render } from "@testing-library/react";
import { expect, it } from "vitest";
import { leaves, waitingOf } from "@/blocks/blocks";
import { readiness } from "@/blocks/MovesDue";
import { Package } from "@/blocks/Package";
import type { Entry } from "@/offline/db";
import { whenOf, withTime } from "@/offline/post";
import { together } from "@/offline/send";
import { blockOf } from "@/rooms/store/camera";

const ID = "0d5f3b9a-7f0e-4c0a-9c52-3c0c2f7a1e11";
const change = (n: number, kind: string, more: object = {}): Entry =>
  ({
    n,
    id: `change-${n}`,
    run: ID,
    by: null,
    tries: 0,
    next: 0,
    what: "change",
    body: { id: `change-${n}`, at: `2026-12-01T05:0${n}:00Z`, kind, ...more },
  }) as Entry;

it("opens a block by the code of its tag, whatever the house is called there", () => {
  expect(blockOf(`https://bakehouse.lan:8000/store/${ID}`)).toBe(ID);
  expect(blockOf(`http://192.168.7.2/store/${ID} `)).toBe(ID);
  expect(blockOf("https://bakehouse.lan/plans/7")).toBeNull();
  expect(blockOf(`https://elsewhere.example/store/${ID}/more`)).toBeNull();
  expect(blockOf("4006381333931")).toBeNull();
});

it("changes of a block go together and keep their own times", () => {
  const taken = change(1, "taken");
  const put = { ...change(2, "put"), what: "block" } as Entry;
  expect(together([taken, change(3, "undo"), put]).map((e) => e.id)).toEqual([
    "change-1",
    "change-3",
  ]);
  expect(together([put, taken])).toEqual([put]);
  expect(whenOf(taken)).toBe("2026-12-01T05:01:00Z");
  expect(whenOf(withTime(put, "2026-12-01T06:00:00Z"))).toBe("2026-12-01T06:00:00Z");
});

it("what was taken here is off its shelf before the bakehouse knows, what was refused is not", () => {
  const some = change(1, "thrown", { grams: 100, why: "sour" });
  expect(leaves(waitingOf([some], ID))).toBe(false);
  expect(leaves(waitingOf([some, change(2, "taken")], ID))).toBe(true);
  expect(leaves(waitingOf([change(2, "thrown", { why: "sour" })], ID))).toBe(true);
  const refused = { ...change(3, "taken"), aside: [{ field: "kind", message: "Gone." }] };
  expect(waitingOf([refused as Entry], ID)).toEqual([]);
  expect(waitingOf([change(4, "taken")], "another")).toEqual([]);
});

it("a block is drawn as wide as it is heavy, with a mark for each turn", () => {
  const drawn = (grams: number, turns: number) => {
    const { container } = render(<Package holds="dough" grams={grams} turns={turns} />);
    const svg = container.querySelector("svg");
    return [Number(svg?.getAttribute("width")), container.querySelectorAll("circle").length];
  };
  const [light, heavy] = [drawn(1500, 2), drawn(3000, 4)];
  expect((heavy[0] ?? 0) - 4).toBeCloseTo(2 * ((light[0] ?? 0) - 4));
  expect([light[1], heavy[1]]).toEqual([2, 4]);
});

it("says from when until when a block is ready", () => {
  const from = "2026-12-05T04:19:00Z";
  expect(readiness({ ready_from: from, ready_until: "2026-12-05T06:21:00Z" })).toMatch(
    /^ready from Sat,? 5 Dec, 04:19 to 06:21$/,
  );
  expect(readiness({ ready_from: from, ready_until: null })).not.toContain(" to ");
});
