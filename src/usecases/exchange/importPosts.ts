import { counted } from '@/core/words';
import { outcomeWords } from '@/core/posts/outcome';
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
import { blocksOf } from '@/core/posts/readiness';
import { readWords } from '@/core/posts/readPost';
import type { Refusal, Result } from '@/core/refusal';
import { mayEdit, mayMoveTo, maySchedule } from '@/core/stages/moves';
import type { Stage } from '@/core/stages/stages';
import { dueInstant, localOf } from '@/core/time/plan';
import { oneBrand, type Brand } from '@/data/brands/brands';
import { listBroughtIn, maybeMapping, noteBroughtIn, rememberMapping } from '@/data/exchange/importedRows';
import { listChannelsOf, type Channel } from '@/data/brands/channels';
import type { Db } from '@/data/database/db';
import { listPeopleOfBrand } from '@/data/people/people';
import { insertPieces, listPieceTitles, listPiecesByTitle } from '@/data/pieces/pieces';
import { listPostsById, type Post, type PostChange } from '@/data/posts/posts';
import { listCampaigns, listPillars } from '@/data/brands/themes';
import { addPosts } from '../posts/addPosts';
import { movingToChannel, type Asked } from '../calendar/changePosts';
import { moving } from '../posts/planPosts';
import { factsOf, takePosts, type OpenPost } from '../posts/takePosts';
import { mustMay } from '../rights/mustMay';
import { attempt, doing, must, refused, type Doing, type Work } from '../useCase';
import { writeWhatMayBe, type PostWrite } from '../posts/writePosts';

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
    await mustMay(act, 'importAndExport', brandId);
    const { brand, ground, channels } = await groundOf(act.tx, brandId, act.now);
    const plan = planImport(table, mapping, ground);
    const source = sourceOf(fileName);
    const outcome: ImportOutcome = { made: 0, changed: 0, same: 0, bad: [...plan.bad], notes: [] };
    if (plan.pastRows > 0 && mapping.past === null)
      refused({
        code: 'askPast',
        field: 'past',
        message: `${counted(plan.pastRows, 'row lies', 'rows lie')} in the past. Say whether that was published elsewhere or will be set aside.`,
      });
    const present = await presentPosts(act.tx, brand, source, plan.rows);
    const titles = await listPieceTitles(
      act.tx,
      [...present.values()].map((post) => post.pieceId),
    );
    const fresh: ImportRow[] = [];
    const differing: { row: ImportRow; postId: string }[] = [];
    for (const row of plan.rows) {
      const post = present.get(row.key);
      if (!post) fresh.push(row);
      else if (differences(row, post, titles[post.pieceId] ?? '').length === 0) outcome.same++;
      else differing.push({ row, postId: post.id });
    }
    await changeByRows(act, channels, differing, outcome);
    const made = await makePosts(act, brand, channels, fresh, mapping, outcome);
    if (extent === 'whole' && outcome.bad.length > 0) {
      const first = outcome.bad[0]!;
      refused({
        code: 'badRows',
        message: `${counted(outcome.bad.length, 'row is', 'rows are')} wrong, so nothing was imported. Line ${first.line}: ${first.reason}.`,
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

/** Changes posts as their rows say, each checked for itself: a bounded number of statements, however many there are. */
async function changeByRows(
  act: Doing,
  channels: readonly Channel[],
  differing: readonly { row: ImportRow; postId: string }[],
  outcome: ImportOutcome,
): Promise<void> {
  const taken = await takePosts(
    act,
    differing.map(({ postId }) => postId),
  );
  const channelOf = new Map(channels.map((channel) => [channel.id, channel]));
  const bad = ({ line, title }: ImportRow, refusal: Refusal) =>
    outcome.bad.push({ line, reason: `“${title}”: ${refusal.message}` });
  const asked: (Asked & { row: ImportRow })[] = [];
  for (const { row, postId } of differing) {
    const result = await attempt(async () => ({
      row,
      ...changeByRow(act, row, must(taken.get(postId)!), channelOf.get(row.channelId)!),
    }));
    if (result.ok) asked.push(result.value);
    else bad(row, result.refusal);
  }
  const results = await writeWhatMayBe(
    act,
    asked.map(({ write }) => write),
  );
  for (const [index, { row, notes }] of asked.entries()) {
    const result = results[index]!;
    if (!result.ok) {
      bad(row, result.refusal);
      continue;
    }
    outcome.changed++;
    for (const message of [...outcomeWords(result.value).map((words) => `“${row.title}”: ${words}`), ...notes])
      outcome.notes.push({ line: row.line, message });
  }
}

/** What a row writes of its post: place, words and stage in one. */
function changeByRow(act: Doing, row: ImportRow, open: OpenPost, channel: Channel): Asked {
  must(mayEdit(open.facts));
  const { post } = open;
  const to = {
    date: row.date === undefined ? post.date : row.date,
    ...(row.time === undefined ? {} : { time: row.time }),
    ...(row.format ? { format: row.format } : {}),
  };
  const isMoved =
    (row.date !== undefined && row.date !== post.date) || (row.time !== undefined && row.time !== post.time);
  const placed: Asked =
    channel.id !== post.channelId
      ? movingToChannel(act, open, to, channel)
      : isMoved
        ? { write: moving(act, open, to), notes: [] }
        : { write: { open, change: {}, deed: 'imported' }, notes: [] };
  const change = { ...placed.write.change, ...changeOfWords(row, post) };
  const after = { ...post, ...change };
  const write = { ...placed.write, change, deed: 'imported', detail: { line: row.line } };
  const staged = followStage(act, row.stage, { ...open, channel, post: after }, write);
  return { write: staged.write, notes: [...placed.notes, ...staged.notes] };
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

/** Lets a write put its post at the stage a row names, where the post as it will be may stand there. */
function followStage(act: Doing, stage: Stage | undefined, after: OpenPost, write: PostWrite): Asked {
  const { title, stage: stands } = after.post;
  if (stage === undefined || stage === stands) return { write, notes: [] };
  if (stage === 'published' || stage === 'setAside')
    return {
      write,
      notes: [
        `“${title}” stays at its stage: ${stage === 'published' ? 'mark it as published' : 'set it aside'} on its sheet.`,
      ],
    };
  const facts = factsOf(after, act.now);
  if (stage === 'scheduled') {
    const due = maySchedule(facts);
    return due.ok
      ? { write: { ...write, change: { ...write.change, stage }, leavesAt: due.value }, notes: [] }
      : { write, notes: [`“${title}” stays at its stage. ${due.refusal.message}`] };
  }
  const to = mayMoveTo(facts, stage);
  if (!to.ok) return { write, notes: [`“${title}” stays at its stage. ${to.refusal.message}`] };
  const { retimedTo: _none, ...unscheduled } = write;
  return { write: { ...unscheduled, change: { ...write.change, stage } }, notes: [] };
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
    const { name, archived, sheet } = channelOf.get(row.channelId)!;
    const read = readWords(wordsOf(row), sheet);
    const reason = archived ? `${name} is archived and takes no new posts` : read.ok ? null : read.refusal.message;
    if (reason !== null) outcome.bad.push({ line: row.line, reason });
    return reason === null;
  });
  const pieces = await piecesFor(act, brand, good);
  const posts = good.map((row) => {
    const channel = channelOf.get(row.channelId)!;
    const format = formatOn(channel.sheet, row.format ?? null);
    const words = wordsOf(row);
    const date = row.date ?? null;
    const time = date === null ? null : (row.time ?? null);
    const isPast = date !== null && date < today;
    const stage = stageOfRow(row, isPast, mapping);
    const isFit = blocksOf({ ...words, format, pictures: [] }, channel.sheet).length === 0;
    const lowered = stage === 'ready' && !isFit;
    if (lowered)
      outcome.notes.push({
        line: row.line,
        message: `“${row.title}” cannot be ready yet, so it is in production.`,
      });
    if (row.stage === 'scheduled' && stage === 'ready')
      outcome.notes.push({
        line: row.line,
        message: `“${row.title}” is imported unscheduled: schedule it on its sheet.`,
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
      stage: lowered ? ('production' as const) : stage,
      setAsideReason: stage === 'setAside' ? 'imported with a date in the past' : '',
      ownerId: row.ownerId ?? act.actorId,
      publishedAt,
      address: '',
      pillarId: row.pillarId ?? null,
      campaignId: row.campaignId ?? null,
      createdAt: act.now,
    };
  });
  await addPosts(act, posts);
  await act.note(
    ...posts.map(({ id, row }) => ({
      brandId: brand.id,
      subject: 'post' as const,
      subjectId: id,
      deed: 'imported',
      detail: { line: row.line },
    })),
  );
  outcome.made = posts.length;
  return posts.map(({ row, id }) => ({ key: row.key, postId: id }));
}

const wordsOf = ({ headline = '', caption = '', hashtags = '', link = '' }: ImportRow) => ({
  headline,
  caption,
  hashtags,
  link,
});

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
