// Stands in where a page is asked for and Bimlo cannot be reached: it says so, and asks again by itself. It answers nothing
// else and keeps nothing of anybody's.
const KEPT = 'bimlo-offline-1';
const PAGE = '/offline.html';

addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(KEPT)
      .then((cache) => cache.add(new Request(PAGE, { cache: 'reload' })))
      .then(() => skipWaiting()),
  );
});

addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) => Promise.all(names.filter((name) => name !== KEPT).map((name) => caches.delete(name))))
      .then(() => clients.claim()),
  );
});

addEventListener('fetch', (event) => {
  if (event.request.mode !== 'navigate') return;
  event.respondWith(fetch(event.request).catch(() => caches.match(PAGE).then((page) => page ?? Response.error())));
});
