/** A plan being edited: undo and redo as plain data, so that it can be tested without a screen. */
import type { Schemas } from "@/api/client";

export type Plan = Schemas["Plan"];

export interface History {
  past: Plan[];
  present: Plan;
  future: Plan[];
  /** The field last edited, and when: keystrokes in one field are one step to undo. */
  last: { path: string; at: number } | null;
}

const SAME_EDIT_MS = 1200;
const DEEPEST = 200;

export const begin = (plan: Plan): History => ({ past: [], present: plan, future: [], last: null });

/** The history with `plan` as its present; edits of one field in quick succession are one step. */
export function edit(history: History, plan: Plan, path: string, at: number): History {
  if (JSON.stringify(plan) === JSON.stringify(history.present)) return history;
  const joins = history.last?.path === path && at - history.last.at < SAME_EDIT_MS;
  const past = joins ? history.past : [...history.past, history.present].slice(-DEEPEST);
  return { past, present: plan, future: [], last: { path, at } };
}

export function undo(history: History): History {
  const present = history.past.at(-1);
  if (!present) return history;
  return {
    past: history.past.slice(0, -1),
    present,
    future: [history.present, ...history.future],
    last: null,
  };
}

export function redo(history: History): History {
  const [present, ...future] = history.future;
  if (!present) return history;
  return { past: [...history.past, history.present], present, future, last: null };
}
