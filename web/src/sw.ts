/**
 * The service worker. It keeps the application itself, whole, and gives it out without asking the
 * network; what the application reads and writes goes past it. A newer one waits until somebody takes it.
 */
import { cleanupOutdatedCaches, precacheAndRoute } from "workbox-precaching";
import { askHealth, LOCK, post, shelf } from "@/offline/post";
import { sendAll } from "@/offline/send";
import { newId } from "@/wire/id";

declare const self: ServiceWorkerGlobalScope & {
  __WB_MANIFEST: { url: string; revision: string }[];
};

const FILES = self.__WB_MANIFEST;
/** One page for each version of what it is made of. */
const SHELL = `shell ${FILES.map((f) => (typeof f === "string" ? f : f.url))
  .filter((url) => url.includes("/index-"))
  .join(" ")}`;
/** Pages that are not the application's own. */
const NOT_OURS = /^\/(api|admin|static)\//;

precacheAndRoute(FILES);
cleanupOutdatedCaches();

self.addEventListener("install", (event) => {
  // with its policy and the nonce that belongs to it
  event.waitUntil(caches.open(SHELL).then((c) => c.add(new Request("/", { cache: "reload" }))));
});

self.addEventListener("activate", (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((keys) =>
        Promise.all(
          keys.filter((k) => k.startsWith("shell ") && k !== SHELL).map((k) => caches.delete(k)),
        ),
      ),
  );
});

self.addEventListener("message", (event) => {
  if (event.data?.type === "SKIP_WAITING") self.skipWaiting();
});

self.addEventListener("fetch", (event) => {
  const { request } = event;
  if (request.mode !== "navigate" || NOT_OURS.test(new URL(request.url).pathname)) return;
  event.respondWith(
    caches
      .open(SHELL)
      .then((c) => c.match("/"))
      .then((page) => page ?? fetch(request)),
  );
});

/** Beyond this a clock was set. */
const ODD_MS = 5_000;

/** What is to be added to this tablet's clock, ms; null where nobody answers. */
async function houseOffset(): Promise<number | null> {
  const asked = newId();
  const at = Date.now();
  const answer = await askHealth(asked);
  if (answer?.headers.get("X-Asked") !== asked) return null;
  return Number(answer.headers.get("X-House-Time")) - (at + Date.now()) / 2;
}

/** The connection is back, and perhaps no page is open to send what waits. */
self.addEventListener("sync", (event) => {
  const sync = event as ExtendableEvent & { tag: string };
  if (sync.tag !== LOCK) return;
  sync.waitUntil(
    navigator.locks.request(LOCK, { ifAvailable: true }, async (lock) => {
      if (!lock) return;
      const store = (
        self as unknown as {
          cookieStore?: { get: (n: string) => Promise<{ value: string } | null> };
        }
      ).cookieStore;
      const token = (await store?.get("csrftoken"))?.value ?? "";
      // whether the tablet's clock was set meanwhile is for a page to see, which counts ticks
      const sure = (await houseOffset()) ?? Number.NaN;
      const waiting = await shelf.all();
      const known = waiting.every((e) => !e.stamp || Math.abs(e.stamp.offset - sure) < ODD_MS);
      if (
        !known ||
        !(await sendAll(
          shelf,
          post(() => token),
          Date.now,
        ))
      )
        throw new Error("some of it waits still");
    }),
  );
});
