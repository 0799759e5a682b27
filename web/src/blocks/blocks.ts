/** Blocks of the cold store: read, and changed through the outbox. */
import { queryOptions } from "@tanstack/react-query";
import { api, got, type Schemas } from "@/api/client";
import type { Entry } from "@/offline/db";
import { put } from "@/offline/outbox";
import { houseTime } from "@/wire/clock";
import { newId } from "@/wire/id";

export type BlockView = Schemas["BlockView"];
export type Change = Schemas["BlockChange"];

/** What lies in the store, and what is to be moved. */
export const storeQuery = queryOptions({
  queryKey: ["store", "all"],
  queryFn: () => got(api.GET("/api/blocks")),
  refetchInterval: 20_000,
});

/** One block, whether it is still there or not. */
export const blockQuery = (id: string) =>
  queryOptions({
    queryKey: ["store", "block", id],
    queryFn: () => got(api.GET("/api/blocks/{block_id}", { params: { path: { block_id: id } } })),
  });

/** The house's label printer. */
export const printerQuery = queryOptions({
  queryKey: ["printer"],
  queryFn: () => got(api.GET("/api/labels/printer")),
  staleTime: 30_000,
});

/** What of a dough under way can be put away. */
export const offersQuery = (run: string) =>
  queryOptions({
    queryKey: ["offers", run],
    queryFn: () => got(api.GET("/api/runs/{run_id}/offers", { params: { path: { run_id: run } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });

type Said = Schemas["PuttingAway"];
/** What is said of a thing that is put away: of a dough under way only where it lies, and which part it is. */
type Saying = Pick<Said, "place" | "shelf" | "which" | "lots"> & Partial<Said>;
const OF_A_DOUGH = {
  holds: "dough",
  name: "",
  family: "croissant",
  turns: 0,
  next_step: "",
} satisfies Partial<Said>;

/** Put something away; gives its id. */
export async function putAway(said: Saying): Promise<string> {
  const id = newId();
  const at = new Date(houseTime()).toISOString();
  const body = { ...OF_A_DOUGH, ...said, id, at };
  await put(id, { what: "block", body }, id);
  return id;
}

/** Say something of a block. */
export async function sayOf(block: string, said: Omit<Change, "id" | "at">): Promise<void> {
  const id = newId();
  const body = { ...said, id, at: new Date(houseTime()).toISOString() };
  await put(block, { what: "change", body }, id);
}

const LEAVES = new Set<Change["kind"]>(["taken"]);

/** What waits on this tablet of a block: said, and not sent yet. */
export const waitingOf = (outbox: Entry[], block: string): Change[] =>
  outbox.flatMap((e) => (e.what === "change" && e.run === block && !e.aside ? [e.body] : []));

/** Whether, by what waits here, it is not there any more. */
export const leaves = (waiting: Change[]): boolean =>
  waiting.some((c) => LEAVES.has(c.kind) || (c.kind === "thrown" && !c.grams));
