/** What is called out of what goes on by itself: as the core says it, from what waits here as well. */
import type { Now, RunView } from "./now";

export interface Called {
  tray: number | null;
  stop: string;
  at: Date;
  says: string;
  /** Its span is over; else something is to be done meanwhile. */
  ends: boolean;
}

const MINUTE = 60_000;

/** Every alarm of what is going on, past and to come. */
export function calledOf(run: RunView, now: Now): Called[] {
  if (now.phase === "finished" || now.phase === "given_up") return [];
  const after = (
    tray: number | null,
    key: string | undefined,
    kind: string | undefined,
    since: Date | null,
    until: Date | null,
  ) =>
    (run.worked.strip.find((s) => s.key === key)?.alarms ?? []).flatMap((alarm): Called[] => {
      const ends = typeof alarm.minutes !== "number";
      const minutes = alarm.minutes ?? 0;
      // what is below nothing is counted back from the end
      const from = ends || minutes < 0 ? until : since;
      const at = from && new Date(from.getTime() + minutes * MINUTE);
      return alarm.after === kind && at && key
        ? [{ tray, stop: key, at, says: alarm.says, ends }]
        : [];
    });
  const all = now.trays.some((t) => t.last)
    ? now.trays
        .filter((t) => !t.lost && t.next)
        .flatMap((t) => after(t.tray, t.last?.stop, t.last?.kind, t.since, t.until))
    : now.phase === "rest"
      ? after(null, now.stop?.key, "done", now.since, now.until)
      : [];
  return all.toSorted((a, b) => (a.tray ?? 0) - (b.tray ?? 0) || a.at.getTime() - b.at.getTime());
}

/** What is due of each tray at this moment, the last of it, said once for all whose it is. */
export function dueNow(called: Called[], clock: Date) {
  const last = new Map<number | null, Called>();
  for (const one of called.toSorted((a, b) => a.at.getTime() - b.at.getTime()))
    if (one.at <= clock) last.set(one.tray, one);
  const groups = new Map<string, { trays: number[]; says: string; ends: boolean }>();
  for (const { tray, stop, says, ends } of last.values()) {
    const key = `${stop} ${says}`;
    const group = groups.get(key) ?? { trays: [], says, ends };
    if (tray !== null) group.trays.push(tray);
    groups.set(key, group);
  }
  return groups;
}
