/** A document being edited: undo and redo as plain data, so that it can be tested without a screen. */

export interface History<T> {
  past: T[];
  present: T;
  future: T[];
  /** The field last edited, and when: keystrokes in one field are one step to undo. */
  last: { path: string; at: number } | null;
}

const SAME_EDIT_MS = 1200;
const DEEPEST = 200;

export const begin = <T>(document: T): History<T> => ({
  past: [],
  present: document,
  future: [],
  last: null,
});

/** The history with `document` as its present; quick edits of one field are one step. */
export function edit<T>(history: History<T>, document: T, path: string, at: number): History<T> {
  if (JSON.stringify(document) === JSON.stringify(history.present)) return history;
  const joins = history.last?.path === path && at - history.last.at < SAME_EDIT_MS;
  const past = joins ? history.past : [...history.past, history.present].slice(-DEEPEST);
  return { past, present: document, future: [], last: { path, at } };
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
