// Keeps the page and its hashed assets on the device, so that the emergency page opens without a server.
importScripts("/push.js");

const SHELF = "kumpan-shell-1";

self.addEventListener("install", (event) => {
  event.waitUntil(
    caches
      .open(SHELF)
      .then((cache) => cache.add("/"))
      .then(() => self.skipWaiting()),
  );
});
self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));

async function page(request) {
  const cache = await caches.open(SHELF);
  try {
    const fresh = await fetch(request);
    if (fresh.ok) await cache.put("/", fresh.clone());
    return fresh;
  } catch (error) {
    const kept = await cache.match("/");
    if (kept) return kept;
    throw error;
  }
}

async function asset(request) {
  const cache = await caches.open(SHELF);
  const kept = await cache.match(request);
  if (kept) return kept;
  const fresh = await fetch(request);
  if (fresh.ok) await cache.put(request, fresh.clone());
  return fresh;
}

self.addEventListener("fetch", (event) => {
  const url = new URL(event.request.url);
  if (event.request.method !== "GET" || url.origin !== self.location.origin) return;
  if (event.request.mode === "navigate") event.respondWith(page(event.request));
  else if (url.pathname.startsWith("/assets/")) event.respondWith(asset(event.request));
});
