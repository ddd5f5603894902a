import { formatOn } from '@/core/calendar/drop';
import { guessColumns } from '@/core/exchange/columns';
import type { CsvTable } from '@/core/exchange/csvText';
import {
  planImport,
  startMapping,
  type ImportGround,
  type ImportMapping,
  type ImportPlan,
  type ImportRow,
} from '@/core/exchange/planImport';
import { TEXT_LIMITS } from '@/core/pieces/piece';
import { blocksOf } from '@/core/posts/readiness';
import type { Result } from '@/core/refusal';
import { mayEdit } from '@/core/stages/moves';
import type { Stage } from '@/core/stages/stages';
import { dueInstant, localOf } from '@/core/time/plan';
import { oneBrand, type Brand } from '@/data/brands';
import { listBroughtIn, maybeMapping, noteBroughtIn, rememberMapping } from '@/data/broughtIn';
import { listChannelsOf, type Channel } from '@/data/channels';
import type { Db } from '@/data/db';
import { listPeopleOfBrand } from '@/data/people';
import { insertPieces, listPieceTitles, listPiecesByTitle } from '@/data/pieces';
import { listPostsById, type Post, type PostChange } from '@/data/posts';
import { listCampaigns, listPillars } from '@/data/themes';
import { addPosts } from './adding';
import { moveToChannel, putAt } from './changes';
import { placeOpenPost } from './planning';
import { changePost, takePost, type OpenPost } from './posts';
import { attempt, doing, must, mustWorkFor, refused, type Doing, type Work } from './work';

/** A plan with what it would do. */
export interface ImportPreview extends ImportPlan {
  header: string[];
  /** The first rows as they stand in the file. */
  sample: string[][];
  /** Rows that become new posts, change one that is there, or are as they are. */
  fresh: number;
  changed: number;
  same: number;
}

/** What came of bringing a file in. */
export interface ImportOutcome {
  made: number;
  changed: number;
  same: number;
  /** Rows left out, by line. */
  bad: { line: number; reason: string }[];
  /** What else happened, by line. */
  notes: { line: number; message: string }[];
}

/** What may come: only the good rows, or the whole file or nothing. */
export type ImportExtent = 'whole' | 'good';

const SAMPLE_ROWS = 6;

/** The source a file is known by: its name without ending, and without the number that downloading twice adds. */
export const sourceOf = (fileName: string): string =>
  fileName
    .toLowerCase()
    .replace(/\.[a-z0-9]+$/, '')
    .replace(/\s*\(\d+\)$/, '')
    .trim()
    .slice(0, 200);

const headerKey = (header: readonly string[]): string => header.join('\u001f').toLowerCase().slice(0, 4_000);

/** Shows what a file would bring in, with a mapping that was guessed, used before, or is being tried. */
export async function previewImport(
  db: Db,
  brandId: string,
  now: string,
  table: CsvTable,
  fileName: string,
  tried: ImportMapping | null,
): Promise<ImportPreview> {
  const { brand, ground } = await groundOf(db, brandId, now);
  const guessed = guessColumns(
    table.header,
    table.rows.slice(0, 200).map(({ cells }) => cells),
    ground,
  );
  const mapping = tried ?? startMapping(table, guessed, await maybeMapping(db, brandId, headerKey(table.header)));
  const plan = planImport(table, mapping, ground);
  const present = await presentPosts(db, brand, sourceOf(fileName), plan.rows);
  const titles = await listPieceTitles(
    db,
    [...present.values()].map((post) => post.pieceId),
  );
  let fresh = 0;
  let changed = 0;
  for (const row of plan.rows) {
    const post = present.get(row.key);
    if (!post) fresh++;
    else if (differences(row, post, titles[post.pieceId] ?? '').length > 0) changed++;
  }
  return {
    ...plan,
    header: table.header,
    sample: table.rows.slice(0, SAMPLE_ROWS).map(({ cells }) => cells),
    fresh,
    changed,
    same: plan.rows.length - fresh - changed,
  };
}

/**
 * Brings a file of posts in: rows that are known change their post, the others become new posts of new pieces (rows of the
 * same piece share one). The same file again changes nothing. With `whole`, one bad row refuses all.
 */
