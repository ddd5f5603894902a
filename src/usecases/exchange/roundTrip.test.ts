import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { NO_FILTER } from '@/core/calendar/filter';
import { readCsv } from '@/core/exchange/csvText';
import { FORMATS } from '@/core/rulesheets/types';
import { ofEachText, WRITTEN_FIELDS } from '@/core/posts/texts';
import { MEASURES, NOTHING_TOLD } from '@/core/results/engagement';
import { ALL_STAGES } from '@/core/stages/stages';
import { groupBy } from '@/core/group';
import { AS_IT_IS } from '@/core/media/fit';
import { CRAFTS, WORKS } from '@/core/prep/step';
import type { Instant } from '@/core/time/plan';
import { insertExtracts } from '@/data/extracts/extracts';
import { insertPostExtracts, listExtractsOfPosts } from '@/data/fanOut/postExtracts';
import { insertLibraryFiles } from '@/data/media/library';
import { insertPictures, listPicturesOf, type Picture } from '@/data/media/media';
import { listPeopleOfBrand } from '@/data/people/people';
import { insertSteps, listStepsOf, type Step } from '@/data/prep/steps';
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

const DONE_AT = '2026-11-20T23:30:00.000Z';
const NETWORKS = ['pithline', 'glassrow', 'corkwall', 'homestoop'] as const;

/** Files of a library: two of one name, and one that says which is which. */
const FILES = ['dome.jpg', 'dome.jpg', 'Zähler 5.png'].map((fileName, index) => ({
  ...{
    sha256: String(index).repeat(64),
    mime: 'image/jpeg',
    width: 1080,
    height: 1080,
    durationMs: null,
    bytes: 90_000,
  },
  ...{ fileName, addedAt: START },
}));

/** What pieces say, and what of it posts are made from. */
const SOURCE =
  'The rings are younger than the dinosaurs. Nobody saw them form.\n\nThe rings are younger than the dinosaurs.';
const EXTRACTS = [
  [0, 41],
  [42, 63],
  [65, 106],
] as const;

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
  media: fc.array(
    fc.record({
      file: fc.integer({ min: 0, max: FILES.length - 1 }),
      alt: anyText,
      crop: fc.constantFrom(null, { x: 0.1, y: 0, width: 0.5, height: 1 }),
      isShown: fc.boolean(),
    }),
    { maxLength: 3 },
  ),
  steps: fc.array(
    fc.record({
      title: fc.constantFrom('Draw', 'Write; "well"', '=Cut', 'Draw'),
      work: fc.constantFrom(...WORKS),
      hasOwner: fc.boolean(),
      craft: fc.constantFrom(null, ...CRAFTS),
      lead: fc.integer({ min: -5, max: 20 }),
      leadIn: fc.constantFrom('working', 'calendar'),
      minutes: fc.constantFrom(null, 30),
      note: anyText,
      needed: fc.boolean(),
      ticksItself: fc.boolean(),
      pinned: fc.constantFrom(null, '2026-11-27'),
      isDone: fc.boolean(),
    }),
    { maxLength: 3 },
  ),
  extracts: fc.uniqueArray(fc.constantFrom(...EXTRACTS), { maxLength: 2 }),
  numbers: fc.dictionary(fc.constantFrom(...MEASURES), fc.nat(2_000_000), { maxKeys: 4 }),
});
type AnyPost = typeof anyPost extends fc.Arbitrary<infer P> ? P : never;

/** What has to be in a folder before its posts come: its library, and pieces with their texts. */
async function prepare({ db, brandId, work }: TestWorld): Promise<Map<string, string>> {
  const pieces = new Map(['Talk one', 'Talk two'].map((title) => [title, randomUUID() as string]));
  const shared = { brandId, ownerId: work.actorId, createdAt: START, note: '', link: '', sourceText: SOURCE };
  await insertPieces(
    db,
    [...pieces].map(([title, id]) => ({ ...shared, id, title })),
  );
  await insertLibraryFiles(
    db,
    FILES.map((file) => ({ ...file, brandId })),
  );
  return pieces;
}

