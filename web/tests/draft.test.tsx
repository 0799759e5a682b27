// @vitest-environment happy-dom
/** Edits save themselves, one after the other, and none is lost. */
import { act, renderHook, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { api, got, Offline, Problem, type Schemas } from "@/api/client";
import { useAmend } from "@/drafts/useAmend";
import { useDraft } from "@/drafts/useDraft";
import { Around, plan, refuse, serve } from "./screen";

interface Doc {
  name: string;
}
const SAVED = { revision: 3, updated_at: "2026-11-21T04:00:00Z", document: { name: "Puff" } };

function open(put: (revision: number, document: Doc) => Promise<number>, readOnly = false) {
  return renderHook(() => useDraft<Doc>({ key: "plan.7", saved: SAVED, readOnly, put }));
}
const kept = () => JSON.parse(localStorage.getItem("eight-turn.plan.7") ?? "null");

describe("a draft", () => {
  it("is saved a moment after the last key, over the revision it was made from", async () => {
    const put = vi.fn().mockResolvedValue(4);
    const { result } = open(put);
    act(() => result.current.change({ name: "Puf" }, "name"));
    act(() => result.current.change({ name: "Puff pastry" }, "name"));
    expect(kept().document).toEqual({ name: "Puff pastry" });
    await waitFor(() => expect(result.current.saving.state).toBe("saved"));
    expect(put).toHaveBeenCalledExactlyOnceWith(3, { name: "Puff pastry" });
    expect(kept()).toBeNull();
  });

  it("what is changed while a save is on its way goes out after it, over its revision", async () => {
    let answer = (_: number) => {};
    const put = vi
      .fn()
      .mockReturnValueOnce(new Promise((done) => (answer = done)))
      .mockResolvedValue(5);
    const { result } = open(put);
    act(() => result.current.change({ name: "One" }, "name"));
    await waitFor(() => expect(put).toHaveBeenCalledTimes(1));
    act(() => result.current.change({ name: "Two" }, "words"));
    await act(async () => answer(4));
    await waitFor(() => expect(put).toHaveBeenLastCalledWith(4, { name: "Two" }));
  });

  it("lies in the browser while there is no connection, and is there after a reload", async () => {
    const { result, unmount } = open(vi.fn().mockRejectedValue(new Offline()));
    act(() => result.current.change({ name: "Kept" }, "name"));
    await waitFor(() => expect(result.current.saving.state).toBe("waiting"));
    unmount();
    const again = open(vi.fn().mockResolvedValue(4));
    expect(again.result.current.document).toEqual({ name: "Kept" });
    expect(again.result.current.canUndo).toBe(true);
  });

  it("says that somebody else saved, and tries no more", async () => {
    const overtaken = new Problem(409, [{ field: "revision", message: "Tansy saved it." }]);
    const put = vi.fn().mockRejectedValue(overtaken);
    const { result } = open(put);
    act(() => result.current.change({ name: "Mine" }, "name"));
    await waitFor(() => expect(result.current.saving.state).toBe("overtaken"));
    expect(result.current.saving).toMatchObject({ why: "Tansy saved it." });
  });

  it("what was refused and then taken back is nothing to save", async () => {
    const refused = new Problem(422, [{ field: "name", message: "Too long." }]);
    const { result } = open(vi.fn().mockRejectedValue(refused));
    act(() => result.current.change({ name: "Refused" }, "name"));
    await waitFor(() => expect(result.current.saving.state).toBe("refused"));
    act(() => result.current.undo());
    await waitFor(() => expect(result.current.saving.state).toBe("saved"));
    expect(kept()).toBeNull();
  });

  it("is neither kept nor sent by who may only read", async () => {
    const put = vi.fn();
    const { unmount } = open(put, true);
    unmount();
    expect(put).not.toHaveBeenCalled();
  });
});

describe("changes that the core works out", () => {
  const grams = (of: typeof plan, mass_g: number) => ({ ...of, dough: { ...of.dough, mass_g } });
  type Asked = { plan: typeof plan; amendment: { value: number } };
  let now = plan;
  beforeEach(() => {
    now = plan;
  });
  const amending = () =>
    renderHook(
      () =>
        useAmend(
          now,
          (made) => {
            now = made;
          },
          (plan, amendment: Schemas["Amendment"]) =>
            got(api.POST("/api/amend", { body: { plan, amendment } })),
        ),
      { wrapper: Around },
    );

  it("are asked one after the other, each of what the one before made", async () => {
    const asked = serve({
      "POST /api/amend": async (body) => {
        const { plan: of, amendment } = body as Asked;
        await new Promise((done) => setTimeout(done, 20));
        return grams(of, of.dough.mass_g + amendment.value);
      },
    });
    const { result } = amending();
    const before = plan.dough.mass_g;
    act(() => {
      result.current.amend({ change: "flour", value: 1 }, "flour");
      result.current.amend({ change: "flour", value: 10 }, "flour");
    });
    await waitFor(() => expect(now.dough.mass_g).toBe(before + 11));
    expect(asked.map((a) => (a.body as Asked).plan.dough.mass_g)).toEqual([before, before + 1]);
  });

  it("are asked again where an edit was made while the answer was on its way", async () => {
    let answers = 0;
    let open = () => {};
    const door = new Promise<void>((done) => {
      open = done;
    });
    serve({
      "POST /api/amend": async (body) => {
        answers += 1;
        await door;
        return grams((body as Asked).plan, 5000);
      },
    });
    const { result, rerender } = amending();
    act(() => result.current.amend({ change: "flour", value: 1 }, "flour"));
    await waitFor(() => expect(answers).toBe(1));
    now = { ...plan, name: "Renamed meanwhile" };
    rerender();
    open();
    await waitFor(() => expect(now.dough.mass_g).toBe(5000));
    expect(now.name).toBe("Renamed meanwhile");
    expect(answers).toBe(2);
  });

  it("complain at the field they were asked from", async () => {
    serve({ "POST /api/amend": () => refuse(422, "value", "Must be less.") });
    const { result } = amending();
    act(() => result.current.amend({ change: "butter_share", value: 99 }, "butter.share"));
    await waitFor(() => expect(result.current.faults).toEqual({ "butter.share": "Must be less." }));
    expect(now).toBe(plan);
  });
});
