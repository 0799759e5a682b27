/** Words of the trade that a step speaks in: each opens what it means, drawn, and its other names. */
import { Popover, UnstyledButton } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Suspense, useMemo, useState } from "react";
import { api, got, type Schemas } from "@/api/client";
import type { Step } from "@/api/steps";
import { useSaying } from "@/measures/likes";
import { capital, otherFoldName } from "@/measures/words";
import { lazily } from "@/wire/lazily";
import { kindOf } from "./kinds";
import classes from "./Terms.module.css";

const TermDrawn = lazily(async () => (await import("./TermDrawn")).TermDrawn);

const NONE: Schemas["Term"][] = [];

/** Every word there is, as this person calls it, with what else it is called. */
function useGlossary() {
  const { likes, foldTitle } = useSaying();
  const terms =
    useQuery({
      queryKey: ["glossary"],
      queryFn: () => got(api.GET("/api/glossary")),
      staleTime: Number.POSITIVE_INFINITY,
    }).data ?? NONE;
  return useMemo(
    () =>
      terms.map((term) => {
        const fold = term.key.startsWith("fold.") ? term.key.slice(5) : null;
        const name = fold ? foldTitle(fold) : capital(term.name);
        const other = fold ? otherFoldName(fold, likes.folds) : "";
        const also = [other, ...term.also].filter((w) => w && capital(w) !== name);
        return { of: term.key, name, also, says: term.says, forms: [name, ...term.forms] };
      }),
    [terms, likes.folds, foldTitle],
  );
}

/** The words of a step, its own kind first; nothing while they are not known. */
export function Terms({ of }: { of: Step }) {
  const glossary = useGlossary();
  const keys = [`step.${of.do}`, ...(kindOf(of.do).terms?.(of) ?? [])];
  return (
    <div className={classes.terms}>
      {keys.flatMap((key) => {
        const term = glossary.find((t) => t.of === key);
        return term ? [<Word key={key} {...term} shown={term.name} step={of} />] : [];
      })}
    </div>
  );
}

// Words that say an everyday thing too: in a sentence they are left alone.
const EVERYDAY = /^(step|method)\./;

/** A sentence in which the words of the trade open what they mean, each where it comes first. */
export function Told({ text, step }: { text: string; step: Step | undefined }) {
  const glossary = useGlossary();
  const parts = useMemo(() => {
    let left: (string | { term: (typeof glossary)[number]; shown: string })[] = [text];
    for (const term of glossary.filter((t) => !EVERYDAY.test(t.of))) {
      const at = left.findIndex((p) => typeof p === "string" && placed(p, term.forms));
      const here = left[at];
      if (typeof here !== "string") continue;
      const [from, shown] = placed(here, term.forms) ?? [0, ""];
      const cut = [here.slice(0, from), { term, shown }, here.slice(from + shown.length)];
      left = [...left.slice(0, at), ...cut, ...left.slice(at + 1)];
    }
    return left;
  }, [text, glossary]);
  if (!step) return text;
  return parts.map((part) =>
    typeof part === "string" ? (
      part
    ) : (
      <Word key={part.term.of} {...part.term} shown={part.shown} step={step} inText />
    ),
  );
}

/** Where one of a word's forms stands in a sentence as a word of its own, and how; null where none does. */
function placed(sentence: string, forms: string[]): [number, string] | null {
  const either = forms.map((form) => form.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")).join("|");
  const found = new RegExp(`(?<![\\p{L}-])(?:${either})(?![\\p{L}-])`, "iu").exec(sentence);
  return found && [found.index, found[0]];
}

interface WordProps {
  /** Its key, by which it is drawn. */
  of: string;
  name: string;
  says: string;
  also: string[];
  /** As it stands here. */
  shown: string;
  step: Step;
  inText?: boolean;
}

function Word({ of, name, says, also, shown, step, inText }: WordProps) {
  const [opened, setOpened] = useState(false);
  return (
    <Popover
      width={290}
      position={inText ? "top-start" : "left-start"}
      opened={opened}
      onChange={setOpened}
    >
      <Popover.Target>
        <UnstyledButton
          className={inText ? classes.inText : classes.term}
          aria-label={`${shown}: what it means`}
          onClick={() => setOpened(!opened)}
        >
          {shown}
        </UnstyledButton>
      </Popover.Target>
      <Popover.Dropdown>
        {opened && (
          <div className={classes.meaning}>
            <svg viewBox="-8 0 88 44" width={176} height={88} aria-hidden="true">
              <Suspense>
                <TermDrawn of={of} step={step} />
              </Suspense>
            </svg>
            <b>{name}</b>
            <p>{says}</p>
            {also.length > 0 && <p className="quiet">also {also.join(", ")}</p>}
          </div>
        )}
      </Popover.Dropdown>
    </Popover>
  );
}
