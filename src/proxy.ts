import { NextResponse, type NextRequest } from 'next/server';
import { whyForeign } from '@/app/server/foreign';
import { PATH_HEADER } from '@/app/server/path';

/**
 * Lets pages be asked for only under this machine's name (or a host named in `BIMLO_HOSTS`), so that no page on the web can
 * read a Bimlo on 127.0.0.1, and says what a page may load: scripts only with the number of this one answer. Routes ask
 * the same at their own door (`app/server/door.ts`): a body that comes through here is held in memory.
 */
export function proxy(request: NextRequest): NextResponse {
  const refusal = whyForeign(request);
  if (refusal) return withHeaders(NextResponse.json({ refusal }, { status: 403 }), "default-src 'none'");
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const policy = policyOf(nonce);
  const headers = new Headers(request.headers);
  headers.set('content-security-policy', policy);
  headers.set('x-nonce', nonce);
  headers.set(PATH_HEADER, `${request.nextUrl.pathname}${request.nextUrl.search}`);
  return withHeaders(NextResponse.next({ request: { headers } }), policy);
}

export const config = { matcher: ['/((?!api/|_next/).*)'] };

function withHeaders(response: NextResponse, policy: string): NextResponse {
  response.headers.set('content-security-policy', policy);
  return response;
}

function policyOf(nonce: string): string {
  // Next's development server evaluates what it sends.
  const evaluated = process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : '';
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${evaluated}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "media-src 'self' blob:",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    // No browser sends a form by itself, with its password in the address: pressed before the page is ready, it waits.
    "form-action 'none'",
    "frame-ancestors 'none'",
  ].join('; ');
}
