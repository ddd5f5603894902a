import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { couldDo, RIGHTS } from '@/core/rights/may';
import type { Door } from '@/app/server/door';
import { PERSON_HEADER } from '@/ui/api';
import { insertPerson } from '@/data/people/people';
import { makeApp, type TestApp } from '@/app/api/testApp';

const ROOT = new URL('.', import.meta.url).pathname;
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'] as const;

/** Routes for which nobody has to be chosen, and why. */
const OPEN: Record<string, string> = {
  'api/who/route.ts POST': 'says who one is, in a demo alone',
  'api/sign-in/route.ts POST': 'signs somebody in, who is nobody before',
  'api/sign-out/route.ts POST': 'signs out, whoever it is',
  'api/join/route.ts POST': 'lets somebody in who has the key of a link',
  'api/begin/route.ts POST': 'begins an empty folder, and only that',
  'standins/clock/route.ts POST': 'there only while the clock stands still',
  'standins/folder/route.ts DELETE': 'there only while the clock stands still',
  'standins/pictures/[sha]/route.ts GET': 'what the made-up networks show in public',
  'feeds/[token]/route.ts GET': 'a calendar that cannot sign in: its address is its key',
  'bench/process/route.ts GET': 'figures of the process, there only for the benchmark',
};
/** Pages that are no brand’s. */
const OPEN_PAGES = [
  'page.tsx',
  'who/page.tsx',
  'sign-in/page.tsx',
  'join/[key]/page.tsx',
  'begin/page.tsx',
  'standins/[network]/page.tsx',
  'standins/[network]/[id]/page.tsx',
  // Everybody finds their own mail there (`standins/mailbox/page.tsx`).
  'standins/mailbox/page.tsx',
];

const filesNamed = (name: string): string[] =>
  (readdirSync(ROOT, { recursive: true }) as string[])
    .filter((path) => path.split('/').at(-1) === name && statSync(join(ROOT, path)).isFile())
    .sort();

const SOME_ID = '00000000-0000-4000-8000-000000000000';
type Handler = Door<Record<string, string>>;

const doors = await Promise.all(
  filesNamed('route.ts').map(async (path) => {
    const module = (await import(join(ROOT, path))) as Record<string, unknown>;
    return METHODS.flatMap((method) => (module[method] ? [{ path, method, handler: module[method] as Handler }] : []));
  }),
).then((all) => all.flat());

const call = (handler: Handler, method: string, headers: Record<string, string> = {}, query = '') => {
  const request = new Request(`http://127.0.0.1:4310/api${query}`, {
    method,
    headers: { host: '127.0.0.1:4310', ...headers },
    ...(method === 'GET' ? {} : { body: '{}' }),
  });
  const params = Promise.resolve({ id: SOME_ID, picture: SOME_ID, place: '0', sha: 'a'.repeat(64), network: 'x' });
  return handler(request, { params });
};

let app: TestApp;
const REVIEWER = '00000000-0000-4000-8000-00000000000e';
beforeAll(async () => {
  app = await makeApp();
  await insertPerson(app.db, { id: REVIEWER, slug: 'reva', name: 'Reva', role: 'reviewer', position: 2 }, [
    app.brandId,
  ]);
});
afterAll(() => app.close());

