/** What a kitchen has of its own, one of which may be written: begun, changed, kept, removed. */
import { Button } from "@mantine/core";
import { type ReactNode, useState } from "react";
import classes from "./KitchenRoom.module.css";

/** What the form of the one that is written needs. */
export interface Writing<T> {
  at: number;
  what: T;
  /** It is as it was last kept. */
  kept: boolean;
  change: (what: T) => void;
  keep: () => void;
  close: () => void;
}

export function useOwn<T>(own: T[], keep: (all: T[]) => void) {
  const [draft, setDraft] = useState<{ at: number; what: T } | null>(null);
  const writing: Writing<T> | null = draft && {
    ...draft,
    kept: JSON.stringify(own[draft.at]) === JSON.stringify(draft.what),
    change: (what) => setDraft({ ...draft, what }),
    keep: () => keep([...own.slice(0, draft.at), draft.what, ...own.slice(draft.at + 1)]),
    close: () => setDraft(null),
  };
  return {
    writing,
    begin: (what: T) => setDraft({ at: own.length, what }),
    change: (at: number) => {
      const what = own[at];
      if (what !== undefined) setDraft({ at, what });
    },
    remove: (at: number) => {
      // what is written has a place among them
      setDraft(null);
      keep(own.filter((_, n) => n !== at));
    },
  };
}

interface RowProps {
  name: string;
  change: () => void;
  remove: () => void;
  /** What it is, in small letters. */
  children: ReactNode;
}

export function OwnRow({ name, change, remove, children }: RowProps) {
  return (
    <div className={classes.own}>
      <b>{name}</b>
      <small className="quiet">{children}</small>
      <Button variant="default" size="xs" onClick={change}>
        Change
      </Button>
      <Button variant="default" size="xs" aria-label={`Remove ${name}`} onClick={remove}>
        Remove
      </Button>
    </div>
  );
}
