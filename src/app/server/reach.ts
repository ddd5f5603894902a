import type { From } from '@/usecases/signIn/house';

/** The header in which `scripts/lib/serve.mjs` hands on where a request came from; what a caller sends under it is not heard. */
const ADDRESS_HEADER = 'x-bimlo-address';

/** Whether no other machine reaches this Bimlo: `scripts/lib/serve.mjs` says so, and where it does not, it is not so. */
export const isOnlyHere = (): boolean => process.env.BIMLO_ONLY_HERE === '1';

/** Whether browsers reach this Bimlo by HTTPS, as its public address says. */
export const isSecure = (): boolean => process.env.BIMLO_URL?.startsWith('https:') ?? false;

/** From where a request comes. */
export const fromOf = ({ headers }: Request): From => ({
  address: headers.get(ADDRESS_HEADER) ?? 'unknown',
  agent: headers.get('user-agent') ?? '',
});

/** A path of this Bimlo as others open it: under its public address, or under the name by which it was asked. */
export function linkTo(request: Request, path: string): string {
  const base = process.env.BIMLO_URL ?? `http://${request.headers.get('host') ?? 'localhost'}`;
  return new URL(path, base).href;
}