export function bringIn(
  work: Work,
  brandId: string,
  table: CsvTable,
  fileName: string,
  mapping: ImportMapping,
  extent: ImportExtent,
): Promise<Result<ImportOutcome>> {
  return doing(work, async (act) => {
    await mustWorkFor(act, brandId);
    const { brand, ground, channels } = await groundOf(act.tx, brandId, act.now);
    const plan = planImport(table, mapping, ground);
    const source = sourceOf(fileName);
    const outcome: ImportOutcome = { made: 0, changed: 0, same: 0, bad: [...plan.bad], notes: [] };
    if (plan.pastRows > 0 && mapping.past === null)
      refused({
        code: 'askPast',
        field: 'past',
        message: `${plan.pastRows} rows lie in the past. Say whether they were published elsewhere or shall be set aside.`,
      });
    const present = await presentPosts(act.tx, brand, source, plan.rows);
    const titles = await listPieceTitles(
      act.tx,
      [...present.values()].map((post) => post.pieceId),
    );
    const fresh: ImportRow[] = [];
    for (const row of plan.rows) {
      const post = present.get(row.key);
      if (!post) fresh.push(row);
      else if (differences(row, post, titles[post.pieceId] ?? '').length === 0) outcome.same++;
      else await changeByRow(act, row, post, outcome);
    }
    const made = await makePosts(act, brand, channels, fresh, mapping, outcome);
    if (extent === 'whole' && outcome.bad.length > 0) {
      const first = outcome.bad[0]!;
      refused({
        code: 'badRows',
        message: `${outcome.bad.length} rows are wrong, so nothing was brought in. Line ${first.line}: ${first.reason}.`,
      });
    }
    await noteBroughtIn(act.tx, brandId, source, made);
    await rememberMapping(act.tx, brandId, headerKey(table.header), {
      columns: mapping.columns,
      channels: mapping.channels,
      stages: mapping.stages,
      dateOrder: mapping.dateOrder,
    });
    outcome.bad.sort((a, b) => a.line - b.line);
    return outcome;
  });
}

