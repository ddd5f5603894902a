import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { addMs } from '@/core/time/plan';
import { insertPerson } from '@/data/people/people';
import { noteRestored } from '../delivery/restores';
import { archivePersonOf } from '../people/people';
import { codeOf, makeWorld, START, valueOf, type TestWorld } from '../testWorld';
import type { Work } from '../useCase';
import { enter, lookAtEntryLink, makeEntryLink, takeBackEntryLink } from './entry';
import { forgetOldSignIns } from './forget';
import { loadAudit } from './loadAudit';
import { changeOwnPassword } from './ownPassword';
import { personAlone, signInsOf } from './reading';
import { setPasswordOf } from './setPasswordOf';
import { signIn, signOut, whoIsSignedIn } from './signIn';

const FROM = { address: '192.0.2.7', agent: 'test' };
const GOOD = 'three grey herons';
const DAY_MS = 86_400_000;
const STRANGER = '00000000-0000-4000-8000-00000000000f';

let world: TestWorld;
let now: string;
let manager: Work;
let maker: Work;
beforeEach(async () => {
  world = await makeWorld();
  now = START;
  const clock = { now: () => now };
  manager = { ...world.work, clock };
  maker = { ...world.otherWork, clock };
  valueOf(await changeOwnPassword(manager, { signInId: null, present: '', password: GOOD, from: FROM }));
});
afterEach(() => world.close());

const later = (ms: number) => void (now = addMs(now, ms));
const slugOf = async (id: string) =>
  (await world.db.rows<{ slug: string }>('select slug from people where id = $1', [id]))[0]!.slug;
const tryAs = async (id: string, password: string, from = FROM) =>
  signIn(manager, { name: await slugOf(id), password }, from);

/** Invites the maker, who comes in with that password. */
async function letIn(password: string) {
  const { key } = valueOf(await makeEntryLink(manager, maker.actorId));
  return valueOf(await enter(manager, { key, password }, FROM));
}

describe('signing in', () => {
  it('takes the name in any case, and refuses a wrong password, somebody without one and nobody at all alike', async () => {
    const slug = await slugOf(manager.actorId);
    const { signInId } = valueOf(await signIn(manager, { name: slug.toUpperCase(), password: GOOD }, FROM));
    expect(await whoIsSignedIn(manager, signInId)).toMatchObject({
      personId: manager.actorId,
      actor: { role: 'manager' },
    });
    const refusals = [
      await tryAs(manager.actorId, 'three grey geese'),
      await tryAs(maker.actorId, GOOD),
      await signIn(manager, { name: 'nobody at all', password: GOOD }, FROM),
    ].map((result) => (result.ok ? null : result.refusal));
    expect(refusals[0]?.code).toBe('wrongPassword');
    expect(refusals).toEqual([refusals[0], refusals[0], refusals[0]]);
  });

  it('takes as long for names that are not there as for those that are', async () => {
    const timeOf = async (name: string) => {
      const start = performance.now();
      await signIn(manager, { name, password: 'not the password' }, { ...FROM, address: name });
      return performance.now() - start;
    };
    const slug = await slugOf(manager.actorId);
    const median = async (name: string) => {
      const times = [];
      for (let at = 0; at < 7; at++) times.push(await timeOf(name));
      return times.sort((a, b) => a - b)[3]!;
    };
    const [known, unknown] = [await median(slug), await median('nobody at all')];
    expect(Math.max(known, unknown) / Math.min(known, unknown)).toBeLessThan(2);
  });

  it('slows down after ten wrong passwords for a name, for twice as long each time, the right one too', async () => {
    const codes = [];
    for (let at = 0; at < 40; at++) codes.push(codeOf(await tryAs(manager.actorId, 'wrong wrong wrong')));
    expect(codes).toEqual([...Array(10).fill('wrongPassword'), ...Array(30).fill('tooManyTries')]);
    expect(codeOf(await tryAs(manager.actorId, GOOD))).toBe('tooManyTries');
    later(1_000);
    expect(codeOf(await tryAs(manager.actorId, 'wrong wrong wrong'))).toBe('wrongPassword');
    later(1_000);
    expect(codeOf(await tryAs(manager.actorId, GOOD))).toBe('tooManyTries');
    later(1_000);
    expect((await tryAs(manager.actorId, GOOD)).ok).toBe(true);
    // What was right once begins the count anew.
    expect(codeOf(await tryAs(manager.actorId, 'wrong wrong wrong'))).toBe('wrongPassword');
  });

  it('counts tries that come all at once, and names that nobody has', async () => {
    const many = (name: string, address: string) =>
      Promise.all(
        Array.from({ length: 40 }, () =>
          signIn(manager, { name, password: 'wrong wrong wrong' }, { ...FROM, address }),
        ),
      );
    for (const name of [await slugOf(manager.actorId), 'nobody at all']) {
      const codes = (await many(name, name)).map(codeOf);
      expect(codes.filter((code) => code === 'wrongPassword')).toHaveLength(10);
    }
  });

  it('slows down after thirty from one address, whatever the names', async () => {
    const codes = [];
    for (let at = 0; at < 32; at++)
      codes.push(codeOf(await signIn(manager, { name: `name ${at}`, password: 'wrong wrong' }, FROM)));
    expect(codes.slice(0, 30)).toEqual(Array(30).fill('wrongPassword'));
    expect(codes.slice(30)).toEqual(['tooManyTries', 'tooManyTries']);
    expect((await tryAs(manager.actorId, GOOD, { ...FROM, address: '192.0.2.8' })).ok).toBe(true);
    later(DAY_MS + 1);
    expect((await tryAs(manager.actorId, GOOD)).ok).toBe(true);
  });

  it('ends when it was not used for 30 days, and is noted to be used until then', async () => {
    const { signInId } = valueOf(await tryAs(manager.actorId, GOOD));
    for (let day = 0; day < 40; day++) {
      later(DAY_MS);
      expect(await whoIsSignedIn(manager, signInId)).toBeDefined();
    }
    later(30 * DAY_MS + 3_600_001);
    expect(await whoIsSignedIn(manager, signInId)).toBeUndefined();
    await forgetOldSignIns(manager);
    expect(await world.db.rows('select 1 from sign_ins')).toEqual([]);
  });

  it('ends here alone, or everywhere', async () => {
    const all = [];
    for (let at = 0; at < 3; at++) all.push(valueOf(await tryAs(manager.actorId, GOOD)));
    await signOut(manager, all[0]!, false);
    // One more came with the password being set.
    expect(await signInsOf(world.db, manager.actorId, now)).toHaveLength(3);
    expect(await whoIsSignedIn(manager, all[0]!.signInId)).toBeUndefined();
    await signOut(manager, all[1]!, true);
    expect(await signInsOf(world.db, manager.actorId, now)).toEqual([]);
  });
});

