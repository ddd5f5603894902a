import { afterAll, beforeAll, expect, it } from 'vitest';
import { nameOfLeftOut } from '@/core/reading/leftOut';
import { readSource } from '@/core/reading/readSource';
import { listExtracts, maybeSource } from '@/data/extracts/extracts';
import { maybePiece } from '@/data/pieces/pieces';
import { catchIdea } from '../pieces/pieces';
import { makeWorld, type TestWorld } from '../testWorld';
import { redoChange, undoChange } from '../undo/undoChange';
import { bringSource } from './bringSource';
import { keepExtract } from './extracts';
import { loadText } from './reading';
import { readOtherwise, type OtherReading } from './readOtherwise';

let world: TestWorld;
beforeAll(async () => void (world = await makeWorld()));
afterAll(() => world.close());

const valueOf = <T>(result: { ok: true; value: T } | { ok: false; refusal: { message: string } }): T => {
  if (!result.ok) throw new Error(result.refusal.message);
  return result.value;
};

/** A piece with a text that was brought in, and what was accepted of it. */
async function pieceOf(text: string, name: string, accepted: string) {
  const { db, work, brandId } = world;
  const { id, version } = valueOf(await catchIdea(work, { brandId, title: 'Rope' }));
  valueOf(await bringSource(work, id, version, valueOf(readSource(text, name))));
  const start = (await loadText(db, id)).text.indexOf(accepted);
  const verdict = { kind: 'point' as const, state: 'accepted' as const, reason: '' };
  valueOf(await keepExtract(work, id, { ...verdict, start, end: start + accepted.length }));
  const now = async () => {
    const reading = await loadText(db, id);
    return { ...reading, kept: reading.kept.map((one) => one.text) };
  };
  const otherwise = async (change: OtherReading) =>
    valueOf(await readOtherwise(work, id, (await maybePiece(db, id))!.version, change));
  return { id, now, otherwise };
}

const HEARD = 'Nobody hears it go, and everybody hears it land on the deck.';

it('reads a text as plain text or Markdown, what was accepted stays with its words, and it can be undone', async () => {
  const { id, now, otherwise } = await pieceOf(`# Rope\n\nIt is **old**.\n\n${HEARD}`, 'a.md', HEARD);
  expect(await now()).toMatchObject({ as: 'markdown', kept: [HEARD] });
  await otherwise({ as: 'plain' });
  expect(await now()).toMatchObject({ as: 'plain', kept: [HEARD], text: `# Rope\n\nIt is **old**.\n\n${HEARD}` });
  valueOf(await undoChange(world.work, world.brandId, null));
  expect(await now()).toMatchObject({ as: 'markdown', kept: [HEARD] });
  expect(await listExtracts(world.db, id)).toHaveLength(1);
});

it('takes in what was left out, and leaves it out again', async () => {
  const { now, otherwise } = await pieceOf(`It was[1] late.\n\n${HEARD}\n\nPhoto: Inês Lund`, 'a.txt', HEARD);
  const [mark] = (await now()).leftOut;
  await otherwise({ takeIn: nameOfLeftOut(mark!) });
  expect(await now()).toMatchObject({ kept: [HEARD], takenIn: [mark], leftOut: [{ reason: 'credit' }] });
  expect((await now()).text).toContain('It was[1] late.');
  await otherwise({ leaveOut: nameOfLeftOut(mark!) });
  expect((await now()).leftOut).toHaveLength(2);
});

it('puts what stood around the article of a page to the end of its text', async () => {
  const page = `<html><body><nav><a href="/">The quay</a></nav><article><p>${HEARD}</p></article></body></html>`;
  const { id, now, otherwise } = await pieceOf(page, 'a.html', HEARD);
  const { leftOut } = await now();
  expect(leftOut).toEqual([{ reason: 'navigation', text: 'The quay' }]);
  await otherwise({ takeIn: nameOfLeftOut(leftOut[0]!) });
  expect(await now()).toMatchObject({ kept: [HEARD], leftOut: [], text: `${HEARD}\n\nThe quay` });
  expect((await maybeSource(world.db, id))!.how.leftOut).toEqual([]);
});

it('keeps the short name of an extract for good, and gives none twice', async () => {
  const { db, work } = world;
  const text = 'The bell rings at noon. The ferry waits for it. The fog goes home. The quay is empty then.';
  const { id, now } = await pieceOf(text, 'a.txt', 'The bell rings at noon.');
  const verdict = { kind: 'point' as const, state: 'accepted' as const, reason: '' };
  const accept = async (words: string, sign?: string) => {
    const start = text.indexOf(words);
    const kept = valueOf(await keepExtract(work, id, { ...verdict, start, end: start + words.length, sign }));
    return kept.sign;
  };
  expect(await accept('The fog goes home.', 'P4')).toBe('P4');
  expect(await accept('The ferry waits for it.', 'P4')).toBe('P5');
  expect(await accept('The quay is empty then.', 'Q9')).toBe('P6');
  expect((await listExtracts(db, id)).map(({ sign }) => sign)).toEqual(['P1', 'P5', 'P4', 'P6']);
  valueOf(await undoChange(work, world.brandId, null));
  expect((await now()).kept).toHaveLength(3);
  valueOf(await redoChange(work, world.brandId));
  expect((await listExtracts(db, id)).map(({ sign }) => sign)).toEqual(['P1', 'P5', 'P4', 'P6']);
});