describe('every route', () => {
  it('is found: a folder without routes would prove nothing', () => expect(doors.length).toBeGreaterThan(55));

  it.each(doors.map((door) => [`${door.path} ${door.method}`, door] as const))(
    '%s stands in the table',
    (name, door) => {
      expect('deed' in door.handler).toBe(true);
      if (door.handler.deed === null) expect(Object.keys(OPEN)).toContain(name);
      else expect(Object.keys(RIGHTS)).toContain(door.handler.deed);
    },
  );

  it.each(doors.map((door) => [`${door.path} ${door.method}`, door] as const))(
    '%s answers under no foreign name, and writes for no foreign page',
    async (_name, { handler, method }) => {
      expect((await call(handler, method, { host: 'evil.example' })).status).toBe(403);
      if (method !== 'GET') {
        expect((await call(handler, method, { origin: 'https://evil.example' })).status).toBe(403);
        expect((await call(handler, method, { 'sec-fetch-site': 'cross-site' })).status).toBe(403);
      }
    },
  );

  it.each(
    doors.filter(({ handler }) => handler.deed !== null).map((door) => [`${door.path} ${door.method}`, door] as const),
  )('%s answers 401 to nobody, and says so safely', async (_name, { handler, method }) => {
    app.actAs(null);
    const answer = await call(handler, method);
    app.actAs(app.work.actorId);
    expect(answer.status).toBe(401);
    expect(answer.headers.get('x-content-type-options')).toBe('nosniff');
    expect(answer.headers.get('referrer-policy')).toBe('no-referrer');
    expect(answer.headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
  });

  it.each(
    doors.filter(({ handler }) => handler.deed !== null).map((door) => [`${door.path} ${door.method}`, door] as const),
  )(
    '%s does nothing for a page that was drawn for somebody who is signed in no more',
    async (_name, { handler, method }) => {
      const answer = await call(handler, method, { [PERSON_HEADER]: app.otherWork.actorId });
      expect([answer.status, await answer.json()]).toMatchObject([401, { refusal: { code: 'somebodyElse' } }]);
      expect((await call(handler, method, { [PERSON_HEADER]: app.work.actorId })).status).not.toBe(401);
    },
  );

  it('signing out does nothing for such a page either', async () => {
    const { handler } = doors.find(({ path }) => path === 'api/sign-out/route.ts')!;
    const signOut = (drawnFor: string) =>
      handler(
        new Request('http://127.0.0.1:4310/api', {
          method: 'POST',
          headers: { host: '127.0.0.1:4310', [PERSON_HEADER]: drawnFor },
          body: '{"everywhere":true}',
        }),
        { params: Promise.resolve({}) },
      );
    expect((await signOut(app.otherWork.actorId)).status).toBe(401);
    expect((await signOut(app.work.actorId)).status).toBe(200);
  });

  it.each(
    (['maker', 'reviewer'] as const).flatMap((role) =>
      doors
        .filter(({ handler }) => handler.deed !== null && !couldDo(role, handler.deed))
        .map((door) => [`${door.path} ${door.method}`, role, door] as const),
    ),
  )('%s is not for a %s', async (_name, role, { handler, method }) => {
    app.actAs(role === 'maker' ? app.otherWork.actorId : REVIEWER);
    const answer = await call(handler, method);
    app.actAs(app.work.actorId);
    expect(answer.status).toBe(403);
  });
});

describe('every page', () => {
  it.each(filesNamed('page.tsx').map((path) => [path]))(
    '%s comes through the brand’s door, or is no brand’s',
    (path) => {
      const source = readFileSync(join(ROOT, path), 'utf8');
      if (!OPEN_PAGES.includes(path)) expect(source).toMatch(/await brandOfPage\(/);
    },
  );
});

describe('what belongs to a brand one does not work for', () => {
  const byQuery = (method: 'GET' | 'POST', path: string, query: string) => {
    const { handler } = doors.find((door) => door.path === path && door.method === method)!;
    return call(handler, method, {}, query);
  };

  it('is neither read, searched nor exported', async () => {
    app.actAs(app.otherWork.actorId);
    const brand = app.otherBrandId;
    const answers = [
      await byQuery('GET', 'api/library/route.ts', `?brand=${brand}`),
      await byQuery('GET', 'api/shelf/route.ts', `?brand=${brand}`),
      await byQuery('GET', 'api/find/route.ts', `?brand=${brand}&words=dome`),
      await byQuery('GET', 'api/calendar/export/route.ts', '?brand=ferry&file=csv'),
      await byQuery('GET', 'api/settings/brands/route.ts', `?brand=${brand}&zone=Europe/Lisbon`),
    ];
    expect(answers.map(({ status }) => status)).toEqual([403, 403, 403, 403, 403]);
    app.actAs(app.work.actorId);
  });

  it('is read by those who do', async () => {
    const answer = await byQuery('GET', 'api/library/route.ts', `?brand=${app.otherBrandId}`);
    expect(answer.status).toBe(200);
  });
});

describe('what breaks', () => {
  it('is answered as Bimlo’s own error, not as a page', async () => {
    const { handler } = doors.find(({ path, method }) => path === 'api/find/route.ts' && method === 'GET')!;
    const shared = (globalThis as { [key: symbol]: Promise<{ db: { rows: unknown } }> })[Symbol.for('bimlo')]!;
    const bimlo = await shared;
    const own = bimlo.db.rows;
    bimlo.db.rows = () => Promise.reject(new Error('broken'));
    const answer = await call(handler, 'GET', {}, `?brand=${app.brandId}&words=dome`);
    bimlo.db.rows = own;
    expect([answer.status, await answer.json()]).toMatchObject([500, { refusal: { code: 'broken' } }]);
  });
});
