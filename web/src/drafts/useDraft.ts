/**
 * Edits save themselves. Until the server has them they lie in this browser, so that neither a
 * reload nor a dropped connection loses one.
 */
import { useCallback, useEffect, useRef, useState } from "react";
import { Problem } from "@/api/client";
import { sentence } from "@/api/queries";
import { back, begin, edit, type History, redo, undo } from "./history";

export type Saving =
  | { state: "saved"; at: Date }
  | { state: "saving" }
  | { state: "waiting"; why: string }
  | { state: "refused"; why: string }
  | { state: "overtaken"; why: string };

interface Kept<T> {
  revision: number;
  document: T;
}

export interface Draft<T> {
  /** Names the document in this browser. */
  key: string;
  saved: { revision: number; updated_at: string; document: T };
  readOnly: boolean;
  /** Send it over `revision`; answers with the new revision. */
  put: (revision: number, document: T) => Promise<number>;
}

const PAUSE_MS = 500;
const RETRY_MS = 4000;
const keyOf = (key: string) => `eight-turn.${key}`;

function kept<T>(key: string): Kept<T> | null {
  try {
    const found = JSON.parse(localStorage.getItem(keyOf(key)) ?? "null");
    return found?.document ? found : null;
  } catch {
    return null;
  }
}

export function useDraft<T>({ key, saved, readOnly, put }: Draft<T>) {
  const [history, setHistory] = useState<History<T>>(() => {
    const mine = readOnly ? null : kept<T>(key);
    const opened = begin(saved.document);
    return mine ? edit(opened, mine.document, "", 0) : opened;
  });
  const [saving, setSaving] = useState<Saving>({ state: "saved", at: new Date(saved.updated_at) });
  const revision = useRef(kept(key)?.revision ?? saved.revision);
  const stored = useRef(JSON.stringify(saved.document));
  const busy = useRef(false);
  const hold = useRef({ last: 0, now: 0 });
  const latest = useRef(history.present);
  latest.current = history.present;
  const send = useRef(put);
  send.current = put;

  const save = useCallback(async () => {
    const document = latest.current;
    const text = JSON.stringify(document);
    if (busy.current || readOnly) return;
    if (text === stored.current) {
      localStorage.removeItem(keyOf(key));
      setSaving({ state: "saved", at: new Date() });
      return;
    }
    busy.current = true;
    setSaving({ state: "saving" });
    let behind = false;
    try {
      revision.current = await send.current(revision.current, document);
      stored.current = text;
      behind = JSON.stringify(latest.current) !== text;
      if (!behind) {
        localStorage.removeItem(keyOf(key));
        setSaving({ state: "saved", at: new Date() });
      }
    } catch (error) {
      if (error instanceof Problem && error.status === 409) {
        setSaving({ state: "overtaken", why: sentence(error) });
      } else if (error instanceof Problem && !error.passing) {
        // What was put right while this was on its way has not been asked yet.
        behind = JSON.stringify(latest.current) !== text;
        if (!behind)
          setSaving({
            state: "refused",
            why: "Not saved: a field needs correcting; see the note under it.",
          });
      } else {
        setSaving({
          state: "waiting",
          why: `${sentence(error)} Your change is kept here and sent later.`,
        });
      }
    } finally {
      busy.current = false;
    }
    if (behind) await save();
  }, [key, readOnly]);

  useEffect(() => {
    if (readOnly) return;
    if (JSON.stringify(history.present) === stored.current && !busy.current) {
      // What was refused, or not sent yet, was taken back: there is nothing left to save.
      localStorage.removeItem(keyOf(key));
      setSaving((now) =>
        now.state === "saved" || now.state === "overtaken"
          ? now
          : { state: "saved", at: new Date() },
      );
      return;
    }
    const mine: Kept<T> = { revision: revision.current, document: history.present };
    localStorage.setItem(keyOf(key), JSON.stringify(mine));
    setSaving((now) => (now.state === "overtaken" ? now : { state: "saving" }));
    const soon = setTimeout(save, PAUSE_MS);
    return () => clearTimeout(soon);
  }, [history.present, save, key, readOnly]);

  // What changed while a save was on its way, or while there was no connection, goes out later.
  useEffect(() => {
    if (saving.state !== "waiting" && saving.state !== "saving") return;
    const later = setInterval(save, RETRY_MS);
    return () => clearInterval(later);
  }, [saving.state, save]);

  // Who leaves at once need not wait: what is not sent yet goes with the leaving.
  useEffect(() => {
    const leave = () => void save();
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      leave();
    };
  }, [save]);

  return {
    document: history.present,
    saving,
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
    change: (document: T, path: string) => {
      const held = hold.current.now || undefined;
      setHistory((h) => edit(h, document, path, Date.now(), held));
    },
    /** Something is taken hold of: until it is let go, all changes are one step to undo. */
    take: useCallback(() => {
      hold.current.last += 1;
      hold.current.now = hold.current.last;
    }, []),
    /** It is let go; `asItWas`: and everything is as it was before. */
    letGo: useCallback((asItWas: boolean) => {
      const held = hold.current.now;
      hold.current.now = 0;
      if (asItWas) setHistory((h) => back(h, held));
    }, []),
    undo: () => setHistory(undo),
    redo: () => setHistory(redo),
    /** Let go of what lies in this browser, for the one that somebody else saved. */
    drop: () => {
      localStorage.removeItem(keyOf(key));
      window.location.reload();
    },
  };
}
