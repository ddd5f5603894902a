import type { Part } from '@/core/captions/compose';
import { partsWith } from '@/core/posts/parts';
import { mayEdit } from '@/core/stages/moves';
import type { ChangeItem, Direction, NotedChange } from '@/data/undo/changes';
import type { Picture } from '@/data/media/media';
import { takePosts, type OpenPost } from '../posts/takePosts';
import { writeWhatMayBe } from '../posts/writePosts';
import { attempt, must, refused, type Doing } from '../useCase';
import { CHANGED_SINCE } from './sinceThen';
import { nothingPut, type PutOutcome, type Putting } from './subject';

/** The pictures of a post in their order, and the parts that show them. */
interface PicturesState {
  pictures: readonly Picture[];
  parts: readonly Part[];
}

/** The pictures of a post that a change gave others. */
export const changedPictures = ({ post, pictures }: OpenPost, after: PicturesState): ChangeItem<PicturesState> => ({
  ...{ subject: 'pictures', id: post.id, before: { pictures, parts: post.parts }, after },
  ...{ base: post.version, version: post.version + 1 },
});

/** What is compared of them: which they are, how they leave, and what shows them; not what was written of them since. */
const shapeOf = ({ pictures, parts }: PicturesState): string =>
  JSON.stringify([
    pictures.map(({ id, crop, toMime, toBytes }) => [id, crop, toMime, toBytes]),
    parts.map(({ id, pictureId }) => [id, pictureId]),
  ]);

/** Gives posts the pictures that they had, with what was written of them since. */
export async function putPictures(
  act: Doing,
  _change: NotedChange,
  puttings: readonly Putting<PicturesState>[],
  direction: Direction,
): Promise<PutOutcome> {
  const outcome = nothingPut();
  const ids = puttings.map(({ item }) => item.id);
  const taken = await takePosts(act, ids, 'changePosts');
  for (const { item, from, to } of puttings) {
    const result = await attempt(async () => {
      const open = must(taken.get(item.id)!);
      must(mayEdit(open.facts));
      const present = { pictures: open.pictures, parts: open.post.parts };
      if (shapeOf(present) !== shapeOf(from!)) refused(CHANGED_SINCE);
      const [written] = await writeWhatMayBe(act, [
        { open, change: backFrom(present, from!, to!), deed: 'pictures put back' },
      ]);
      return must(written!);
    });
    if (result.ok) {
      outcome.postIds.push(item.id);
      const from = direction === 'undo' ? item.base! : item.version!;
      outcome.moved.push({ id: item.id, from, to: result.value.write.open.post.version + 1 });
    } else {
      const open = taken.get(item.id);
      const title = open?.ok ? open.value.post.title : 'a post';
      outcome.refused.push({ postId: item.id, title, message: result.refusal.message });
    }
  }
  return outcome;
}

/** The pictures as they were, with their words as they are where somebody wrote them since. */
function backFrom(present: PicturesState, from: PicturesState, to: PicturesState): PicturesState {
  const pictures = to.pictures.map((picture) => {
    const own = present.pictures.find(({ id }) => id === picture.id);
    const { crop, toMime, toBytes } = picture;
    if (!own) return picture;
    const was = from.pictures.find(({ id }) => id === picture.id);
    const alt = own.alt === was?.alt ? picture.alt : own.alt;
    return { ...own, alt, crop, toMime, toBytes, rendered: null };
  });
  const parts = to.parts.map((part) => {
    const [is, was] = [present, from].map(({ parts }) => parts.find(({ id }) => id === part.id)?.text);
    return { ...part, text: is === was ? part.text : (is ?? part.text) };
  });
  return { pictures, parts: partsWith(parts, pictures) };
}
