import { clock } from "@/app/time";
import classes from "./SavedWord.module.css";
import type { Saving } from "./useDraft";

/** Whether what is on the screen is saved, in a word. */
interface Props {
  saving: Saving;
  readOnly: boolean;
  /** A field holds what cannot be read. */
  unread?: boolean;
}

export function SavedWord({ saving, readOnly, unread }: Props) {
  if (readOnly) return <span className="quiet">read only: only a head baker can change it</span>;
  if (unread) {
    return (
      <span className={classes.unsaved} role="status">
        not saved: a field cannot be read; see the note under it
      </span>
    );
  }
  const word = {
    saved: () => (saving.state === "saved" ? `saved ${clock(saving.at)}` : ""),
    saving: () => "saving",
    waiting: () => (saving.state === "waiting" ? saving.why : ""),
    refused: () => (saving.state === "refused" ? saving.why : ""),
    overtaken: () => "not saved",
  }[saving.state]();
  return (
    <span
      className={
        saving.state === "saved" || saving.state === "saving" ? classes.saved : classes.unsaved
      }
      role="status"
    >
      {word}
    </span>
  );
}
