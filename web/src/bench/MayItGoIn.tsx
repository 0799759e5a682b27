/** Dough and butter judged at the lock-in, by the same firmness and by the same temperature. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, type Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import classes from "./MayItGoIn.module.css";
import type { RunView } from "./now";

const BENDS: { value: Schemas["Bend"]; label: string }[] = [
  { value: "cracks", label: "Cracks" },
  { value: "bends", label: "Bends" },
  { value: "smears", label: "Smears" },
];
const CALLS: Record<Schemas["Call"], string> = { go: "Go", wait: "Wait", chill: "Chill" };

export function MayItGoIn({ view }: { view: RunView }) {
  const { words, say } = useSaying();
  const [bend, setBend] = useState<Schemas["Bend"] | null>(null);
  const latest = (probe: Schemas["Probe"]) =>
    view.standing.readings.filter((r) => r.probe === probe && r.stop === "lock_in").at(-1)?.value_c;
  const dough_c = latest("dough");
  const butter_c = latest("butter");
  const both = dough_c !== undefined && butter_c !== undefined;
  const judged = useQuery({
    queryKey: ["judge", view.id, dough_c, butter_c, bend],
    queryFn: () =>
      got(
        api.POST("/api/judge", {
          body: {
            plan: view.plan,
            feel: { dough_c: dough_c as number, butter_c: butter_c as number, bend },
          },
        }),
      ),
    enabled: both,
    staleTime: Number.POSITIVE_INFINITY,
  }).data;
  const missing = [dough_c === undefined && "the dough", butter_c === undefined && "the butter"];
  return (
    <section className={classes.may} aria-label="May it go in?">
      {!both && (
        <p>
          Take the temperature of {missing.filter(Boolean).join(" and ")}, and it says whether the
          butter may go in.
        </p>
      )}
      {both && (
        <>
          <p>
            Dough <b>{say("temperature", dough_c)}</b>, butter <b>{say("temperature", butter_c)}</b>
            . A corner of the block:
          </p>
          <div className={classes.bends}>
            {BENDS.map(({ value, label }) => (
              <button
                type="button"
                key={value}
                aria-pressed={bend === value}
                onClick={() => setBend(bend === value ? null : value)}
              >
                {label}
              </button>
            ))}
          </div>
          {judged &&
            [judged.firmness, judged.temperature].map((j) => (
              <p key={j.school} className={classes.call} data-call={j.call} role="status">
                <b>{CALLS[j.call]}</b>
                <span>
                  <small>{j.school}</small>
                  {words(j.says)}
                </span>
              </p>
            ))}
        </>
      )}
    </section>
  );
}
