/** How long coverage, a fan-out of 60 posts and cards take, each against a floor of the same run: `npm run bench:repurpose -- --speed`. */
import { saidBy } from '@/core/drafts/draft';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createCanvas } from '@napi-rs/canvas';
import { cardColours, CARD_LAYOUTS, type Card } from '@/core/cards/card';
import { COVERAGE_ORDERS } from '@/core/coverage/coverage';
import { readSource } from '@/core/reading/readSource';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { insertBrand } from '@/data/brands/brands';
import { insertChannel, insertRuleSheets } from '@/data/brands/channels';
import { drawCard } from '@/data/cards/drawCard';
import { insertChange } from '@/data/undo/changes';
import { openDb, type Db } from '@/data/database/db';
import { migrate, pendingMigrations, readMigrations } from '@/data/database/migrate';
import { gatherStatistics } from '@/data/database/statistics';
import { insertPostExtracts } from '@/data/fanOut/postExtracts';
import { insertExtracts } from '@/data/extracts/extracts';
import { insertPerson } from '@/data/people/people';
import { insertPieces, maybePiece } from '@/data/pieces/pieces';
import { closePool } from '@/data/pool/pool';
import { writeHistory } from '@/data/posts/history';
import { insertPosts, listPostsById } from '@/data/posts/posts';
import { insertSteps } from '@/data/prep/steps';
import { loadCoverage } from '@/usecases/coverage/loadCoverage';
import { bringSource } from '@/usecases/extracts/bringSource';
import { setFanOut } from '@/usecases/fanOut/fanOuts';
import { makeFanOut } from '@/usecases/fanOut/makeFanOut';
import { planFanOut } from '@/usecases/fanOut/planFanOut';
import type { Work } from '@/usecases/useCase';
import { percentile, timed } from './figures';

const NOW = '2026-11-23T09:00:00.000Z';
const TURNS = 9;

async function median(run: () => unknown): Promise<number> {
  const times: number[] = [];
  for (let turn = 0; turn < TURNS; turn++) times.push(await timed(run));
  return percentile(times, 50);
}

/** A brand with twelve channels, and so many pieces of five posts each. */
async function world(pieces: number) {
  const db = await openDb('memory');
  await migrate(db, await pendingMigrations(db, await readMigrations()));
  const [brandId, personId] = [randomUUID() as string, randomUUID() as string];
  await insertRuleSheets(
    db,
    SHIPPED_RULE_SHEETS.map((sheet) => ({ id: randomUUID(), sheet })),
  );
  await insertBrand(db, { id: brandId, slug: 'b', name: 'B', zone: 'Europe/Lisbon', weekStart: 1, position: 0 });
  await insertPerson(db, { id: personId, slug: 'p', name: 'P', role: 'manager', position: 0 }, [brandId]);
  const channels = Array.from({ length: 12 }, (_one, at) => ({
    id: randomUUID() as string,
    sheet: SHIPPED_RULE_SHEETS[at % SHIPPED_RULE_SHEETS.length]!,
    callSign: `C${String.fromCharCode(65 + at)}`,
  }));
  for (const [position, { id, sheet, callSign }] of channels.entries())
    await insertChannel(db, {
      ...{
        id,
        brandId,
        callSign,
        position,
        name: callSign,
        color: '#123456',
        account: '@b',
        ruleSheetSlug: sheet.slug,
      },
    });
  const made = Array.from({ length: pieces }, (_one, at) => ({
    ...{
      id: randomUUID() as string,
      brandId,
      ownerId: personId,
      title: `Piece ${at}`,
      note: '',
      link: '',
      sourceText: '',
    },
    createdAt: new Date(Date.parse(NOW) - at * 3_600_000).toISOString(),
  }));
  await insertPieces(db, made);
  const posts = made.flatMap((piece, at) =>
    Array.from({ length: 5 }, (_one, n) => ({
      ...{ id: randomUUID() as string, brandId, pieceId: piece.id, channelId: channels[(at + n) % 12]!.id },
      ...{ format: 'text' as const, title: piece.title, headline: '', caption: 'Words.', hashtags: '', link: '' },
      ...{ date: '2026-10-01', time: '10:00', ownerId: personId, address: '', createdAt: NOW },
      ...(n < 3
        ? { stage: 'published' as const, publishedAt: '2026-10-01T09:00:00.000Z' }
        : { stage: 'drafting' as const, publishedAt: null }),
    })),
  );
  for (let from = 0; from < posts.length; from += 2_000) await insertPosts(db, posts.slice(from, from + 2_000));
  await gatherStatistics(db);
  const work: Work = { db, clock: { now: () => NOW }, ids: randomUUID, actorId: personId, seen: 0 };
  return { db, brandId, work, channels };
}

