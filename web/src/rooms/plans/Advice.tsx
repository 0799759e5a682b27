import { Button } from "@mantine/core";
import { useContext } from "react";
import type { Schemas } from "@/api/client";
import type { Plan } from "@/api/steps";
import { LEAVES, LightContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { Told } from "@/steps/Terms";
import classes from "./Advice.module.css";

const WORDS: Record<Schemas["Note"]["tone"], string> = {
  mind: "Warning",
  tight: "Tight",
  know: "Note",
  good: "Good",
};
const MOST = 4;

/** What a note speaks of: its field, and the leaves where it says their numbers. */
const spokenOf = ({ field, values }: Schemas["Note"]) => [
  ...(field ? [field] : []),
  ...(values.some((v) => v.leaves) ? [LEAVES] : []),
];
const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

/** Advice at a stop, in sentences: what needs a look first. */
export function Advice({
  plan,
  worked,
  warmth,
  stop,
  stale,
  select,
  take,
}: {
  plan: Plan;
  worked: Schemas["WorkedPlan"];
  warmth?: Schemas["WorkedWarmth"];
  stop: string;
  stale: boolean;
  /** Go to another stop. */
  select: (key: string) => void;
  /** Take an offered way out; absent for those who only read. */
  take?: (fix: Schemas["Fix"]) => void;
}) {
  const { words } = useSaying();
  const light = useContext(LightContext);
  const notes = [...(warmth?.notes ?? []), ...worked.notes];
  const here = [
    ...notes.filter((n) => n.stop === stop && n.tone === "mind"),
    ...notes.filter((n) => n.stop === stop && n.tone === "tight"),
    ...notes.filter((n) => n.stop === stop && (n.tone === "know" || n.tone === "good")),
  ].slice(0, MOST);
  const elsewhere = worked.notes.filter((n) => n.stop !== stop && n.tone === "mind");
  const caution = worked.strip.find((s) => s.key === stop)?.caution;
  const step = plan.steps.find((s) => s.id === stop);
  const names = new Map(worked.strip.map((s) => [s.key, s.name]));
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls in its place, by keys as well
    <section className={classes.advice} aria-label="Advice" tabIndex={0}>
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
        <p
          key={note.code + note.title}
          className={classes[note.tone]}
          // touched, it lights what it speaks of
          onPointerEnter={() => light(spokenOf(note))}
          onPointerLeave={() => light([])}
        >
          <b>
            <span className={classes.tone}>{WORDS[note.tone]}</span>{" "}
            <Told text={words(note.title)} step={step} />
          </b>
          <Told text={words(note.text)} step={step} />
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
          {elsewhere.map((n) => (
            <button
              type="button"
              key={n.stop + n.code + n.title}
              className={classes.there}
              onClick={() => select(n.stop)}
            >
              {names.get(n.stop)}: {lower(words(n.title))}
            </button>
          ))}
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