it('after a restore nobody is signed in, and no link holds: both may have ended since', async () => {
  const { signInId } = valueOf(await tryAs(manager.actorId, GOOD));
  const { key } = valueOf(await makeEntryLink(manager, maker.actorId));
  await noteRestored(manager, ['said'], now);
  expect(await whoIsSignedIn(manager, signInId)).toBeUndefined();
  expect(await lookAtEntryLink(world.db, key, now)).toBeUndefined();
  expect((await tryAs(manager.actorId, GOOD)).ok).toBe(true);
});

describe('an invitation', () => {
  it('lets somebody in once, who sets a password and signs in with it from then on', async () => {
    const { key, purpose } = valueOf(await makeEntryLink(manager, maker.actorId));
    expect(purpose).toBe('invitation');
    expect(await lookAtEntryLink(world.db, key, now)).toMatchObject({ personId: maker.actorId });
    expect(codeOf(await enter(manager, { key, password: 'short' }, FROM))).toBe('shortPassword');
    const both = await Promise.all([
      enter(manager, { key, password: 'four brown owls' }, FROM),
      enter(manager, { key, password: 'five white swans' }, FROM),
    ]);
    expect(both.filter(({ ok }) => !ok).map(codeOf)).toEqual(['linkOver']);
    expect(codeOf(await enter(manager, { key, password: 'four brown owls' }, FROM))).toBe('linkOver');
    const rights = [await tryAs(maker.actorId, 'four brown owls'), await tryAs(maker.actorId, 'five white swans')].map(
      ({ ok }) => ok,
    );
    expect(rights.filter(Boolean)).toHaveLength(1);
  });

  it('holds for seven days, not where another was made or it was taken back, and its key is not kept', async () => {
    const first = valueOf(await makeEntryLink(manager, maker.actorId));
    const second = valueOf(await makeEntryLink(manager, maker.actorId));
    expect(first.key).not.toBe(second.key);
    expect(Buffer.from(second.key, 'base64url')).toHaveLength(32);
    expect(await lookAtEntryLink(world.db, first.key, now)).toBeUndefined();
    expect(
      await world.db.rows(`select 1 from entry_links where encode(key_hash, 'escape') like '%' || $1 || '%'`, [
        second.key,
      ]),
    ).toEqual([]);
    later(7 * DAY_MS - 1);
    expect(await lookAtEntryLink(world.db, second.key, now)).toBeDefined();
    later(1);
    expect(await lookAtEntryLink(world.db, second.key, now)).toBeUndefined();
    const third = valueOf(await makeEntryLink(manager, maker.actorId));
    valueOf(await takeBackEntryLink(manager, maker.actorId));
    expect(codeOf(await enter(manager, { key: third.key, password: GOOD }, FROM))).toBe('linkOver');
  });

  it('is a new one when its write is sent again, so that no answer of it is kept', async () => {
    const request = { key: 'a'.repeat(36), parts: 0 };
    valueOf(await makeEntryLink({ ...manager, request }, maker.actorId));
    expect(await world.db.rows('select 1 from answered_writes')).toEqual([]);
  });

  it('is not for makers to make, nor for somebody of brands that are not one’s own, nor before one has a password', async () => {
    expect(codeOf(await makeEntryLink(maker, manager.actorId))).toBe('notYours');
    await insertPerson(world.db, { id: STRANGER, slug: 'sam', name: 'Sam', role: 'maker', position: 9 }, []);
    expect(codeOf(await makeEntryLink(manager, STRANGER))).toBe('notFound');
    await world.db.run('delete from credentials');
    expect(codeOf(await makeEntryLink(manager, maker.actorId))).toBe('ownPasswordFirst');
  });
});

