/** Words of the trade that a step speaks in: each opens what it means, drawn, and its other names. */
import { Popover, UnstyledButton } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Suspense, useState } from "react";
import { api, got } from "@/api/client";
import type { Step } from "@/api/steps";
import { useSaying } from "@/measures/likes";
import { capital, otherFoldName } from "@/measures/words";
import { lazily } from "@/wire/lazily";
import { kindOf } from "./kinds";
import classes from "./Terms.module.css";

const TermDrawn = lazily(async () => (await import("./TermDrawn")).TermDrawn);

/** The words of a step, its own kind first; nothing while they are not known. */
export function Terms({ of }: { of: Step }) {
  const { likes, foldTitle } = useSaying();
  const terms =
    useQuery({
      queryKey: ["glossary"],
      queryFn: () => got(api.GET("/api/glossary")),
      staleTime: Number.POSITIVE_INFINITY,
    }).data ?? [];
  const keys = [`step.${of.do}`, ...(kindOf(of.do).terms?.(of) ?? [])];
  return (
    <p className={classes.terms}>
      {keys.flatMap((key) => {
        const term = terms.find((t) => t.key === key);
        if (!term) return [];
        const fold = key.startsWith("fold.") ? key.slice(5) : null;
        const name = fold ? foldTitle(fold) : capital(term.name);
        const other = fold ? otherFoldName(fold, likes.folds) : "";
        const also = [other, ...term.also].filter((w) => w && capital(w) !== name);
        return [
          <Term key={key} {...{ name, also }} says={term.says} drawn={{ of: key, step: of }} />,
        ];
      })}
    </p>
  );
}

interface TermProps {
  name: string;
  says: string;
  also: string[];
  drawn: { of: string; step: Step };
}

function Term({ name, says, also, drawn }: TermProps) {
  const [opened, setOpened] = useState(false);
  return (
    <Popover width={290} position="left-start" opened={opened} onChange={setOpened}>
      <Popover.Target>
        <UnstyledButton
          className={classes.term}
          aria-label={`${name}: what it means`}
          onClick={() => setOpened(!opened)}
        >
          {name}
        </UnstyledButton>
      </Popover.Target>
      <Popover.Dropdown>
        {opened && (
          <div className={classes.meaning}>
            <svg viewBox="-8 0 88 44" width={176} height={88} aria-hidden="true">
              <Suspense>
                <TermDrawn {...drawn} />
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