async function groundOf(db: Pick<Db, 'rows' | 'run'>, brandId: string, now: string) {
  const brand = await oneBrand(db, brandId);
  const channels = await listChannelsOf(db, [brandId], { archived: true });
  const ground: ImportGround = {
    channels,
    people: await listPeopleOfBrand(db, brandId),
    pillars: await listPillars(db, [brandId], { archived: true }),
    campaigns: await listCampaigns(db, [brandId], { archived: true }),
    zone: brand.zone,
    today: localOf(now, brand.zone).date,
  };
  return { brand, channels, ground };
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** The posts that rows stand for already: by their own id, or by what the same file brought in before. */
async function presentPosts(
  db: Pick<Db, 'rows' | 'run'>,
  brand: Brand,
  source: string,
  rows: readonly ImportRow[],
): Promise<Map<string, Post>> {
  const known = await listBroughtIn(db, brand.id, source);
  const idOf = (row: ImportRow) => (UUID.test(row.givenId) ? row.givenId : known.get(row.key));
  const ids = rows.flatMap((row) => idOf(row) ?? []);
  const posts = new Map((await listPostsById(db, ids)).map((post) => [post.id, post]));
  const present = new Map<string, Post>();
  for (const row of rows) {
    const post = posts.get(idOf(row) ?? '');
    if (post && post.brandId === brand.id && post.deletedAt === null) present.set(row.key, post);
  }
  return present;
}

const FIELDS = [
  'title',
  'channelId',
  'format',
  'date',
  'time',
  'stage',
  'headline',
  'caption',
  'hashtags',
  'link',
  'ownerId',
  'pillarId',
  'campaignId',
] as const;
type Field = (typeof FIELDS)[number];

/** The fields in which a row differs from its post. A file without the column says nothing about a field. */
function differences(row: ImportRow, post: Post, pieceTitle: string): (Field | 'piece')[] {
  const fields: (Field | 'piece')[] = FIELDS.filter(
    (field) => row[field] !== undefined && row[field] !== withPlainBreaks(post[field]),
  );
  if (row.pieceTitle !== pieceTitle && row.pieceTitle !== row.title) fields.push('piece');
  return fields;
}

const withPlainBreaks = (value: string | null): string | null => value?.replace(/\r\n?/g, '\n') ?? null;

async function changeByRow(act: Doing, row: ImportRow, post: Post, outcome: ImportOutcome): Promise<void> {
  const note = (message: string) => outcome.notes.push({ line: row.line, message });
  const result = await attempt(async () => {
    let open = await takePost(act, post.id);
    must(mayEdit(open.facts));
    const words = changeOfWords(row, open.post);
    if (row.channelId !== open.post.channelId) {
      const notes = await moveToChannel(act, open, {
        date: row.date === undefined ? open.post.date : row.date,
        ...(row.time === undefined ? {} : { time: row.time }),
        channelId: row.channelId,
        ...(row.format ? { format: row.format } : {}),
      });
      notes.forEach(note);
      open = await takePost(act, post.id);
    } else if (
      (row.date !== undefined && row.date !== open.post.date) ||
      (row.time !== undefined && row.time !== open.post.time)
    ) {
      await placeOpenPost(act, open, {
        date: row.date === undefined ? open.post.date : row.date,
        ...(row.time === undefined ? {} : { time: row.time }),
      });
      open = await takePost(act, post.id);
    }
    if (Object.keys(words).length > 0) {
      await changePost(act, open, words, 'brought in', { line: row.line });
      open = await takePost(act, post.id);
    }
    await followStage(act, row.stage, open, note);
  });
  if (result.ok) outcome.changed++;
  else outcome.bad.push({ line: row.line, reason: `“${row.title}”: ${result.refusal.message}` });
}

function changeOfWords(row: ImportRow, post: Post): PostChange {
  const change: PostChange = {};
  for (const field of [
    'title',
    'headline',
    'caption',
    'hashtags',
    'link',
    'format',
    'ownerId',
    'pillarId',
    'campaignId',
  ] as const)
    if (row[field] !== undefined && row[field] !== post[field]) Object.assign(change, { [field]: row[field] });
  return change;
}

async function followStage(
  act: Doing,
  stage: Stage | undefined,
  open: OpenPost,
  note: (message: string) => void,
): Promise<void> {
  if (stage === undefined || stage === open.post.stage) return;
  if (stage === 'published' || stage === 'setAside')
    return note(
      `“${open.post.title}” stays at its stage: ${stage === 'published' ? 'declare it out' : 'set it aside'} on its sheet.`,
    );
  const put = await attempt(() => putAt(act, open, stage));
  if (!put.ok) note(`“${open.post.title}” stays at its stage. ${put.refusal.message}`);
}

async function makePosts(
  act: Doing,
  brand: Brand,
  channels: readonly Channel[],
  rows: readonly ImportRow[],
  mapping: ImportMapping,
  outcome: ImportOutcome,
): Promise<{ key: string; postId: string }[]> {
  const today = localOf(act.now, brand.zone).date;
  const channelOf = new Map(channels.map((channel) => [channel.id, channel]));
  const good = rows.filter((row) => {
    const long = (['headline', 'caption', 'hashtags', 'link'] as const).find(
      (field) => (row[field]?.length ?? 0) > TEXT_LIMITS[field],
    );
    const { name, archived } = channelOf.get(row.channelId)!;
    if (archived) outcome.bad.push({ line: row.line, reason: `${name} is archived and takes no new posts` });
    if (long && !archived)
      outcome.bad.push({ line: row.line, reason: `its ${long} has more than ${TEXT_LIMITS[long]} characters` });
    return !long && !archived;
  });
  const pieces = await piecesFor(act, brand, good);
  const posts = good.map((row) => {
    const channel = channelOf.get(row.channelId)!;
    const format = formatOn(channel.sheet, row.format ?? null);
    const words = {
      headline: row.headline ?? '',
      caption: row.caption ?? '',
      hashtags: row.hashtags ?? '',
      link: row.link ?? '',
    };
    const date = row.date ?? null;
    const time = date === null ? null : (row.time ?? null);
    const isPast = date !== null && date < today;
    const stage = stageOfRow(row, isPast, mapping);
    const isFit = blocksOf({ ...words, format, pictures: [] }, channel.sheet).length === 0;
    const lowered = stage === 'ready' && !isFit;
    if (lowered)
      outcome.notes.push({ line: row.line, message: `“${row.title}” is not fit to be ready yet, so it is at making.` });
    if (row.stage === 'scheduled' && stage === 'ready')
      outcome.notes.push({
        line: row.line,
        message: `“${row.title}” is brought in unscheduled: schedule it on its sheet.`,
      });
    const due = date && time ? dueInstant(date, time, brand.zone) : null;
    const publishedAt =
      stage === 'published' ? (due?.ok ? due.value : new Date(`${date}T12:00:00Z`).toISOString()) : null;
    return {
      ...words,
      row,
      id: act.ids(),
      brandId: brand.id,
      pieceId: pieces.get(row.pieceTitle)!,
      channelId: row.channelId,
      format,
      title: row.title,
      date,
      time,
      stage: lowered ? ('making' as const) : stage,
      setAsideReason: stage === 'setAside' ? 'brought in with a date in the past' : '',
      ownerId: row.ownerId ?? act.actorId,
      publishedAt,
      address: '',
      pillarId: row.pillarId ?? null,
      campaignId: row.campaignId ?? null,
      createdAt: act.now,
    };
  });
  await addPosts(act, posts);
  for (const post of posts)
    await act.note({
      brandId: brand.id,
      subject: 'post',
      subjectId: post.id,
      deed: 'brought in',
      detail: { line: post.row.line },
    });
  outcome.made = posts.length;
  return posts.map(({ row, id }) => ({ key: row.key, postId: id }));
}

function stageOfRow(row: ImportRow, isPast: boolean, mapping: ImportMapping): Stage {
  if (row.stage === 'published' || row.stage === 'setAside') return row.stage;
  if (isPast) return mapping.past === 'publishedElsewhere' ? 'published' : 'setAside';
  return row.stage === 'scheduled' ? 'ready' : (row.stage ?? 'drafting');
}

/** The pieces the rows belong to: those of the same title that are there, and new ones. */
async function piecesFor(act: Doing, brand: Brand, rows: readonly ImportRow[]): Promise<Map<string, string>> {
  const titles = [...new Set(rows.map((row) => row.pieceTitle))];
  const known = await listPiecesByTitle(act.tx, brand.id, titles);
  const fresh = titles
    .filter((title) => !known.has(title))
    .map((title) => ({
      id: act.ids(),
      brandId: brand.id,
      title,
      note: '',
      link: '',
      sourceText: '',
      ownerId: act.actorId,
      createdAt: act.now,
    }));
  await insertPieces(act.tx, fresh);
  return new Map([...known, ...fresh.map(({ id, title }) => [title, id] as const)]);
}
