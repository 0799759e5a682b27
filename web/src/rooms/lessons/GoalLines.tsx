/** What is to be reached, and whether it was. */
import type { Schemas } from "@/api/client";
import { figure, span } from "@/measures/quantity";
import { Reached } from "./Reached";

type Name =
  | "lift"
  | "openness_pct"
  | "evenness_pct"
  | "fat_lost_pct"
  | "butter_layers"
  | "ready_min";

export const plain = (value: number) => figure("number", Math.round(value * 10) / 10, "metric");

/** A figure of an outcome as it is read. */
export const said: Record<Name, (value: number) => string> = {
  lift: (v) => `${plain(v)} times its height`,
  openness_pct: (v) => `${plain(v)} %`,
  evenness_pct: (v) => `${plain(v)} %`,
  fat_lost_pct: (v) => `${plain(v)} %`,
  butter_layers: (v) => `${plain(v)} butter layers`,
  ready_min: (v) => span(Math.round(v)),
};

export const NAMES: Record<Name, string> = {
  lift: "Lift",
  openness_pct: "Openness",
  evenness_pct: "Evenness",
  fat_lost_pct: "Butter lost",
  butter_layers: "Butter layers",
  ready_min: "Ready",
};
const WANTED: Record<Name, string> = {
  lift: "at least",
  openness_pct: "at least",
  evenness_pct: "at least",
  fat_lost_pct: "at most",
  butter_layers: "just",
  ready_min: "within",
};

export function GoalLines({ goal, came }: { goal: Schemas["Goal"]; came?: Schemas["GoalLine"][] }) {
  const lines = (Object.keys(NAMES) as Name[]).filter((name) => typeof goal[name] === "number");
  if (lines.length === 0) return <p>As good as you can.</p>;
  return (
    <Reached
      lines={lines.map((name) => {
        const line = came?.find((l) => l.of === name);
        return {
          of: name,
          reached: line?.reached,
          says: (
            <>
              {NAMES[name]} {WANTED[name]} <b>{said[name](goal[name] as number)}</b>
              {line && `: ${line.reached ? "reached" : "not reached"}, ${said[name](line.came)}`}
            </>
          ),
        };
      })}
    />
  );
}
