import { NextResponse, type NextRequest } from 'next/server';

const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;
const WRITES = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

const allowedHosts = new Set(
  (process.env.BIMLO_HOSTS ?? '')
    .split(',')
    .map((host) => host.trim())
    .filter(Boolean),
);
const isOurs = (host: string): boolean => LOOPBACK.test(host) || allowedHosts.has(host);

/**
 * Lets through only requests addressed to this machine (or a host named in `BIMLO_HOSTS`), and writes only from our own
 * pages, so that no page on the web can read from or post to a Bimlo on 127.0.0.1.
 */
export function proxy(request: NextRequest): NextResponse {
  const host = request.headers.get('host') ?? '';
  if (!isOurs(host))
    return refuse('host', `Bimlo does not answer to the name ${host}. Name it in BIMLO_HOSTS if it should.`);
  if (!WRITES.has(request.method)) return NextResponse.next();
  const origin = request.headers.get('origin');
  if (origin !== null && hostOf(origin) !== host)
    return refuse('origin', `A page of ${origin} may not change anything here. Open Bimlo itself to do that.`);
  if (origin === null && request.headers.get('sec-fetch-site') === 'cross-site')
    return refuse('origin', 'A page from elsewhere may not change anything here.');
  return NextResponse.next();
}

function refuse(field: string, message: string): NextResponse {
  return NextResponse.json({ refusal: { code: 'foreign', field, message } }, { status: 403 });
}

function hostOf(origin: string): string | null {
  return URL.canParse(origin) ? new URL(origin).host : null;
}
