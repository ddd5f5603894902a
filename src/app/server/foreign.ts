import type { Refusal } from '@/core/refusal';

const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;
const WRITES = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

const allowedHosts = new Set(
  (process.env.BIMLO_HOSTS ?? '')
    .split(',')
    .map((host) => host.trim())
    .filter(Boolean),
);
const isOurs = (host: string): boolean => LOOPBACK.test(host) || allowedHosts.has(host);

/** Why a request is not answered: it is meant for another host, or a page from elsewhere wants to write. Null when it is. */
export function whyForeign(request: Request): Refusal | null {
  const host = request.headers.get('host') ?? '';
  const refusal = (field: string, message: string): Refusal => ({ code: 'foreign', field, message });
  if (!isOurs(host))
    return refusal('host', `Bimlo does not answer to the name ${host}. Name it in BIMLO_HOSTS if it should.`);
  if (!WRITES.has(request.method)) return null;
  const origin = request.headers.get('origin');
  if (origin !== null && hostOf(origin) !== host)
    return refusal('origin', `A page of ${origin} may not change anything here. Open Bimlo itself to do that.`);
  if (origin === null && request.headers.get('sec-fetch-site') === 'cross-site')
    return refusal('origin', 'A page from elsewhere may not change anything here.');
  return null;
}

function hostOf(origin: string): string | null {
  return URL.canParse(origin) ? new URL(origin).host : null;
}