describe('another password', () => {
  it('is set by a link that holds a day, and signs out everywhere else', async () => {
    const { signInId } = await letIn('four brown owls');
    const { key, purpose } = valueOf(await makeEntryLink(manager, maker.actorId));
    expect(purpose).toBe('password');
    later(DAY_MS - 1);
    valueOf(await enter(manager, { key, password: 'five white swans' }, FROM));
    expect(await whoIsSignedIn(manager, signInId)).toBeUndefined();
    expect(codeOf(await tryAs(maker.actorId, 'four brown owls'))).toBe('wrongPassword');
    expect((await tryAs(maker.actorId, 'five white swans')).ok).toBe(true);
  });

  it('is set by whoever says the present one, who is signed out everywhere but here', async () => {
    const here = valueOf(await tryAs(manager.actorId, GOOD));
    const there = valueOf(await tryAs(manager.actorId, GOOD));
    const change = (present: string) =>
      changeOwnPassword(manager, { signInId: here.signInId, present, password: 'five white swans', from: FROM });
    expect(codeOf(await change('not it, not it'))).toBe('wrongPassword');
    valueOf(await change(GOOD));
    expect(await whoIsSignedIn(manager, here.signInId)).toBeDefined();
    expect(await whoIsSignedIn(manager, there.signInId)).toBeUndefined();
  });

  it('is set on the machine itself, where somebody has that name', async () => {
    const set = (name: string) => setPasswordOf(manager, name, () => Promise.resolve('five white swans'));
    expect(codeOf(await set('nobody at all'))).toBe('notFound');
    valueOf(await set(await slugOf(manager.actorId)));
    expect((await tryAs(manager.actorId, 'five white swans')).ok).toBe(true);
  });
});

describe('who is signed in', () => {
  it('is who they are now: another role counts with the next request, and who is archived is nobody', async () => {
    const { signInId } = await letIn('four brown owls');
    await world.db.run(`update people set role = 'reviewer' where id = $1`, [maker.actorId]);
    expect((await whoIsSignedIn(manager, signInId))?.actor.role).toBe('reviewer');
    valueOf(await archivePersonOf(manager, maker.actorId, null));
    expect(await whoIsSignedIn(manager, signInId)).toBeUndefined();
    expect(codeOf(await tryAs(maker.actorId, 'four brown owls'))).toBe('wrongPassword');
  });

  it('is the first manager where nobody has a password, until anybody has', async () => {
    expect(await personAlone(manager)).toBeUndefined();
    await world.db.run('delete from credentials');
    expect(await personAlone(manager)).toBe(manager.actorId);
  });
});

it('the audit list tells a manager what was done in their brands, the latest first', async () => {
  await tryAs(manager.actorId, 'wrong wrong wrong');
  await letIn('four brown owls');
  const lines = await loadAudit(world.db, [world.brandId], null);
  expect(lines.map(({ words }) => words.replace(/ (of|for) .*/, ''))).toEqual([
    'came in by their invitation',
    expect.stringContaining('invited '),
    'a wrong password',
    'signed in',
    'changed the password',
  ]);
  expect(lines[2]).toMatchObject({ who: '', address: FROM.address });
  await insertPerson(world.db, { id: STRANGER, slug: 'sam', name: 'Sam', role: 'maker', position: 9 }, []);
  await tryAs(STRANGER, 'wrong wrong wrong');
  expect(await loadAudit(world.db, [world.brandId], null)).toHaveLength(5);
});
