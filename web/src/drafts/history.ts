/** A document being edited: undo and redo as plain data, so that it can be tested without a screen. */

export interface History<T> {
  past: T[];
  present: T;
  future: T[];
  /** The field last edited, when, and in whose hand: keystrokes in one field, or one drag, are one step. */
  last: { path: string; at: number; hold?: number } | null;
}

const SAME_EDIT_MS = 1200;
const DEEPEST = 200;

export const begin = <T>(document: T): History<T> => ({
  past: [],
  present: document,
  future: [],
  last: null,
});

/**
 * The history with `document` as its present; quick edits of one field are one step, and so is all
 * that was done in one `hold`.
 */
export function edit<T>(
  history: History<T>,
  document: T,
  path: string,
  at: number,
  hold?: number,
): History<T> {
  if (JSON.stringify(document) === JSON.stringify(history.present)) return history;
  const { last } = history;
  const joins = hold
    ? last?.hold === hold
    : last?.path === path && !last.hold && at - last.at < SAME_EDIT_MS;
  const past = joins ? history.past : [...history.past, history.present].slice(-DEEPEST);
  return { past, present: document, future: [], last: { path, at, hold } };
}

/** As it was before a hold began; what was tried in it leaves no trace. */
export function back<T>(history: History<T>, hold: number): History<T> {
  const before = history.past.at(-1);
  if (history.last?.hold !== hold || before === undefined) return history;
  return { past: history.past.slice(0, -1), present: before, future: [], last: null };
}

export function undo<T>(history: History<T>): History<T> {
  const present = history.past.at(-1);
  if (present === undefined) return history;
  return {
    past: history.past.slice(0, -1),
    present,
    future: [history.present, ...history.future],
    last: null,
  };
}

export function redo<T>(history: History<T>): History<T> {
  const [present, ...future] = history.future;
  if (present === undefined) return history;
  return { past: [...history.past, history.present], present, future, last: null };
}
