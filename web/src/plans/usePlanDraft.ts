/**
 * Edits save themselves. Until the server has them they lie in this browser, so that neither a
 * reload nor a dropped connection loses one.
 */
import { useCallback, useEffect, useRef, useState } from "react";
import { api, got, Problem, type Schemas } from "@/api/client";
import { queries, sentence } from "@/api/queries";
import { begin, edit, type History, type Plan, redo, undo } from "./draft";

export type Saving =
  | { state: "saved"; at: Date }
  | { state: "saving" }
  | { state: "waiting"; why: string }
  | { state: "refused"; why: string }
  | { state: "overtaken"; why: string };

interface Kept {
  revision: number;
  plan: Plan;
}

const PAUSE_MS = 500;
const RETRY_MS = 4000;
const keyOf = (id: number) => `eight-turn.plan.${id}`;

function kept(id: number): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(id)) ?? "null");
  } catch {
    return null;
  }
}

export function usePlanDraft(saved: Schemas["SavedPlan"], readOnly: boolean) {
  const [history, setHistory] = useState<History>(() => {
    const mine = readOnly ? null : kept(saved.id);
    const opened = begin(saved.plan);
    return mine ? edit(opened, mine.plan, "", 0) : opened;
  });
  const [saving, setSaving] = useState<Saving>({ state: "saved", at: new Date(saved.updated_at) });
  const revision = useRef(kept(saved.id)?.revision ?? saved.revision);
  const stored = useRef(JSON.stringify(saved.plan));
  const busy = useRef(false);
  const latest = useRef(history.present);
  latest.current = history.present;

  const save = useCallback(async () => {
    const plan = latest.current;
    const text = JSON.stringify(plan);
    if (busy.current || readOnly) return;
    if (text === stored.current) {
      localStorage.removeItem(keyOf(saved.id));
      setSaving({ state: "saved", at: new Date() });
      return;
    }
    busy.current = true;
    setSaving({ state: "saving" });
    try {
      const answer = await got(
        api.PUT("/api/plans/{plan_id}", {
          params: { path: { plan_id: saved.id } },
          body: { revision: revision.current, plan },
        }),
      );
      revision.current = answer.revision;
      stored.current = text;
      queries.setQueryData(["plan", saved.id], answer);
      queries.invalidateQueries({ queryKey: ["plans"] });
      if (JSON.stringify(latest.current) === text) {
        localStorage.removeItem(keyOf(saved.id));
        setSaving({ state: "saved", at: new Date() });
      }
    } catch (error) {
      if (error instanceof Problem && error.status === 409) {
        setSaving({ state: "overtaken", why: error.message });
      } else if (error instanceof Problem && !error.passing) {
        setSaving({ state: "refused", why: "Not saved: a field wants another look." });
      } else {
        setSaving({
          state: "waiting",
          why: `${sentence(error)} Your change is kept here and sent later.`,
        });
      }
    } finally {
      busy.current = false;
    }
  }, [saved.id, readOnly]);

  useEffect(() => {
    if (readOnly || JSON.stringify(history.present) === stored.current) return;
    const mine: Kept = { revision: revision.current, plan: history.present };
    localStorage.setItem(keyOf(saved.id), JSON.stringify(mine));
    const soon = setTimeout(save, PAUSE_MS);
    return () => clearTimeout(soon);
  }, [history.present, save, saved.id, readOnly]);

  // What changed while a save was on its way, or while there was no connection, goes out later.
  useEffect(() => {
    if (saving.state !== "waiting" && saving.state !== "saving") return;
    const later = setInterval(save, RETRY_MS);
    return () => clearInterval(later);
  }, [saving.state, save]);

  return {
    plan: history.present,
    saving,
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
    change: (plan: Plan, path: string) => setHistory((h) => edit(h, plan, path, Date.now())),
    undo: () => setHistory(undo),
    redo: () => setHistory(redo),
    /** Let go of what lies in this browser, for the plan that somebody else saved. */
    drop: () => {
      localStorage.removeItem(keyOf(saved.id));
      window.location.reload();
    },
  };
}
