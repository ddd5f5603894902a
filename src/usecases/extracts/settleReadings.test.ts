import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { insertExtracts, listExtracts, maybeSource } from '@/data/extracts/extracts';
import { textBeforeTellingApart } from '@/core/reading/readingText';
import { catchIdea, editPiece } from '../pieces/pieces';
import { makeWorld, START, type TestWorld } from '../testWorld';
import { readingOfPiece } from './keptReading';
import { settleReadings } from './settleReadings';

let world: TestWorld;
beforeAll(async () => void (world = await makeWorld()));
afterAll(() => world.close());

const SOURCE = `# Rope[1]

| Rope | Years |
| --- | --- |
| Bow | Only the bow line is older than the boat. |

A rope is only as old as the day[2] on which somebody looked.

## References

Nobody hears it go, and everybody hears it land.
`;

it('moves what was accepted before to where its words stand now, once', async () => {
  const { db, work, brandId } = world;
  const made = await catchIdea(work, { brandId, title: 'Rope' });
  if (!made.ok) throw new Error(made.refusal.message);
  const { id, version, createdBy } = { createdBy: work.actorId, ...made.value };
  const edited = await editPiece(work, id, version, { sourceText: SOURCE });
  expect(edited.ok).toBe(true);
  await db.run('update pieces set how_read = null where id = $1', [id]);
  const before = textBeforeTellingApart(SOURCE);
  const kept = (words: string) => {
    const start = before.indexOf(words);
    expect(start).toBeGreaterThanOrEqual(0);
    return {
      ...{ id: randomUUID() as string, brandId, pieceId: id, kind: 'point' as const, state: 'accepted' as const },
      ...{ start, end: start + words.length, reason: '', createdAt: START, createdBy },
    };
  };
  await insertExtracts(db, [
    kept('A rope is only as old as the day[2] on which somebody looked.'),
    kept('Bow · Only the bow line is older than the boat.'),
    kept('Nobody hears it go, and everybody hears it land.'),
  ]);
  await settleReadings(db);
  const source = (await maybeSource(db, id))!;
  expect(source.how).toEqual({ as: 'markdown', taken: [], leftOut: [] });
  const { text } = await readingOfPiece(db, id, source);
  const stretches = (await listExtracts(db, id)).map(({ start, end }) => text.slice(start, end));
  expect(stretches).toEqual(['A rope is only as old as the day on which somebody looked.']);
  await settleReadings(db);
  expect(await listExtracts(db, id)).toHaveLength(1);
});
