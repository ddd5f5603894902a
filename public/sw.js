// Stands in where a page is asked for and Bimlo cannot be reached: it says so, and asks again by itself. It keeps nothing of
// anybody's.
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
  const { request } = event;
  if (request.mode === 'navigate')
    event.respondWith(fetch(request).catch(() => caches.match(PAGE).then((page) => page ?? Response.error())));
  // What a page is drawn from (React Server Components).
  else if (request.method === 'GET' && request.headers.has('rsc')) event.respondWith(wholeAnswer(request));
});

/**
 * An answer as soon as all of it is there. One that breaks off counts as none: the router asks for that again when there is a
 * connection, but leaves the page for half an answer.
 */
async function wholeAnswer(request) {
  const answer = await fetch(request);
  await answer.clone().arrayBuffer();
  return answer;
}

// A notice that the browser shows (`useFreshNotices`) opens the place that it is about.
addEventListener('notificationclick', (event) => {
  event.notification.close();
  const place = new URL(event.notification.data?.place ?? '/', location.origin);
  if (place.origin !== location.origin) return;
  event.waitUntil(
    clients.matchAll({ type: 'window' }).then((windows) => {
      const [open] = windows;
      return open ? open.focus().then((page) => page.navigate(place.href)) : clients.openWindow(place.href);
    }),
  );
});