async function coverage() {
  const [small, large] = [await world(100), await world(2_000)];
  const rows = [];
  for (const order of COVERAGE_ORDERS) {
    const page = ({ db, brandId }: { db: Db; brandId: string }) =>
      median(() => loadCoverage(db, brandId, { order, by: 'channels', after: null }));
    const [few, many] = [await page(small), await page(large)];
    rows.push({
      coverage: order,
      'ms of 100': few.toFixed(1),
      'ms of 2,000': many.toFixed(1),
      times: (many / few).toFixed(2),
      limit: 2,
    });
  }
  console.table(rows);
  await small.db.close();
  await large.db.close();
}

async function fanOut() {
  const { db, brandId, work } = await world(1);
  const read = readSource(readFileSync('demo/fennel-moor/transcripts/rings-that-vanish.vtt', 'utf8'), 'talk.vtt');
  if (!read.ok) throw new Error(read.refusal.message);
  const rows = (['microblog', 'professionalFeed', 'photoFeed', 'pictureBoard', 'personalProfile'] as const).map(
    (network) => ({
      ...{ network, count: 12, offset: 1, gap: 1, source: { of: 'extracts' as const, kinds: [] } },
      format:
        network === 'photoFeed'
          ? ('photo' as const)
          : network === 'pictureBoard'
            ? ('boardPicture' as const)
            : ('text' as const),
    }),
  );
  const set = await setFanOut(work, brandId, null, { name: 'Sixty', for: null, isStanding: false, rows });
  if (!set.ok) throw new Error(set.refusal.message);
  const ask = { fanOut: set.value.slug, only: null, anchor: null, chosen: {}, on: null, under: null, seed: 1 };
  const [planning, making, floor]: number[][] = [[], [], []];
  let count = 0;
  for (let turn = 0; turn < 7; turn++) {
    const id = randomUUID();
    await insertPieces(db, [
      { id, brandId, ownerId: work.actorId, title: 'Rings', note: '', link: '', sourceText: '', createdAt: NOW },
    ]);
    const brought = await bringSource(work, id, 1, read.value);
    if (!brought.ok) throw new Error(brought.refusal.message);
    const piece = (await maybePiece(db, id))!;
    let began = performance.now();
    const plan = await planFanOut(db, piece, ask, NOW);
    planning!.push(performance.now() - began);
    if (!plan.ok) throw new Error(plan.refusal.message);
    const chosen = plan.value.posts.map(({ key, date, time, drafts }) => ({
      ...{ key, draft: 0, shown: saidBy(drafts[0]), date, time, isMoved: false },
    }));
    began = performance.now();
    const made = await makeFanOut(work, id, ask, chosen);
    making!.push(performance.now() - began);
    if (!made.ok) throw new Error(made.refusal.message);
    count = made.value.postIds.length;
    floor!.push(await sameRowsBare(db, brandId, made.value.postIds, id, work.actorId));
    await db.run('update posts set deleted_at = now() where piece_id = $1', [id]);
  }
  const [plan, make, bare] = [planning, making, floor].map((list) => percentile(list!, 50)) as [number, number, number];
  console.table([
    { 'fan-out': `${count} posts: preview (drafts and dates)`, ms: plan.toFixed(0) },
    { 'fan-out': 'made, with the preview worked out again in it', ms: make.toFixed(0) },
    {
      'fan-out': 'made, without that',
      ms: (make - plan).toFixed(0),
      times: ((make - plan) / bare).toFixed(2),
      limit: 8,
    },
    { 'fan-out': 'the same rows, one statement a table', ms: bare.toFixed(0) },
  ]);
  await db.close();
}

