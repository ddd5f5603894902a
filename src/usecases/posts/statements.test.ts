import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { readCsv } from '@/core/exchange/csvText';
import type { Db, Queryable } from '@/data/database/db';
import { bringIn } from '../exchange/importPosts';
import { previewImport } from '../exchange/previewImport';
import { changePosts } from '../calendar/changePosts';
import { undoChange } from '../undo/undoChange';
import { schedulePost } from '../delivery/schedule';
import { makeWorld, valueOf, type TestWorld } from '../testWorld';
import type { Work } from '../useCase';
import { loadSiblings } from '../captions/siblings';
import { catchIdea } from '../pieces/pieces';
import { planPiece } from './planPosts';
import { editPost } from '../captions/editPost';

let world: TestWorld;
beforeEach(async () => void (world = await makeWorld()));
afterEach(() => world.close());

/** Work whose statements are written down. */
function counted(): { work: Work; statements: string[] } {
  const statements: string[] = [];
  const tell = (inner: Queryable): Queryable => ({
    rows: (sql, parameters) => {
      statements.push(sql);
      return inner.rows(sql, parameters);
    },
    run: (sql, parameters) => {
      statements.push(sql);
      return inner.run(sql, parameters);
    },
  });
  const db: Db = {
    ...world.db,
    ...tell(world.db),
    transaction: (act) => world.db.transaction((tx) => act(tell(tx))),
  };
  return { work: { ...world.work, db }, statements };
}

const posts = async (count: number) => {
  const first = await world.makePost('pithline', { date: '2026-12-01', time: '10:00' });
  const copies: { id: string; version: number }[] = [{ id: first.id, version: first.version }];
  for (let n = 1; n < count; n++) {
    const { id, version } = await world.makePost('pithline', { date: '2026-12-01', time: '10:00' });
    copies.push({ id, version });
  }
  return copies;
};

describe('the statements of a write', () => {
  it('saving a caption takes six', async () => {
    const { id, version } = await world.makePost('pithline', { date: null, time: null });
    const { work, statements } = counted();
    valueOf(await editPost(work, id, version, { caption: 'Other words' }));
    expect(statements.length).toBeLessThanOrEqual(6);
  });

  it('locks the post first, then its deliveries', async () => {
    const { id, version } = await world.makePost('pithline');
    const { work, statements } = counted();
    valueOf(await schedulePost(work, id, version));
    const locks = statements.filter((sql) => / for update|update deliveries|update posts/.test(sql));
    expect(locks[0]).toMatch(/from posts p where .* for update/s);
    expect(locks.findIndex((sql) => /deliveries/.test(sql))).toBeGreaterThan(0);
  });

  it.each([
    ['shift', { kind: 'shift', days: 1 }],
    ['schedule', { kind: 'stage', stage: 'scheduled' }],
    ['copy', { kind: 'copy', days: 7, channelIds: null }],
    ['set aside', { kind: 'setAside', reason: 'Rain' }],
  ] as const)('of many posts are as many as of two: %s, and its undoing', async (_name, change) => {
    const figures: number[][] = [];
    for (const count of [2, 12]) {
      const targets = await posts(count);
      const { work, statements } = counted();
      valueOf(await changePosts(work, world.brandId, targets, change));
      const done = statements.length;
      valueOf(await undoChange(work, world.brandId, null));
      figures.push([done, statements.length - done]);
    }
    expect(figures[1]).toEqual(figures[0]);
    expect(figures[0]![0]).toBeLessThan(30);
  });

  it('an import of many rows takes as many as one of two, new or changed', async () => {
    const figures: number[][] = [];
    for (const count of [2, 40]) {
      const file = (words: string) =>
        readCsv(
          [
            'title,channel,date,caption',
            ...Array.from({ length: count }, (_, n) => `Row ${count}-${n},PL,2026-12-0${1 + (n % 9)},${words} ${n}`),
          ].join('\n'),
        );
      const { work, statements } = counted();
      for (const words of ['Open', 'Shut']) {
        const table = file(words);
        if (!table.ok) throw new Error(table.refusal.message);
        const now = world.work.clock.now();
        const { mapping } = valueOf(
          await previewImport(world.db, world.brandId, now, table.value, `plan${count}.csv`, null),
        );
        const outcome = valueOf(
          await bringIn(work, {
            brandId: world.brandId,
            table: table.value,
            fileName: `plan${count}.csv`,
            mapping,
            extent: 'whole',
          }),
        );
        expect(outcome.made + outcome.changed).toBe(count);
      }
      figures.push([statements.length]);
    }
    expect(figures[1]).toEqual(figures[0]);
  });

  it('writing the posts of a piece side by side takes as many, however many they are', async () => {
    const idea = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Rings' }));
    const asked = async (channels: string[]) => {
      valueOf(await planPiece(world.work, idea.id, channels, { date: '2026-12-01', time: '10:00' }));
      const { work, statements } = counted();
      const sheets = await loadSiblings(work.db, idea.id);
      return [sheets.length, statements.length] as const;
    };
    const { pithline, glassrow, corkwall, homestoop } = world.channels;
    const [one, statements] = await asked([pithline]);
    expect(one).toBe(1);
    expect(await asked([glassrow, corkwall, homestoop])).toEqual([4, statements]);
  });
});
