import { afterEach, beforeEach, expect, it } from 'vitest';
import { changePosts } from '../calendar/changePosts';
import { makeWorld, valueOf, type TestWorld } from '../testWorld';
import { loadSetAside } from './setAside';

let world: TestWorld;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

async function setAside(date: string | null, reason: string) {
  const { id, version } = await world.makePost('pithline', { date, time: date && '14:30' });
  valueOf(await changePosts(world.work, world.brandId, [{ id, version }], { kind: 'setAside', reason }));
  return id;
}
const shown = async (reason: string | null = null) =>
  (await loadSetAside(world.db, world.brandId, reason)).months.map(({ month, posts }) => [month, posts.length]);

it('what was set aside is looked through by its months and its reasons', async () => {
  await setAside('2026-11-26', 'Clouds');
  await setAside('2026-11-30', 'Clouds');
  await setAside('2026-12-02', 'The talk was called off');
  const gone = await setAside('2027-01-02', 'Clouds');
  await world.makePost('pithline', { date: '2026-11-27', time: '10:00' });
  await world.db.run('update posts set deleted_at = now() where id = $1', [gone]);
  expect(await shown()).toEqual([
    ['2026-12-01', 1],
    ['2026-11-01', 2],
  ]);
  expect(await shown('Clouds')).toEqual([['2026-11-01', 2]]);
  expect(await shown('Rain')).toEqual([]);
  const { reasons, isCut } = await loadSetAside(world.db, world.brandId, null);
  expect(reasons).toEqual([
    { reason: 'Clouds', count: 2 },
    { reason: 'The talk was called off', count: 1 },
  ]);
  expect(isCut).toBe(false);
  expect(await loadSetAside(world.db, world.otherBrandId, null)).toMatchObject({ reasons: [], months: [] });
});
