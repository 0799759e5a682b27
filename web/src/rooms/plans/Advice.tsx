import { Button } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import classes from "./Advice.module.css";

const WORDS: Record<Schemas["Note"]["tone"], string> = {
  mind: "Warning",
  tight: "Tight",
  know: "Note",
  good: "Good",
};
const MOST = 4;

/** Advice at a stop, in sentences: what needs a look first. */
export function Advice({
  worked,
  warmth,
  stop,
  stale,
  take,
}: {
  worked: Schemas["WorkedPlan"];
  warmth?: Schemas["WorkedWarmth"];
  stop: string;
  stale: boolean;
  /** Take an offered way out; absent for those who only read. */
  take?: (fix: Schemas["Fix"]) => void;
}) {
  const { words } = useSaying();
  const notes = [...(warmth?.notes ?? []), ...worked.notes];
  const here = [
    ...notes.filter((n) => n.stop === stop && n.tone === "mind"),
    ...notes.filter((n) => n.stop === stop && n.tone === "tight"),
    ...notes.filter((n) => n.stop === stop && (n.tone === "know" || n.tone === "good")),
  ].slice(0, MOST);
  const elsewhere = worked.notes.filter((n) => n.stop !== stop && n.tone === "mind");
  const caution = worked.strip.find((s) => s.key === stop)?.caution;
  const names = new Map(worked.strip.map((s) => [s.key, s.name]));
  return (
    <section className={classes.advice} aria-label="Advice">
      {stale && (
        <p className={classes.mind}>
          <b>
            <span className={classes.tone}>Warning</span> These are the sheets before the last
            change
          </b>
          Something needs correcting; see the note beside it.
        </p>
      )}
      {here.map((note) => (
        <p key={note.code + note.title} className={classes[note.tone]}>
          <b>
            <span className={classes.tone}>{WORDS[note.tone]}</span> {words(note.title)}
          </b>
          {words(note.text)}
          {take &&
            note.fixes.map((fix) => (
              <Button key={fix.label} variant="default" mt={8} mr={8} onClick={() => take(fix)}>
                {words(fix.label)}
              </Button>
            ))}
        </p>
      ))}
      {elsewhere.length > 0 && (
        <p className={classes.mind}>
          <b>
            <span className={classes.tone}>Warning</span> Elsewhere on the strip
          </b>
          {elsewhere.map((n) => `${names.get(n.stop)}: ${words(n.title).toLowerCase()}`).join("; ")}
          .
        </p>
      )}
      {caution && (
        <p className={classes.caution}>
          <b>Take care.</b> {caution}
        </p>
      )}
    </section>
  );
}
