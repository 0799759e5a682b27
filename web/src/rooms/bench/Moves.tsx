/** What of the plan should move, for the room, the readings or a late step; one press takes it. */
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import classes from "./Moves.module.css";
import type { Saying } from "./useRun";

interface Props {
  moved: Schemas["Moved"][];
  summary?: string;
  say: (saying: Saying) => void;
}

export function Moves({ moved, summary, say }: Props) {
  const { words } = useSaying();
  if (!moved.length && !summary) return null;
  return (
    <section className={classes.moves} aria-label="What moves">
      {summary && <p>{words(summary)}</p>}
      {moved.map((m) => (
        <button
          type="button"
          key={m.stop}
          onClick={() => say({ kind: "rest", stop: m.stop, minutes: m.advised_min })}
        >
          <span>{words(m.says)}</span>
          <b>Rest {span(m.advised_min)} instead</b>
        </button>
      ))}
    </section>
  );
}
