/** Where a run stands without a connection is where the core says it stands: read from what it wrote. */
import { describe, expect, it } from "vitest";
import { calledOf } from "@/rooms/bench/called";
import { type Event, type RunView, whereNow } from "@/rooms/bench/now";
import runs from "./written/runs.json";

type Standing = RunView["standing"];
const minute = (time: string | null | undefined) => (time ? Date.parse(time) / 60_000 : null);
const at = (date: Date | null) => (date ? date.getTime() / 60_000 : null);

for (const run of runs) {
  const told = run.events as unknown as Event[];
  const standings = run.standings as unknown as Standing[];
  const knownUpTo = (n: number) => ({ ...run, standing: standings[n] }) as unknown as RunView;
  describe(run.name, () => {
    for (let known = 0; known <= told.length; known++) {
      it(`after ${known} of ${told.length} entries that the server knows`, () => {
        for (let said = known; said <= told.length; said++) {
          const truth = standings[said] as Standing;
          const now = whereNow(knownUpTo(known), told.slice(known, said));
          const where = `${known} known, ${said} said`;
          const over = truth.phase === "finished" || truth.phase === "given_up";
          if (over) expect(now.phase, where).toBe(truth.phase);
          if (truth.phase === "given_up") continue;
          expect(now.stop?.key ?? null, where).toBe(truth.stop);
          expect(now.turnsDone, where).toBe(truth.turns_done);
          expect(at(now.since), where).toBe(minute(truth.since));
          if (now.trays.length === 0) {
            expect(now.phase, where).toBe(truth.phase);
            expect(at(now.until), where).toBe(minute(truth.until));
          }
          // what is called out is what the core calls out, whoever knows of it
          const heard = calledOf(run as unknown as RunView, now);
          const rings = heard.map(({ tray, stop, at, says }) => [tray, stop, +at / 60_000, says]);
          const told_ = (run.called[said] ?? []).map((c) => [c.tray, c.stop, minute(c.at), c.says]);
          expect(rings, where).toEqual(told_);
          for (const tray of now.trays) {
            const true_ = truth.trays.find((t) => t.tray === tray.tray);
            const which = `${where}, tray ${tray.tray}`;
            expect(tray.lost, which).toBe(Boolean(true_?.lost));
            expect(tray.next, which).toEqual(true_?.next);
            expect(at(tray.since), which).toBe(minute(true_?.since));
            if (tray.next) expect(at(tray.until), which).toBe(minute(true_?.until));
          }
        }
      });
    }
  });
}