/** Writes the rows that a fan-out wrote once more, one statement a table, in one transaction. @returns milliseconds */
async function sameRowsBare(db: Db, brandId: string, ids: readonly string[], pieceId: string, actorId: string) {
  const posts = await listPostsById(db, ids);
  const steps = await db.rows<Parameters<typeof insertSteps>[1][number]>(
    `select title, work, owner_id as "ownerId", craft, lead, lead_in as "leadIn", minutes, note, needed, position, pinned, day,
       planned_on as "plannedOn", done_at as "doneAt", done_on as "doneOn", done_by as "doneBy", brand_id as "brandId", post_id as "postId"
     from steps where post_id = any($1::uuid[])`,
    [ids],
  );
  const extracts = await db.rows<Parameters<typeof insertExtracts>[1][number]>(
    `select e.id, e.brand_id as "brandId", e.piece_id as "pieceId", e.kind, e.state, e.start_offset as start, e.end_offset as "end", e.reason,
       e.created_at as "createdAt", e.created_by as "createdBy" from extracts e where e.piece_id = $1`,
    [pieceId],
  );
  const fresh = new Map(ids.map((id) => [id, randomUUID() as string]));
  const freshExtracts = new Map(extracts.map(({ id }) => [id, randomUUID() as string]));
  const links = await db.rows<{ postId: string; extractId: string }>(
    'select post_id as "postId", extract_id as "extractId" from post_extracts where post_id = any($1::uuid[])',
    [ids],
  );
  const copies = posts.map((post) => ({ ...post, id: fresh.get(post.id)! }));
  const began = performance.now();
  await db.transaction(async (tx) => {
    await insertPosts(tx, copies);
    await insertSteps(
      tx,
      steps.map((step) => ({ ...step, id: randomUUID(), pieceId: null, postId: fresh.get(step.postId!)! })),
    );
    await insertExtracts(
      tx,
      extracts.map((one) => ({ ...one, id: freshExtracts.get(one.id)! })),
    );
    await insertPostExtracts(
      tx,
      links.map(({ postId, extractId }) => ({ postId: fresh.get(postId)!, extractId: freshExtracts.get(extractId)! })),
    );
    await writeHistory(
      tx,
      copies.map(({ id }) => ({
        brandId,
        subject: 'post' as const,
        subjectId: id,
        deed: 'drafted',
        detail: {},
        at: NOW,
        actorId,
      })),
    );
    await insertChange(tx, {
      ...{ id: randomUUID(), label: 'x', brandId, actorId, at: NOW },
      items: copies.map(({ id }) => ({ subject: 'post', id, before: null, after: null, base: null, version: 1 })),
      final: null,
    });
  });
  const took = performance.now() - began;
  await db.run('update posts set deleted_at = now() where id = any($1::uuid[])', [[...fresh.values()]]);
  return took;
}

async function cards() {
  const sizes = [640, 800, 1_000, 1_080, 1_200, 1_280, 1_350, 1_500, 1_800, 2_000].map((width, at) => ({
    width,
    height: Math.round(width * (at % 2 ? 0.8 : 1.4)),
  }));
  const text =
    'Rope does not wear out from the outside, where you look; it wears out from the inside, where you do not.';
  const card = (at: number): Card => ({
    ...{ layout: CARD_LAYOUTS[at % 3]!, kind: 'point', text, by: 'Tidewrack', ...cardColours([])[0]!, ...sizes[at]! },
    ...{ picture: null, follows: null },
  });
  drawCard(card(0), null);
  const own = await median(() => sizes.forEach((_size, at) => drawCard(card(at), null)));
  // What the package itself takes: a ground, seven lines of text, the PNG.
  const bare = await median(() =>
    sizes.forEach(({ width, height }) => {
      const canvas = createCanvas(width, height);
      const context = canvas.getContext('2d');
      context.fillStyle = '#134E5E';
      context.fillRect(0, 0, width, height);
      context.fillStyle = '#FFFFFF';
      context.font = `650 ${width * 0.08}px "Bimlo words 0"`;
      for (let line = 0; line < 7; line++)
        context.fillText(text.slice(line * 14, line * 14 + 14), 40, 90 + line * width * 0.1);
      canvas.toBuffer('image/png');
    }),
  );
  console.table([
    {
      cards: 'ten sizes',
      ms: own.toFixed(0),
      'package alone': bare.toFixed(0),
      times: (own / bare).toFixed(2),
      limit: 2,
    },
  ]);
}

/** All of them, one after the other. */
export async function measureSpeed(): Promise<void> {
  await coverage();
  await fanOut();
  await cards();
  await closePool();
}
