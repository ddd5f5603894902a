import { quoted } from '@/core/calendar/change';
import type { ChangeOutcome } from '@/core/calendar/changeOutcome';
import type { Refusal, Result } from '@/core/refusal';
import { mayEdit, maySchedule } from '@/core/stages/moves';
import { maybePiece } from '@/data/pieces/pieces';
import { attachCard, type FileWork } from '../cards/cards';
import { writeAsked, type Asked, type ChangeTarget } from '../calendar/changePosts';
import { factsOf, takePosts, type OpenPost } from '../posts/takePosts';
import { mayRead, mustMay } from '../rights/mustMay';
import { noteChange } from '../undo/noteChange';
import { attempt, doing, must, notFound, refused, STALE, type Doing, type Work } from '../useCase';
import { postsBehind, type PostBehind } from './reading';

/**
 * Corrects posts as their piece was corrected, in one step. What was scheduled is scheduled again with the new words, as long as
 * that may be; what was signed off asks again. Words that are set as pictures are set again before.
 */
export async function correctPosts(
  work: FileWork,
  pieceId: string,
  targets: readonly ChangeTarget[],
): Promise<Result<ChangeOutcome>> {
  const found = await behindOf(work, pieceId, targets);
  if (!found.ok) return found;
  const versions = new Map(targets.map(({ id, version }) => [id, version]));
  const notes: ChangeOutcome['notes'] = [];
  for (const { post, pictures, corrected } of found.value) {
    if (versions.get(post.id) !== post.version || !corrected) continue;
    for (const [id, text] of corrected.cards) {
      const { card } = pictures.find((picture) => picture.id === id)!;
      const set = await attachCard(work, post.id, { ...card!, text }, id);
      if (set.ok) versions.set(post.id, versions.get(post.id)! + 1);
      else
        notes.push({ postId: post.id, title: post.title, message: `Its card stays as it was. ${set.refusal.message}` });
    }
  }
  const scheduled = found.value.flatMap(({ post }) => (post.stage === 'scheduled' ? [post.id] : []));
  const done = await change(work, pieceId, found.value, versions, scheduled, (act, open, one) =>
    correcting(act, open, one),
  );
  return done.ok ? { ok: true, value: { ...done.value, notes: [...notes, ...done.value.notes] } } : done;
}

/** Leaves posts as they are though their piece says something else by now: nothing is said about it any more. */
export async function leaveAsTheyAre(
  work: Work,
  pieceId: string,
  targets: readonly ChangeTarget[],
): Promise<Result<ChangeOutcome>> {
  const found = await behindOf(work, pieceId, targets);
  if (!found.ok) return found;
  const versions = new Map(targets.map(({ id, version }) => [id, version]));
  return change(work, pieceId, found.value, versions, [], (_act, open) => ({
    write: { open, change: { madeOf: null }, deed: 'left as it is' },
    notes: [],
  }));
}

/** The posts that are asked for among those that are behind. */
async function behindOf(work: Work, pieceId: string, targets: readonly ChangeTarget[]): Promise<Result<PostBehind[]>> {
  const piece = await maybePiece(work.db, pieceId);
  if (!piece || piece.deletedAt) return { ok: false, refusal: notFound('piece') };
  const allowed = await mayRead(work, 'changePosts', piece.brandId);
  if (!allowed.ok) return allowed;
  const behind = await postsBehind(work.db, piece, { withSetAside: true });
  if (!behind.ok) return behind;
  const wanted = new Set(targets.map(({ id }) => id));
  return { ok: true, value: behind.value.filter(({ post }) => wanted.has(post.id)) };
}

function change(
  work: Work,
  pieceId: string,
  behind: readonly PostBehind[],
  versions: ReadonlyMap<string, number>,
  toMeasure: readonly string[],
  writeOf: (act: Doing, open: OpenPost, one: PostBehind) => Asked,
): Promise<Result<ChangeOutcome>> {
  return doing(
    work,
    async (act) => {
      const piece = (await maybePiece(act.tx, pieceId)) ?? refused(notFound('piece'));
      await mustMay(act, 'changePosts', piece.brandId);
      const outcome: ChangeOutcome = { changeId: null, label: '', postIds: [], refused: [], notes: [] };
      const taken = await takePosts(act, [...versions.keys()], 'changePosts');
      const asked: Asked[] = [];
      const refuseOne = (postId: string, { message }: Refusal) => {
        const open = taken.get(postId);
        outcome.refused.push({ postId, title: open?.ok ? open.value.post.title : 'a post', message });
      };
      for (const [id, version] of versions) {
        const one = behind.find(({ post }) => post.id === id);
        const result = await attempt(async () => {
          const open = must(taken.get(id)!);
          if (!one || open.post.version !== version || open.post.madeOf !== one.post.madeOf) refused(STALE);
          return writeOf(act, open, one);
        });
        if (result.ok) asked.push(result.value);
        else refuseOne(id, result.refusal);
      }
      const items = await writeAsked(act, asked, outcome, refuseOne);
      outcome.postIds = items.map(({ id }) => id);
      const [deed, of] = [asked[0]?.write.deed === 'corrected' ? 'Corrected' : 'Left as they are:', items.length];
      outcome.label = `${deed} ${of === 1 ? 'a post' : `${of} posts`} of ${quoted(piece.title)}`;
      if (of > 0) outcome.changeId = await noteChange(act, { brandId: piece.brandId, label: outcome.label, items });
      return outcome;
    },
    toMeasure,
  );
}

/** What correcting a taken post writes: scheduled again where it was and still may be, else ready. */
function correcting(act: Doing, open: OpenPost, { corrected }: PostBehind): Asked {
  must(mayEdit(open.facts));
  if (!corrected) refused(STALE);
  const { words, alts } = corrected;
  const pictures = open.pictures.map((picture) => ({ ...picture, alt: alts.get(picture.id) ?? picture.alt }));
  const parts = words.parts && {
    parts: words.parts.map((part) => ({
      ...part,
      pictureId: open.post.parts.find(({ id }) => id === part.id)?.pictureId ?? null,
    })),
  };
  const change = { ...words, ...parts, drafted: [...words.drafted], madeOf: null, ...(alts.size > 0 && { pictures }) };
  const deed = 'corrected';
  if (open.post.stage !== 'scheduled') return { write: { open, change, deed }, notes: [] };
  must(open.may('send'));
  const post = { ...open.post, ...change, stage: 'ready' as const };
  const due = maySchedule(factsOf({ ...open, post, pictures }, act.now));
  if (!due.ok)
    return {
      write: { open, change: { ...change, stage: 'ready' }, deed },
      notes: [`It is corrected, but not scheduled any more. ${due.refusal.message}`],
    };
  return {
    write: { open, change: { ...change, stage: 'scheduled' }, leavesAt: due.value, deed },
    notes: ['It is scheduled again with the new words.'],
  };
}
