/** The service worker: the application opens without a network, and a newer one is offered. */
import { useSyncExternalStore } from "react";
import type { Workbox } from "workbox-window";

let newer: Workbox | null = null;
const changed = new Set<() => void>();

export async function register(): Promise<void> {
  if (!("serviceWorker" in navigator) || import.meta.env.DEV) return;
  const { Workbox } = await import("workbox-window");
  const worker = new Workbox("/sw.js");
  worker.addEventListener("waiting", () => {
    newer = worker;
    for (const tell of changed) tell();
  });
  // asked for by a person on this page or another
  worker.addEventListener("controlling", (event) => {
    if (event.isUpdate) window.location.reload();
  });
  await worker.register().catch(() => undefined);
  setInterval(() => worker.update().catch(() => undefined), 30 * 60_000);
}

/** Takes the newer version, where there is one; null where there is none. */
export function useNewer(): (() => void) | null {
  const found = useSyncExternalStore(
    (tell) => {
      changed.add(tell);
      return () => changed.delete(tell);
    },
    () => newer,
  );
  return found && (() => found.messageSkipWaiting());
}
