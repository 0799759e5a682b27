// @vitest-environment happy-dom
/** What was read last is there again after a cold start, is asked for anew, and is nobody else's. */
import "fake-indexeddb/auto";
import { QueryClient } from "@tanstack/react-query";
import { beforeEach, expect, it } from "vitest";
import { kept } from "@/offline/db";
import { keepWhatIsRead } from "@/offline/keep";

const written = async () => (await kept()).get("read", "queries");
beforeEach(async () => (await kept()).clear("read"));

async function after(set: (queries: QueryClient) => unknown) {
  const first = new QueryClient();
  await keepWhatIsRead(first);
  await set(first);
  await new Promise((done) => setTimeout(done, 2_300)); // it is written every two seconds
  expect(await written()).toBeTruthy();
  const second = new QueryClient();
  await keepWhatIsRead(second);
  return second;
}

it("keeps the runs, the day and who is here, and marks them to be asked for again", async () => {
  const queries = await after((q) => {
    q.setQueryData(["session"], { me: { username: "tansy" } });
    q.setQueryData(["run", "a", "snapshot"], { id: "a" });
    q.setQueryData(["work", { name: "x" }], { much: "too large" });
  });
  expect(queries.getQueryData(["session"])).toEqual({ me: { username: "tansy" } });
  expect(queries.getQueryData(["run", "a", "snapshot"])).toEqual({ id: "a" });
  expect(queries.getQueryState(["session"])?.isInvalidated).toBe(true);
  expect(queries.getQueryData(["work", { name: "x" }])).toBeUndefined();
});

it("keeps what was read when it cannot be asked for again", async () => {
  const queries = await after(async (q) => {
    q.setQueryData(["run", "a"], { said: 4 });
    await q
      .fetchQuery({
        queryKey: ["run", "a"],
        queryFn: () => Promise.reject(new Error("gone")),
        retry: false,
        staleTime: 0,
      })
      .catch(() => undefined);
    expect(q.getQueryState(["run", "a"])?.status).toBe("error");
  });
  expect(queries.getQueryData(["run", "a"])).toEqual({ said: 4 });
  expect(queries.getQueryState(["run", "a"])?.status).toBe("success");
});

it("does not keep that nobody is here", async () => {
  const queries = await after((q) => {
    q.setQueryData(["session"], { me: null });
    q.setQueryData(["runs", "under way"], { runs: [] });
  });
  expect(queries.getQueryData(["session"])).toBeUndefined();
  expect(queries.getQueryData(["runs", "under way"])).toEqual({ runs: [] });
});

it("gives what is days old, or of another front end, to nobody", async () => {
  const old = await after((q) => q.setQueryData(["today"], { name: "Regatta" }));
  expect(old.getQueryData(["today"])).toEqual({ name: "Regatta" });
  const later = new QueryClient();
  await keepWhatIsRead(later, Date.now() + 5 * 24 * 3_600_000);
  expect(later.getQueryData(["today"])).toBeUndefined();
  await (await kept()).put("read", { ...((await written()) as object), reads: "other" }, "queries");
  const other = new QueryClient();
  await keepWhatIsRead(other);
  expect(other.getQueryData(["today"])).toBeUndefined();
});
