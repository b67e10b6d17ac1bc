/// <reference lib="webworker" />
import { CacheFirst, ExpirationPlugin, NetworkFirst, type PrecacheEntry, Serwist, type SerwistGlobalConfig } from "serwist";

declare global {
  interface WorkerGlobalScope extends SerwistGlobalConfig {
    __SW_MANIFEST: (PrecacheEntry | string)[] | undefined;
  }
}
declare const self: ServiceWorkerGlobalScope;

/** Pages that were opened once open without a network for so long. */
const DAYS_S = 14 * 86_400;
/** A page that takes longer is shown as it was, if it was opened before. */
const PATIENCE_S = 8;

const isNews = (path: string) => path.startsWith("/live") || path.startsWith("/entries") || path.startsWith("/files");

const serwist = new Serwist({
  precacheEntries: self.__SW_MANIFEST,
  skipWaiting: true,
  clientsClaim: true,
  runtimeCaching: [
    {
      matcher: ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith("/_next/static/"),
      handler: new CacheFirst({ cacheName: "built", plugins: [new ExpirationPlugin({ maxEntries: 300, maxAgeSeconds: DAYS_S })] }),
    },
    {
      // Whole pages only: news for a page that is open are never answered with old ones.
      matcher: ({ request, url, sameOrigin }) => sameOrigin && request.mode === "navigate" && !isNews(url.pathname),
      handler: new NetworkFirst({
        cacheName: "pages",
        networkTimeoutSeconds: PATIENCE_S,
        plugins: [
          new ExpirationPlugin({ maxEntries: 120, maxAgeSeconds: DAYS_S }),
          // A page that says that it cannot be shown is not kept in place of one that could.
          { cacheWillUpdate: async ({ response }) => (response.status === 200 ? response : null) },
        ],
      }),
    },
  ],
});
serwist.addEventListeners();