/** Puts posts as they are into a world, each under a title of its own within its piece and channel. */
async function put(world: TestWorld, posts: readonly AnyPost[]): Promise<void> {
  const pieces = await prepare(world);
  const shared = { brandId: world.brandId, ownerId: world.work.actorId, createdAt: START };
  const channels = await listChannels(world.db, world.brandId);
  const rows = posts.map((post) => {
    const { sheet } = channels.find(({ id }) => id === world.channels[post.network])!;
    const isOut = post.stage === 'published';
    const date = isOut || post.day > 5 ? `2026-11-${String(post.day).padStart(2, '0')}` : null;
    const id = randomUUID() as string;
    const pictures = post.media.map(({ file, alt, crop }, index): Picture & { brandId: string; addedAt: Instant } => ({
      ...{ ...AS_IT_IS, ...FILES[file]!, id: randomUUID(), postId: id, position: index + 1 },
      ...{ alt: alt.trim(), crop, brandId: world.brandId },
    }));
    const shown = pictures.filter((_picture, index) => post.media[index]!.isShown);
    return {
      ...shared,
      ...ofEachText((_text, name) => post.texts[name]!),
      id,
      pictures,
      pieceId: pieces.get(post.piece)!,
      channelId: world.channels[post.network],
      format: FORMATS.find((format) => sheet.formats.some((rule) => rule.format === format))!,
      title: post.title,
      parts: post.parts.map((text, at) => ({ id: randomUUID(), text, pictureId: shown[at]?.id ?? null })),
      date: post.stage === 'drafting' || post.stage === 'production' ? date && date.replace('-11-', '-12-') : date,
      time: date && post.time,
      stage: post.stage,
      setAsideReason: post.stage === 'setAside' ? post.reason : '',
      publishedAt: isOut ? START : null,
      address: isOut ? `${post.host}/${randomUUID()}` : '',
    } as const;
  });
  await insertPosts(world.db, rows);
  await insertPictures(
    world.db,
    rows.flatMap(({ pictures }) => pictures),
  );
  await insertSteps(
    world.db,
    posts.flatMap(({ steps }, at) =>
      steps.map(({ hasOwner, isDone, ...line }, index): Omit<Step, 'version'> => {
        const done = isDone ? { doneAt: DONE_AT, doneOn: '2026-11-20', doneBy: world.work.actorId } : null;
        return {
          ...{
            ...line,
            id: randomUUID(),
            brandId: world.brandId,
            postId: rows[at]!.id,
            pieceId: null,
            position: index + 1,
          },
          ...{ ownerId: hasOwner ? world.work.actorId : null, day: null, plannedOn: null },
          ...(done ?? { doneAt: null, doneOn: null, doneBy: null }),
        };
      }),
    ),
  );
  await putExtracts(
    world,
    posts.map((post, at) => ({ postId: rows[at]!.id, pieceId: rows[at]!.pieceId, extracts: post.extracts })),
  );
  await insertReadings(
    world.db,
    posts.flatMap(({ numbers, stage }, at) =>
      stage === 'published' && Object.keys(numbers).length > 0
        ? [{ ...NOTHING_TOLD, ...numbers, postId: rows[at]!.id, at: START }]
        : [],
    ),
  );
}

/** Lets posts be made from extracts of their pieces, each of which a piece has once. */
async function putExtracts(
  { db, brandId, work }: TestWorld,
  posts: readonly { postId: string; pieceId: string; extracts: AnyPost['extracts'] }[],
): Promise<void> {
  const ids = new Map<string, string>();
  for (const { postId, pieceId, extracts } of posts)
    for (const [start, end] of extracts) {
      const key = `${pieceId} ${start}`;
      const id = ids.get(key) ?? randomUUID();
      const extract = { id, brandId, pieceId, kind: 'quote' as const, state: 'accepted' as const, start, end };
      if (!ids.has(key))
        await insertExtracts(db, [{ ...extract, reason: '', createdAt: START, createdBy: work.actorId }]);
      ids.set(key, id);
      await insertPostExtracts(db, [{ postId, extractId: id }]);
    }
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
  const { mapping } = valueOf(await previewImport(db, brandId, START, table, 'all.csv', null));
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
  const postIds = posts.map(({ id }) => id);
  const pictures = groupBy(await listPicturesOf(db, postIds), ({ postId }) => postId);
  const steps = groupBy(await listStepsOf(db, postIds), ({ postId }) => postId);
  const extracts = groupBy(await listExtractsOfPosts(db, postIds), ({ postId }) => postId);
  const people = await listPeopleOfBrand(db, brandId);
  const nameOf = (id: string | null) => people.find((person) => person.id === id)?.name ?? null;
  return posts
    .map((post) => {
      const own = pictures.get(post.id) ?? [];
      return JSON.stringify({
        ...ofEachText((_text, name) => post[name]),
        parts: post.parts.map(({ text, pictureId }) => [text, own.findIndex(({ id }) => id === pictureId)]),
        media: own.map(({ sha256, fileName, alt, crop }) => [
          sha256,
          fileName,
          alt,
          crop && Object.entries(crop).sort(),
        ]),
        steps: (steps.get(post.id) ?? []).map((step) => [
          ...[step.title, step.work, nameOf(step.ownerId), step.craft, step.lead, step.leadIn, step.minutes, step.note],
          ...[step.needed, step.ticksItself, step.pinned, step.doneAt, step.doneOn, nameOf(step.doneBy)],
        ]),
        extracts: (extracts.get(post.id) ?? []).map(({ kind, start, end }) => [kind, start, end]),
        place: [network.get(post.channelId), pieces[post.pieceId], post.title, post.format, post.date, post.time],
        outcome: [post.stage, post.setAsideReason, post.address],
        numbers: MEASURES.map((measure) => numbers.get(post.id)?.[measure] ?? null),
      });
    })
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
        await prepare(empty);
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
}, 300_000);
