import type { ListedExtract } from '@/core/exchange/lists';
import { groupBy } from '@/core/group';
import { insertExtracts, listExtracts, maybeSource, type KeptExtract } from '@/data/extracts/extracts';
import { deletePostExtracts, insertPostExtracts, listExtractsOfPosts } from '@/data/fanOut/postExtracts';
import type { ChangeItem } from '@/data/undo/changes';
import { LONGEST_EXTRACT, MOST_EXTRACTS } from '../extracts/extracts';
import { watching } from '../undo/rows';
import type { Doing } from '../useCase';
import type { RowNote } from './checkedRows';
import type { TextOfPiece } from './listings';

/** What a row tells of what its post was made from. */
interface Told {
  line: number;
  postId: string;
  pieceId: string;
  extracts: readonly ListedExtract[];
}

/**
 * Says of posts which extracts of their pieces they were made from. An extract that the piece has not got yet is accepted by
 * that; words that do not stand in the piece are named.
 */
export async function tellExtracts(
  act: Doing,
  brandId: string,
  told: readonly Told[],
  textOf: TextOfPiece,
): Promise<{ items: ChangeItem[]; notes: RowNote[] }> {
  if (told.length === 0) return { items: [], notes: [] };
  const notes: RowNote[] = [];
  const made: KeptExtract[] = [];
  const postIds: string[] = [];
  const links = new Map<string, { postId: string; extractId: string }>();
  for (const [pieceId, rows] of groupBy(told, (row) => row.pieceId)) {
    const text = await textOf(pieceId);
    if (text === null) {
      const message = 'Its piece has no text that can be read, so what it was made from stays as it is.';
      notes.push(...rows.map(({ line }) => ({ line, message })));
      continue;
    }
    postIds.push(...rows.map(({ postId }) => postId));
    const isTimed = ((await maybeSource(act.tx, pieceId))?.cues.length ?? 0) > 0;
    const present = await listExtracts(act.tx, pieceId);
    for (const { line, postId, extracts } of rows)
      for (const extract of extracts) {
        const stretch = extract.kind === 'clip' && !isTimed ? null : stretchIn(text, extract);
        let own = present.find((one) => stretch && isSame(one, extract, stretch));
        if (!own && stretch && present.length < MOST_EXTRACTS) {
          const { now: createdAt, actorId: createdBy } = act;
          const kept = { ...{ brandId, pieceId, kind: extract.kind, state: 'accepted' as const, ...stretch } };
          own = { ...kept, id: act.ids(), reason: '', createdAt, createdBy };
          present.push(own);
          made.push(own);
        }
        if (own) links.set(`${postId} ${own.id}`, { postId, extractId: own.id });
        else notes.push({ line, message: `Its piece has no passage “${clip(extract.text)}”, so it is no extract.` });
      }
  }
  const touched = new Set([
    ...(await listExtractsOfPosts(act.tx, postIds)).map(({ id }) => id),
    ...[...links.values()].map(({ extractId }) => extractId),
  ]);
  const things = [...touched].map((id) => ({ name: 'extract' as const, id }));
  const items = await watching(act, things, async () => {
    await deletePostExtracts(act.tx, postIds);
    await insertExtracts(act.tx, made);
    await insertPostExtracts(act.tx, [...links.values()]);
  });
  return { items, notes };
}

const isSame = (
  { kind, start, end }: KeptExtract,
  told: ListedExtract,
  stretch: Pick<KeptExtract, 'start' | 'end'>,
): boolean => start === stretch.start && end === stretch.end && (kind === 'clip') === (told.kind === 'clip');

/** Where the words of an extract stand in a text: where it says, or else where they are first; null where they are not. */
function stretchIn(text: string, { text: words, start }: ListedExtract): Pick<KeptExtract, 'start' | 'end'> | null {
  if (words.length > LONGEST_EXTRACT || words.trim() !== words) return null;
  const at = start !== null && text.startsWith(words, start) ? start : text.indexOf(words);
  return at < 0 ? null : { start: at, end: at + words.length };
}

const clip = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
