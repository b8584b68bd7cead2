import { cleanupOutdatedCaches, precacheAndRoute, type PrecacheEntry } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { NetworkFirst, StaleWhileRevalidate } from "workbox-strategies";

/**
 * Keeps the application itself on the device, so that the chair opens without a connection: its files,
 * its one page, and the drawn moves. Nothing about people is kept here.
 */
declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: (PrecacheEntry | string)[] };

precacheAndRoute(self.__WB_MANIFEST);
cleanupOutdatedCaches();

/** Every address is the same page; it is kept once, with the headers it came with. */
const page = "/";
const shell = new NetworkFirst({
  cacheName: "page",
  networkTimeoutSeconds: 4,
  plugins: [{ cacheKeyWillBeUsed: () => Promise.resolve(page) }],
});
registerRoute(new NavigationRoute(shell, { denylist: [/^\/(api|care)\//] }));

registerRoute(
  ({ url }) => url.origin === self.location.origin && url.pathname.startsWith("/api/v1/figures/"),
  new StaleWhileRevalidate({ cacheName: "moves" }),
);

self.addEventListener("install", (event) => {
  // The page is there from the first visit on, not only from the second.
  event.waitUntil(
    caches.open("page").then(async (cache) => {
      const answer = await fetch(page, { cache: "no-store" });
      if (answer.ok) await cache.put(page, answer);
    }),
  );
});

self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));
