import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { NO_FILTER } from '@/core/calendar/filter';
import { readCsv } from '@/core/exchange/csvText';
import { FORMATS } from '@/core/rulesheets/types';
import { ofEachText, WRITTEN_FIELDS } from '@/core/posts/texts';
import { MEASURES, NOTHING_TOLD } from '@/core/results/engagement';
import { ALL_STAGES } from '@/core/stages/stages';
import { cleanText } from '@/core/text/clean';
import { oneBrand } from '@/data/brands/brands';
import { listChannels } from '@/data/brands/channels';
import { insertPieces, listPieceTitles } from '@/data/pieces/pieces';
import { insertPosts, listPostsById } from '@/data/posts/posts';
import { insertReadings, latestReadings } from '@/data/results/readings';
import { makeWorld, START, valueOf, type TestWorld } from '../testWorld';
import { postsAsCsv } from './exportPosts';
import { bringIn } from './importPosts';
import type { ImportOutcome } from './importRows';
import { previewImport } from './previewImport';

const NETWORKS = ['pithline', 'glassrow', 'corkwall', 'homestoop'] as const;

/** A text as people and programs write them: signs that tables and sheets take for theirs, breaks, letters of all kinds. */
const anyText = fc
  .oneof(
    fc.string({ unit: 'grapheme', maxLength: 40 }),
    fc.constantFrom(
      '',
      '=SUM(A1)',
      "'quoted",
      '"a", "b"; c',
      'one\ntwo\n\nthree',
      '  kept  ',
      '@x #y',
      '-1',
      '[a',
      '03/04',
    ),
  )
  .map((text) => cleanText(text).replace(/\r/g, ''));

const anyPost = fc.record({
  texts: fc.record(Object.fromEntries(WRITTEN_FIELDS.map((name) => [name, anyText]))),
  parts: fc.array(anyText, { maxLength: 4 }),
  title: fc.constantFrom('Rings', 'Moon, half', '=1+1', 'Dôme “à huit”'),
  piece: fc.constantFrom('Talk one', 'Talk two'),
  network: fc.constantFrom(...NETWORKS),
  stage: fc.constantFrom('drafting', 'production', 'published', 'setAside'),
  day: fc.integer({ min: 1, max: 20 }),
  time: fc.constantFrom(null, '09:05', '23:59'),
  host: fc.constantFrom('https://p.example', '/standins/pithline'),
  reason: fc.constantFrom('Rain', 'Too late; "sorry"'),
  numbers: fc.dictionary(fc.constantFrom(...MEASURES), fc.nat(2_000_000), { maxKeys: 4 }),
});
type AnyPost = typeof anyPost extends fc.Arbitrary<infer P> ? P : never;

/** Puts posts as they are into a world, each under a title of its own within its piece and channel. */
async function put(world: TestWorld, posts: readonly AnyPost[]): Promise<void> {
  const pieces = new Map(['Talk one', 'Talk two'].map((title) => [title, randomUUID() as string]));
  const shared = { brandId: world.brandId, ownerId: world.work.actorId, createdAt: START };
  await insertPieces(
    world.db,
    [...pieces].map(([title, id]) => ({ ...shared, id, title, note: '', link: '', sourceText: '' })),
  );
  const channels = await listChannels(world.db, world.brandId);
  const rows = posts.map((post) => {
    const { sheet } = channels.find(({ id }) => id === world.channels[post.network])!;
    const isOut = post.stage === 'published';
    const date = isOut || post.day > 5 ? `2026-11-${String(post.day).padStart(2, '0')}` : null;
    return {
      ...shared,
      ...ofEachText((_text, name) => post.texts[name]!),
      id: randomUUID() as string,
      pieceId: pieces.get(post.piece)!,
      channelId: world.channels[post.network],
      format: FORMATS.find((format) => sheet.formats.some((rule) => rule.format === format))!,
      title: post.title,
      parts: post.parts.map((text) => ({ id: randomUUID(), text, pictureId: null })),
      date: post.stage === 'drafting' || post.stage === 'production' ? date && date.replace('-11-', '-12-') : date,
      time: date && post.time,
      stage: post.stage,
      setAsideReason: post.stage === 'setAside' ? post.reason : '',
      publishedAt: isOut ? START : null,
      address: isOut ? `${post.host}/${randomUUID()}` : '',
    } as const;
  });
  await insertPosts(world.db, rows);
  await insertReadings(
    world.db,
    posts.flatMap(({ numbers, stage }, at) =>
      stage === 'published' && Object.keys(numbers).length > 0
        ? [{ ...NOTHING_TOLD, ...numbers, postId: rows[at]!.id, at: START }]
        : [],
    ),
  );
}

const csvOf = async ({ db, brandId }: TestWorld): Promise<string> => {
  let csv = '';
  for await (const part of postsAsCsv(
    db,
    await oneBrand(db, brandId),
    { ...NO_FILTER, stages: [...ALL_STAGES] },
    START,
  ))
    csv += part;
  return csv;
};

async function bring({ db, work, brandId }: TestWorld, csv: string): Promise<ImportOutcome> {
  const table = valueOf(readCsv(csv));
  const { mapping } = await previewImport(db, brandId, START, table, 'all.csv', null);
  return valueOf(await bringIn(work, { brandId, table, fileName: 'all.csv', mapping, extent: 'whole' }));
}

/** All that a file tells of the posts of a world, without what each world has of its own. */
async function told({ db, brandId, channels }: TestWorld): Promise<string[]> {
  const ids = await db.rows<{ id: string }>('select id from posts where brand_id = $1', [brandId]);
  const posts = await listPostsById(
    db,
    ids.map(({ id }) => id),
  );
  const pieces = await listPieceTitles(
    db,
    posts.map(({ pieceId }) => pieceId),
  );
  const numbers = await latestReadings(
    db,
    posts.map(({ id }) => id),
  );
  const network = new Map(Object.entries(channels).map(([name, id]) => [id, name]));
  return posts
    .map((post) =>
      JSON.stringify({
        ...ofEachText((_text, name) => post[name]),
        parts: post.parts.map(({ text }) => text),
        place: [network.get(post.channelId), pieces[post.pieceId], post.title, post.format, post.date, post.time],
        outcome: [post.stage, post.setAsideReason, post.address],
        numbers: MEASURES.map((measure) => numbers.get(post.id)?.[measure] ?? null),
      }),
    )
    .sort();
}

it('any posts leave as CSV and come in again the same, into the same folder and into an empty one', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(anyPost, { minLength: 1, maxLength: 6 }), async (posts) => {
      const [world, empty] = [await makeWorld(), await makeWorld()];
      try {
        await put(world, posts);
        const before = await told(world);
        const csv = await csvOf(world);
        expect(await bring(world, csv)).toMatchObject({ made: 0, changed: 0, same: posts.length, bad: [] });
        expect(await told(world)).toEqual(before);
        expect(await bring(empty, csv)).toMatchObject({ made: posts.length, bad: [] });
        expect(await told(empty)).toEqual(before);
        expect(await bring(empty, csv)).toMatchObject({ made: 0, changed: 0, same: posts.length, bad: [] });
      } finally {
        await world.close();
        await empty.close();
      }
    }),
    { numRuns: 12 },
  );
}, 120_000);
