import type { WriteOutcome } from '@/core/posts/outcome';
import { differingFields, STRETCH_MS, writtenOf } from '@/core/posts/written';
import type { Result } from '@/core/refusal';
import { addMs } from '@/core/time/plan';
import {
  closeDeliveries,
  insertDeliveries,
  retimeDeliveries,
  withdrawDeliveries,
  withdrawSaidOut,
} from '@/data/delivery/deliveries';
import { deletePictures, insertPictures, updatePictures } from '@/data/media/media';
import { updatePosts } from '@/data/posts/posts';
import { keepStretches } from '@/data/posts/wordsVersions';
import { keepNumbers } from '../repeats/keepNumbers';
import { followWork } from './followWork';
import { LEAVING } from './takePosts';
import { changedPost, noteChange } from '../undo/noteChange';
import { must, refused, STALE, type Acting } from '../useCase';
import { checkWrites, type CheckedWrite, type PostWrite } from './checkWrites';

/** Changes one taken post. The only way its words, pictures, plan, stage and people change is this, or `writePosts` for many. */
export async function changePost(act: Acting, write: PostWrite): Promise<WriteOutcome> {
  const [checked] = await checkWrites(act, [write]);
  await writePosts(act, [must(checked!)]);
  return outcomeOf(must(checked!));
}

/** Carries out writes that were checked: a bounded number of statements, however many they are that are not undone singly. */
export async function writePosts(act: Acting, checked: readonly CheckedWrite[]): Promise<void> {
  if (checked.length === 0) return;
  await writeDeliveries(act, checked);
  await writePictures(act, checked);
  const fields = [...new Set(checked.flatMap((one) => one.fields))];
  const written = await updatePosts(
    act.tx,
    checked.map(({ after }) => after),
    fields,
  );
  if (written.length < checked.length) refused(STALE);
  await numberRepeats(act, checked);
  await keepVersions(act, checked);
  await followWork(act, checked);
  await act.note(
    ...checked.map(({ write, tookBack }) => ({
      brandId: write.open.post.brandId,
      subject: 'post' as const,
      subjectId: write.open.post.id,
      deed: write.deed,
      detail: { ...write.detail, ...(tookBack && { tookBack }) },
    })),
  );
  for (const one of checked) {
    const { undoneAs: label, open } = one.write;
    if (label === undefined) continue;
    const final = one.write.final;
    const items = final === undefined ? [changedPost(open.post, one.after)] : [];
    const changeId = await noteChange(act, { brandId: open.post.brandId, label, items, ...(final && { final }) });
    if (final === undefined) one.changeId = changeId;
  }
}

/** Posts of repeats that were moved are numbered by their days again. */
async function numberRepeats(act: Acting, checked: readonly CheckedWrite[]): Promise<void> {
  const moved = checked.flatMap(({ fields, after: { repeatId } }) =>
    repeatId !== null && (fields.includes('date') || fields.includes('time')) ? [repeatId] : [],
  );
  const renumbered = await keepNumbers(act, moved);
  for (const { after } of checked) {
    const since = renumbered.get(after.id);
    if (since) Object.assign(after, { repeatNumber: since.number, title: since.title });
  }
}

async function writeDeliveries(act: Acting, checked: readonly CheckedWrite[]): Promise<void> {
  const withdraws = checked.flatMap((one) => one.withdraws ?? []);
  const retimes = checked.flatMap((one) => one.retimes ?? []);
  const withdrawn = await withdrawDeliveries(act.tx, withdraws, act.now);
  const retimed = await retimeDeliveries(act.tx, retimes);
  if (withdrawn.length < withdraws.length || retimed.length < retimes.length) refused(LEAVING);
  await withdrawSaidOut(
    act.tx,
    checked.flatMap(({ write, after }) => (write.takesBackWord ? [after.id] : [])),
  );
  await insertDeliveries(
    act.tx,
    checked.flatMap((one) => one.copies ?? []),
  );
  await closeDeliveries(
    act.tx,
    checked.flatMap(({ write, after }) => (write.out === 'said' ? [after.id] : [])),
  );
}

async function writePictures(act: Acting, checked: readonly CheckedWrite[]): Promise<void> {
  const changed = checked.filter(({ write }) => write.change.pictures !== undefined);
  const gone = changed.flatMap(({ write, pictures }) => {
    const kept = new Set(pictures.map(({ id }) => id));
    return write.open.pictures.flatMap(({ id }) => (kept.has(id) ? [] : [id]));
  });
  await deletePictures(act.tx, gone);
  const wanted = changed.flatMap(({ write, pictures, after }) => {
    const was = new Set(write.open.pictures.map(({ id }) => id));
    return pictures.map((picture, index) => ({
      isNew: !was.has(picture.id),
      picture: {
        ...picture,
        postId: after.id,
        position: index + 1,
        brandId: after.brandId,
        addedAt: act.now,
      },
    }));
  });
  await insertPictures(
    act.tx,
    wanted.flatMap(({ isNew, picture }) => (isNew ? [picture] : [])),
  );
  await updatePictures(
    act.tx,
    wanted.flatMap(({ isNew, picture }) => (isNew ? [] : [picture])),
  );
}

/**
 * Keeps what the words of posts are after a change. What one person writes within ten minutes of their last save is one
 * version; before the first, what stood there is kept too, so that it can be restored.
 */
async function keepVersions(act: Acting, checked: readonly CheckedWrite[]): Promise<void> {
  const stretches = checked.flatMap(({ write: { open }, after }) => {
    if (differingFields(open.post, after).length === 0) return [];
    const [was, is] = [writtenOf(open.post), writtenOf(after)];
    const { id: postId, ownerId, createdAt } = open.post;
    return [
      {
        own: { id: act.ids(), postId, personId: act.actorId ?? ownerId, at: act.now, words: is },
        original: { id: act.ids(), postId, personId: ownerId, at: createdAt, words: was },
      },
    ];
  });
  await keepStretches(act.tx, stretches, addMs(act.now, -STRETCH_MS));
}

/** Checks many writes and carries out those that may be. @returns in their order, each as it was carried out, or why not */
export async function writeWhatMayBe(act: Acting, writes: readonly PostWrite[]): Promise<Result<CheckedWrite>[]> {
  const checked = await checkWrites(act, writes);
  await writePosts(
    act,
    checked.flatMap((one) => (one.ok ? [one.value] : [])),
  );
  return checked;
}

/** What a checked write comes to, for whoever asked for it. */
export const outcomeOf = ({
  tookBack,
  missing,
  unscheduled,
  mayBeOut: perhaps,
  changeId,
  chosenTime,
}: CheckedWrite): WriteOutcome => ({
  tookBack,
  missing,
  unscheduled,
  mayBeOut: perhaps,
  changeId,
  ...(chosenTime && { chosenTime }),
});
