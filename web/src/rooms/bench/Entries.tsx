import { clock } from "@/app/time";
import { useSaying } from "@/measures/likes";
import classes from "./Entries.module.css";
import type { Event, RunView } from "./now";

const MOST = 4;

interface Entry {
  id: string;
  at: string;
  text: string;
  waits: boolean;
}

/** The latest temperatures and notes of a run, so that one sees that they were taken. */
export function Entries({ view, waiting }: { view: RunView; waiting: Event[] }) {
  const { say } = useSaying();
  const temperature = (probe: string, value_c: number) => `${probe} ${say("temperature", value_c)}`;
  const here: Entry[] = [
    ...view.standing.readings.map((r) => ({
      id: r.event_id,
      at: r.at,
      text: temperature(r.probe, r.value_c),
      waits: false,
    })),
    ...view.standing.remarks.map((r) => ({
      id: r.event_id,
      at: r.at,
      text: `“${r.words}”`,
      waits: false,
    })),
    ...view.standing.away.map((a) => ({
      id: a.event_id,
      at: a.at,
      text: a.says,
      waits: false,
    })),
    ...waiting.flatMap((e) => {
      if (e.kind === "away") return [{ id: e.id, at: e.at, text: "Interrupted", waits: true }];
      if (e.kind === "note") return [{ id: e.id, at: e.at, text: `“${e.words}”`, waits: true }];
      if (e.kind !== "reading" || !e.probe || typeof e.value_c !== "number") return [];
      return [{ id: e.id, at: e.at, text: temperature(e.probe, e.value_c), waits: true }];
    }),
  ].sort((a, b) => Date.parse(b.at) - Date.parse(a.at));
  if (here.length === 0) return null;
  return (
    <ul className={classes.entries} aria-label="Entered lately">
      {here.slice(0, MOST).map((entry) => (
        <li key={entry.id}>
          {clock(entry.at)} <b>{entry.text}</b>
          {entry.waits && " (not sent yet)"}
        </li>
      ))}
    </ul>
  );
}
