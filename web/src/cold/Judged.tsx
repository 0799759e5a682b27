/** Dough and butter judged at the lock-in, by how firm each is. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, type Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import classes from "./Judged.module.css";

const BENDS: { value: Schemas["Bend"]; label: string }[] = [
  { value: "cracks", label: "Cracks" },
  { value: "bends", label: "Bends" },
  { value: "smears", label: "Smears" },
];
const CALLS: Record<Schemas["Call"], string> = { go: "Go", wait: "Wait", chill: "Chill" };

interface Props {
  plan: Schemas["Plan"];
  dough_c: number;
  butter_c: number;
}

export function Judged({ plan, dough_c, butter_c }: Props) {
  const { words, say } = useSaying();
  const [bend, setBend] = useState<Schemas["Bend"] | null>(null);
  const judged = useQuery({
    queryKey: ["judge", plan, dough_c, butter_c, bend],
    queryFn: () =>
      got(api.POST("/api/judge", { body: { plan, feel: { dough_c, butter_c, bend } } })),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  }).data;
  return (
    <>
      <p>
        Dough <b>{say("temperature", dough_c)}</b>, butter <b>{say("temperature", butter_c)}</b>.
        Bend a corner of the block. It:
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
      {judged && (
        <p className={classes.call} data-call={judged.call} role="status">
          <b>{CALLS[judged.call]}</b>
          <span>
            {words(judged.says)}
            {judged.footnote && <small>{words(judged.footnote)}</small>}
          </span>
        </p>
      )}
    </>
  );
}
