/// <reference lib="webworker" />
import { clientsClaim } from "workbox-core";
import type { WorkboxPlugin } from "workbox-core/types.js";
import { ExpirationPlugin } from "workbox-expiration";
import { cleanupOutdatedCaches, matchPrecache, precache, type PrecacheEntry } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { NetworkFirst } from "workbox-strategies";
import { KEPT_AT } from "../api/kept";

/**
 * Keeps the program itself and what it answered last on this device, so that a page can be loaded again while the network is gone.
 * The network always goes first; what is answered in its place carries when it was heard. It lasts as long as a session may, and
 * goes at once when somebody signs out or is sent away. Nothing is written from here: what waits to be sent is in the outbox.
 */
declare const self: ServiceWorkerGlobalScope;
/** The page and what it loads, as they were built. */
declare const SHELL: PrecacheEntry[];

const STATE = "wayfinder-state";
/** As long as a session at the second door lasts. */
const LASTS_S = 12 * 60 * 60;
/** So long a page waits for the network. */
const PAGE_WAITS_MS = 4000;
const COMES_OR_GOES = ["/api/leave", "/api/join", "/api/sign-in"];

/** Counts whenever what is kept was thrown away: an answer that was asked for before is not kept any more. */
let thrownAway = 0;

async function throwAway(): Promise<void> {
  thrownAway += 1;
  await caches.delete(STATE);
}

/** Answers that show that whoever asks is nobody, or not who they were. */
async function saysNobody(request: Request, response: Response): Promise<boolean> {
  if (response.status === 401) return true;
  if (!response.ok || new URL(request.url).pathname !== "/api/me") return false;
  const me = (await response.clone().json()) as { role?: string };
  return me.role === "nobody";
}

/** What is not there any more; with a home that has gone, all that was answered about it. */
async function forget(request: Request, wholeHome: boolean): Promise<void> {
  const kept = await caches.open(STATE);
  const home = /^\/api\/homes\/[^/]+/.exec(new URL(request.url).pathname)?.[0];
  if (!wholeHome || home === undefined) {
    await kept.delete(request);
    return;
  }
  const ofTheHome = (path: string) => path === home || path.startsWith(`${home}/`);
  const gone = (await kept.keys()).filter((one) => ofTheHome(new URL(one.url).pathname));
  await Promise.all(gone.map((one) => kept.delete(one)));
}

const keeping: WorkboxPlugin = {
  handlerWillStart: ({ state }) => {
    if (state) state["thrownAway"] = thrownAway;
    return Promise.resolve();
  },
  fetchDidSucceed: async ({ request, response }) => {
    if (await saysNobody(request, response)) await throwAway();
    if (response.status === 404 || response.status === 410) await forget(request, response.status === 410);
    return response;
  },
  cacheWillUpdate: async ({ response, state }) => {
    const isJson = response.headers.get("content-type")?.startsWith("application/json") === true;
    if (response.status !== 200 || !isJson || state?.["thrownAway"] !== thrownAway) return null;
    // Its own date would set the page's clock; when it was heard is told apart from that.
    const headers = new Headers(response.headers);
    headers.delete("date");
    headers.set(KEPT_AT, String(Date.now()));
    return new Response(await response.clone().arrayBuffer(), { status: 200, headers });
  },
  cachedResponseWillBeUsed: ({ cachedResponse }) => {
    const age = Date.now() - Number(cachedResponse?.headers.get(KEPT_AT) ?? NaN);
    return Promise.resolve(age >= 0 && age < LASTS_S * 1000 ? cachedResponse : null);
  },
};

const expiry = new ExpirationPlugin({ maxEntries: 500, maxAgeSeconds: LASTS_S, purgeOnQuotaError: true });
const state = new NetworkFirst({ cacheName: STATE, plugins: [keeping, expiry] });

precache(SHELL);
cleanupOutdatedCaches();
registerRoute(
  ({ url, request, sameOrigin }) =>
    sameOrigin &&
    url.pathname.startsWith("/api/") &&
    !url.pathname.endsWith("/export") &&
    request.mode !== "navigate" &&
    request.headers.get("accept") !== "text/event-stream",
  state,
);
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && COMES_OR_GOES.includes(url.pathname),
  async ({ request }) => {
    await throwAway();
    try {
      return await fetch(request);
    } finally {
      // Whatever was asked for as the one who went.
      await throwAway();
    }
  },
  "POST",
);
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && (url.pathname.startsWith("/assets/") || url.pathname === "/blade.svg"),
  async ({ request }) => (await matchPrecache(request)) ?? fetch(request),
);
registerRoute(
  new NavigationRoute(
    async ({ request }) => {
      try {
        return await fetch(request, { signal: AbortSignal.timeout(PAGE_WAITS_MS) });
      } catch {
        return (await matchPrecache("/")) ?? Response.error();
      }
    },
    { denylist: [/^\/api\//, /\.[a-z]+$/] },
  ),
);

void self.skipWaiting();
clientsClaim();
