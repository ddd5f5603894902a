import type { Draft, OwnTexts } from '@/core/drafts/draft';
import type { FanOutPost } from '@/core/fanOut/ground';
import { writtenOf } from '@/core/posts/written';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import { insertExtracts, listExtracts, type KeptExtract } from '@/data/extracts/extracts';
import { insertPostExtracts } from '@/data/fanOut/postExtracts';
import { AS_IT_IS } from '@/core/media/fit';
import type { PieceMedium } from '@/data/media/pieceMedia';
import type { Piece } from '@/data/pieces/pieces';
import type { NewPost } from '../posts/addPosts';
import type { Doing } from '../useCase';

/** A post that is planned, as far as the one that is made of it depends on it. */
type Planned = Pick<FanOutPost, 'channelId' | 'format' | 'from' | 'pictures'>;

/** A post made of a plan and its draft, or what somebody made of that, drafting, with where each of its sentences is from. */
export function newPost(
  act: Doing,
  piece: Piece,
  post: Planned,
  draft: Draft | undefined,
  place: Pick<NewPost, 'date' | 'time' | 'pillarId'>,
  own: OwnTexts,
  prep: NewPost['prep'],
  media: readonly PieceMedium[] = [],
): NewPost {
  const words = writtenOf({
    headline: '',
    caption: '',
    hashtags: '',
    link: piece.link,
    ...draft?.words,
    ...own.words,
  });
  const id = act.ids();
  const pictures = (post.pictures ?? []).flatMap((wanted, at) => {
    const medium = media.find((one) => one.id === wanted);
    return medium ? [{ ...AS_IT_IS, ...medium, id: act.ids(), postId: id, position: at + 1 }] : [];
  });
  return {
    ...words,
    id,
    pictures,
    brandId: piece.brandId,
    pieceId: piece.id,
    channelId: post.channelId,
    format: post.format,
    title: workingTitle(piece, post, words),
    // The pictures of a set are its slides; what else a draft has for them would stand without one.
    parts:
      pictures.length > 0
        ? pictures.length > 1
          ? pictures.map((picture) => ({ id: act.ids(), text: '', pictureId: picture.id }))
          : []
        : (own.parts ?? draft?.parts ?? []).map((text) => ({ id: act.ids(), text, pictureId: null })),
    drafted: (draft?.sentences ?? []).map(({ field, text, origin }) => ({ field, text, origin })),
    ...place,
    stage: 'drafting',
    ownerId: piece.ownerId,
    publishedAt: null,
    address: '',
    createdAt: act.now,
    prep: prep!,
  };
}

/** Characters of a working title. */
const TITLE_LENGTH = 80;

/** What a post is called by the team: what it says where it is made from a part, the piece and its format otherwise. */
function workingTitle(
  piece: Piece,
  { from, format }: Planned,
  { headline, caption }: { headline: string; caption: string },
): string {
  const said = from.length === 0 ? '' : headline || (caption.split('\n')[0] ?? '');
  if (said.trim() === '') return `${piece.title}: ${FORMAT_LABELS[format]}`.slice(0, 200);
  if (said.length <= TITLE_LENGTH) return said;
  const cut = said.slice(0, TITLE_LENGTH);
  return `${cut.slice(0, cut.lastIndexOf(' ') > 20 ? cut.lastIndexOf(' ') : TITLE_LENGTH)}…`;
}

/** What posts were made from is accepted by that, and an extract knows its posts. */
export async function noteExtracts(
  act: Doing,
  piece: Piece,
  posts: readonly { post: Planned; made: Pick<NewPost, 'id'> }[],
): Promise<void> {
  const keyOf = ({ kind, start, end }: { kind: string; start: number; end: number }) =>
    `${kind === 'clip'}-${start}-${end}`;
  const ids = new Map((await listExtracts(act.tx, piece.id)).map((extract) => [keyOf(extract), extract.id]));
  const added: KeptExtract[] = [];
  const links = posts.flatMap(({ post, made }) =>
    post.from.map(({ kind, start, end, reason }) => {
      const key = keyOf({ kind, start, end });
      const id = ids.get(key) ?? act.ids();
      if (!ids.has(key)) {
        ids.set(key, id);
        const { id: pieceId, brandId } = piece;
        const by = { createdAt: act.now, createdBy: act.actorId };
        added.push({ id, brandId, pieceId, kind, state: 'accepted', start, end, reason, ...by });
      }
      return { postId: made.id, extractId: id };
    }),
  );
  await insertExtracts(act.tx, added);
  await insertPostExtracts(act.tx, links);
}
