import { createHash } from 'node:crypto';
import { openDoor } from '@/app/server/door';
import { readFeed } from '@/usecases/feeds/feedText';

/** A key as it stands in an address, with the ending that calendars like. */
const TOKEN = /^([\w-]{43})\.ics$/;

const NOTHING = (): Response =>
  new Response('There is no such feed.', { status: 404, headers: { 'cache-control': 'no-store' } });

/** A private calendar feed, for calendars that cannot sign in: whoever has the address has it. Unknown or revoked, there is nothing. */
export const GET = openDoor<{ token: string }>(async (request, { params }, { app }) => {
  const key = TOKEN.exec((await params).token)?.[1];
  const text = key === undefined ? null : await readFeed(app, key);
  if (text === null) return NOTHING();
  const etag = `"${createHash('sha256').update(text).digest('base64url')}"`;
  const headers = { etag, 'cache-control': 'private, no-cache' };
  const known = (request.headers.get('if-none-match') ?? '').split(',').map((one) => one.trim().replace(/^W\//, ''));
  if (known.includes(etag)) return new Response(null, { status: 304, headers });
  return new Response(text, { headers: { ...headers, 'content-type': 'text/calendar; charset=utf-8' } });
});
