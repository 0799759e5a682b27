/** The play of a lesson on this tablet: it survives a reload, and is let go when somebody signs out. */
import { useCallback, useEffect, useState } from "react";
import { newId } from "@/wire/id";
import { begun, PLAY_KEY, type Play } from "./play";

function read(key: string): Play | null {
  try {
    const text = localStorage.getItem(PLAY_KEY + key);
    return text ? (JSON.parse(text) as Play) : null;
  } catch {
    return null;
  }
}

export function usePlay(key: string, opens: number) {
  const [play, setPlay] = useState<Play | null>(() => read(key));
  useEffect(() => {
    if (play) localStorage.setItem(PLAY_KEY + key, JSON.stringify(play));
    else localStorage.removeItem(PLAY_KEY + key);
  }, [key, play]);
  const start = useCallback(() => setPlay(begun(newId(), opens)), [opens]);
  const leave = useCallback(() => setPlay(null), []);
  return { play, setPlay, start, leave };
}

const TICK_MS = 100;

/** Minutes that pass while time runs, so many times as fast as it does outside. */
export function useRunning(running: boolean, speed: number, pass: (minutes: number) => void): void {
  useEffect(() => {
    if (!running) return;
    let last = performance.now();
    const tick = setInterval(() => {
      const now = performance.now();
      pass(((now - last) / 60_000) * speed);
      last = now;
    }, TICK_MS);
    return () => clearInterval(tick);
  }, [running, speed, pass]);
}
