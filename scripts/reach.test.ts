import { describe, expect, it } from 'vitest';
import { addressOf, reachOf } from './lib/reach.mjs';

const reach = (env: Record<string, string>) => reachOf(env, 4310, ['studio', '192.0.2.5', 'fe80::1']);

describe('how Bimlo is reached', () => {
  it.each([[{}], [{ HOST: 'localhost' }], [{ HOST: '::1' }], [{ BIMLO_DEMO_PERSON: 'ines' }]])(
    'from this machine alone: %j',
    (env) => expect(reach(env)).toMatchObject({ isOnlyHere: true, hosts: [] }),
  );

  it.each([
    [{ HOST: '192.0.2.5' }, ['192.0.2.5:4310']],
    [{ HOST: 'studio' }, ['studio:4310']],
    [{ HOST: '0.0.0.0' }, ['studio:4310', '192.0.2.5:4310', '[fe80::1]:4310']],
    [{ BIMLO_URL: 'https://plan.example' }, ['plan.example']],
    [{ BIMLO_HOPS: '1', BIMLO_HOSTS: 'a.example, b.example:81' }, ['a.example', 'b.example:81']],
  ])('from elsewhere, under the names it has: %j', (env, hosts) =>
    expect(reach(env)).toMatchObject({ isOnlyHere: false, hosts }),
  );

  it.each([
    [{ BIMLO_URL: 'plan.example' }, 'BIMLO_URL'],
    [{ BIMLO_URL: 'https://plan.example/bimlo' }, 'BIMLO_URL'],
    [{ BIMLO_HOPS: 'one' }, 'BIMLO_HOPS'],
    [{ HOST: '0.0.0.0', BIMLO_DEMO_PERSON: 'ines' }, 'demo'],
    [{ BIMLO_HOPS: '1', BIMLO_DEMO_PERSON: 'ines' }, 'demo'],
  ])('not at all, with the setting that is wrong: %j', (env, named) =>
    expect((reach(env) as { problem: string }).problem).toContain(named),
  );
});

describe('from where a request comes', () => {
  it.each([
    ['1.1.1.1, 2.2.2.2', '127.0.0.1', 0, '127.0.0.1'],
    ['1.1.1.1, 2.2.2.2', '127.0.0.1', 1, '2.2.2.2'],
    ['1.1.1.1, 2.2.2.2', '127.0.0.1', 2, '1.1.1.1'],
    ['1.1.1.1', '127.0.0.1', 2, '127.0.0.1'],
    ['nonsense', '127.0.0.1', 1, '127.0.0.1'],
    [undefined, '::ffff:192.0.2.9', 0, '192.0.2.9'],
  ] as const)('%s through %s with %i proxies', (forwarded, peer, hops, address) =>
    expect(addressOf(forwarded, peer, hops)).toBe(address),
  );
});
