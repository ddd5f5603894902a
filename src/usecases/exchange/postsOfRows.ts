import { randomUUID } from 'node:crypto';
import { formatOn } from '@/core/calendar/drop';
import { groupBy } from '@/core/group';
import type { BadRow, ImportMapping, ImportRow } from '@/core/exchange/planImport';
import { blocksOf } from '@/core/posts/readiness';
import { readWords } from '@/core/posts/readPost';
import { ofEachText } from '@/core/posts/texts';
import type { Stage } from '@/core/stages/stages';
import { dueInstant, localOf, type Instant, type LocalDate } from '@/core/time/plan';
import type { Brand } from '@/data/brands/brands';
import type { Channel } from '@/data/brands/channels';
import { insertPieces, listPiecesByLink, listPiecesByTitle } from '@/data/pieces/pieces';
import { addPosts } from '../posts/addPosts';
import type { Doing } from '../useCase';
import type { CheckedRows, RowNote } from './checkedRows';
import { partsOfRow, picturesOfRow } from './listings';

/** Rows that may become posts, and those that may not. */
export function checkNew(
  channels: readonly Channel[],
  rows: readonly ImportRow[],
): { good: ImportRow[]; bad: BadRow[] } {
  const channelOf = new Map(channels.map((channel) => [channel.id, channel]));
  const bad: BadRow[] = [];
  const good = rows.filter((row) => {
    const { name, archived, sheet } = channelOf.get(row.channelId)!;
    const read = readWords(
      row.lists.parts ? { ...wordsOf(row), parts: partsOfRow(row.lists.parts, [], [], randomUUID) } : wordsOf(row),
      sheet,
    );
    const reason = archived ? `${name} is archived and takes no new posts` : read.ok ? null : read.refusal.message;
    if (reason !== null) bad.push({ line: row.line, reason });
    return reason === null;
  });
  return { good, bad };
}

/** Makes posts of rows that may become some, and the pieces they lack. */
export async function makePosts(
  act: Doing,
  brand: Brand,
  channels: readonly Channel[],
  { fresh: rows, files }: Pick<CheckedRows, 'fresh' | 'files'>,
  mapping: ImportMapping,
): Promise<{ keys: { key: string; postId: string; pieceId: string }[]; pieceIds: string[]; notes: RowNote[] }> {
  const today = localOf(act.now, brand.zone).date;
  const channelOf = new Map(channels.map((channel) => [channel.id, channel]));
  const notes: RowNote[] = [];
  const staged = new Map(rows.map((row) => [row, stageOfRow(row, today, mapping)]));
  const publishedAtOf = (row: ImportRow) => (staged.get(row) === 'published' ? plannedFor(row, brand) : null);
  const pieces = await piecesFor(act, brand, rows, publishedAtOf);
  const posts = rows.map((row) => {
    const channel = channelOf.get(row.channelId)!;
    const format = formatOn(channel.sheet, row.format ?? null);
    const words = wordsOf(row);
    const { pictures, byNumber } = picturesOfRow(row.lists.media ?? [], [], files, act.ids);
    const parts = partsOfRow(row.lists.parts ?? [], [], byNumber, act.ids);
    const date = row.date ?? null;
    const time = date === null ? null : (row.time ?? null);
    const stage = staged.get(row)!;
    const isFit = blocksOf({ ...words, parts, format, pictures }, channel.sheet).length === 0;
    const lowered = stage === 'ready' && !isFit;
    if (lowered)
      notes.push({
        line: row.line,
        message: `“${row.title}” cannot be ready yet, so it is in production.`,
      });
    if (row.stage === 'scheduled' && stage === 'ready')
      notes.push({
        line: row.line,
        message: `“${row.title}” is imported unscheduled: schedule it on its sheet.`,
      });
    return {
      ...words,
      parts,
      pictures: pictures.map((picture, index) => ({ ...picture, position: index + 1 })),
      ...(row.lists.steps && { prep: row.lists.steps }),
      row,
      id: act.ids(),
      brandId: brand.id,
      pieceId: pieces.of(row),
      channelId: row.channelId,
      format,
      title: row.title,
      date,
      time,
      stage: lowered ? ('production' as const) : stage,
      setAsideReason: stage === 'setAside' ? (row.setAsideReason ?? 'imported with a date in the past') : '',
      ownerId: row.ownerId ?? act.actorId,
      publishedAt: publishedAtOf(row),
      address: stage === 'published' ? (row.address ?? '') : '',
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
  return {
    keys: posts.map(({ row, id, pieceId }) => ({ key: row.key, postId: id, pieceId })),
    pieceIds: pieces.made,
    notes,
  };
}

const wordsOf = (row: ImportRow) => ofEachText((_text, name) => row[name] ?? '');

/** The instant for which a row with a date is planned; noon where it says no time. */
function plannedFor({ date, time }: ImportRow, { zone }: Brand): Instant {
  const due = date && time ? dueInstant(date, time, zone) : null;
  return due?.ok ? due.value : new Date(`${date}T12:00:00Z`).toISOString();
}

function stageOfRow(row: ImportRow, today: LocalDate, mapping: ImportMapping): Stage {
  const isPast = row.date != null && row.date < today;
  if (row.stage === 'published' || row.stage === 'setAside') return row.stage;
  if (isPast) return mapping.past === 'publishedElsewhere' ? 'published' : 'setAside';
  return row.stage === 'scheduled' ? 'ready' : (row.stage ?? 'drafting');
}

/**
 * The piece that each row belongs to: the one of its title that is there, or of its link where it names none; or else a new
 * one, as old as the first post that was published of it.
 */
async function piecesFor(
  act: Doing,
  brand: Brand,
  rows: readonly ImportRow[],
  publishedAtOf: (row: ImportRow) => Instant | null,
): Promise<{ of: (row: ImportRow) => string; made: string[] }> {
  const byTitle = await listPiecesByTitle(act.tx, brand.id, [...new Set(rows.map((row) => row.pieceTitle))]);
  const linkOf = (row: ImportRow) => (row.pieceTitle === row.title ? (row.link?.trim() ?? '') : '');
  const links = new Set(rows.map(linkOf).filter((link) => link !== ''));
  const byLink = await listPiecesByLink(act.tx, brand.id, [...links]);
  const known = (row: ImportRow) => byTitle.get(row.pieceTitle) ?? byLink.get(linkOf(row));
  const unknown = groupBy(
    rows.filter((row) => known(row) === undefined),
    (row) => row.pieceTitle,
  );
  const fresh = [...unknown].map(([title, its]) => ({
    id: act.ids(),
    brandId: brand.id,
    title,
    note: '',
    link: '',
    sourceText: '',
    ownerId: act.actorId,
    createdAt: its.flatMap((row) => publishedAtOf(row) ?? []).reduce((a, b) => (b < a ? b : a), act.now),
  }));
  await insertPieces(act.tx, fresh);
  const made = new Map(fresh.map(({ id, title }) => [title, id]));
  return { of: (row) => known(row) ?? made.get(row.pieceTitle)!, made: fresh.map(({ id }) => id) };
}
