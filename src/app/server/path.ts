/** The header by which `proxy.ts` tells a page under which address it is asked for; what a caller sends under it is not heard. */
export const PATH_HEADER = 'x-bimlo-path';

/** A path of ours that was asked for, or the start where it is none: an address of elsewhere is not gone to. */
export function ownPath(asked: unknown): string {
  const start = '/';
  if (typeof asked !== 'string' || !asked.startsWith('/')) return start;
  const here = 'http://here.example';
  const url = URL.canParse(asked, here) ? new URL(asked, here) : null;
  return url?.origin === here ? `${url.pathname}${url.search}` : start;
}
