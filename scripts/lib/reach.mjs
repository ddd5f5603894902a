import { isIP } from 'node:net';

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '::1']);
const EVERYWHERE = new Set(['0.0.0.0', '::']);

/** An address or name as it stands in a host header, where browsers write small letters. */
const bare = (host) => (isIP(host) === 6 ? `[${host}]` : host.toLowerCase());

/**
 * How a Bimlo is reached, by its settings.
 *
 * @param {Record<string, string | undefined>} env `HOST`, `BIMLO_URL`, `BIMLO_HOSTS`, `BIMLO_HOPS`, `BIMLO_DEMO_PERSON`
 * @param {number} port
 * @param {readonly string[]} ownAddresses what this machine is called on its networks
 * @returns {{ hostname: string, isOnlyHere: boolean, hosts: string[], hops: number } | { problem: string }} what is listened to,
 *   whether no other machine reaches it, the names that it answers to beside this machine's own, and how many proxies before it
 *   are trusted; or what is wrong with the settings
 */
export function reachOf(env, port, ownAddresses) {
  const hostname = env.HOST || '127.0.0.1';
  const hops = Number(env.BIMLO_HOPS || 0);
  if (!Number.isInteger(hops) || hops < 0 || hops > 10)
    return { problem: 'BIMLO_HOPS is how many proxies stand before Bimlo: a number from 0 to 10.' };
  const url = env.BIMLO_URL ? readUrl(env.BIMLO_URL) : null;
  if (env.BIMLO_URL && !url)
    return {
      problem: 'BIMLO_URL is the address others open, such as https://plan.example, without anything after it.',
    };
  const isOnlyHere = LOOPBACK.has(hostname) && !url && !env.BIMLO_HOSTS && hops === 0;
  if (!isOnlyHere && env.BIMLO_DEMO_PERSON)
    return {
      problem:
        'In the demo everybody chooses who they are, so it is shown on this machine only: take HOST, BIMLO_URL, BIMLO_HOSTS and BIMLO_HOPS away, or use npm start.',
    };
  const named = EVERYWHERE.has(hostname) ? ownAddresses : LOOPBACK.has(hostname) ? [] : [hostname];
  const hosts = [
    ...(env.BIMLO_HOSTS ?? '').split(',').map((host) => host.trim()),
    ...named.flatMap((host) => [`${bare(host)}:${port}`, ...(port === 80 ? [bare(host)] : [])]),
    ...(url ? [url.host] : []),
  ].filter(Boolean);
  return { hostname, isOnlyHere, hosts: [...new Set(hosts)], hops };
}

function readUrl(text) {
  if (!URL.canParse(text)) return null;
  const url = new URL(text);
  const isPlain = ['http:', 'https:'].includes(url.protocol) && url.pathname === '/' && !url.search && !url.hash;
  return isPlain && !url.username ? url : null;
}

/**
 * The address a request comes from: what the last proxy that is trusted says, or the other end of the connection.
 *
 * @param {string | undefined} forwarded the header `x-forwarded-for`
 * @param {string | undefined} peer
 * @param {number} hops
 */
export function addressOf(forwarded, peer, hops) {
  const named = (forwarded ?? '').split(',').map((one) => one.trim());
  const told = hops > 0 ? named.at(-hops) : undefined;
  const address = told && isIP(told) ? told : (peer ?? 'unknown');
  return address.replace(/^::ffff:(?=\d+\.)/, '');
}
