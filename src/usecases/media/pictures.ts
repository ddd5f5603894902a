import { quoted } from '@/core/calendar/change';
import type { WriteOutcome } from '@/core/posts/outcome';
import { AS_IT_IS, isCrop, OUT_TYPES, type Recipe } from '@/core/media/fit';
import type { Part } from '@/core/captions/compose';
import { partsWith } from '@/core/posts/parts';
import { mayEdit } from '@/core/stages/moves';
import type { Result } from '@/core/refusal';
import { insertLibraryFiles } from '@/data/media/library';
import type { Picture } from '@/data/media/media';
import { noteChange } from '../undo/noteChange';
import { changedPictures } from '../undo/pictures';
import { takePost, type OpenPost } from '../posts/takePosts';
import { doing, must, notFound, refused, type Doing, type Work } from '../useCase';
import { changePost } from '../posts/writePosts';

/** A picture that was looked into and stored. */
export interface StoredPicture {
  sha256: string;
  mime: string;
  width: number;
  height: number;
  bytes: number;
  fileName: string;
  /** How long a video runs; null for a picture. */
  durationMs: number | null;
}

/** What came of a change of pictures: which one it was, and what came with it. */
export type PictureOutcome = WriteOutcome & { pictureId: string };

/** Attaches a stored picture or video to a post, after those it has. */
export function attachPicture(
  work: Work,
  postId: string,
  stored: StoredPicture,
  alt: string,
): Promise<Result<PictureOutcome>> {
  return doing(work, async (act) => {
    const open = await takePost(act, postId, 'changePosts');
    const pictureId = act.ids();
    const added: Picture = { ...AS_IT_IS, ...stored, id: pictureId, postId, position: open.pictures.length + 1, alt };
    await insertLibraryFiles(act.tx, [{ ...stored, brandId: open.post.brandId, addedAt: act.now }]);
    const told = `Added ${quoted(stored.fileName)} to ${quoted(open.post.title)}`;
    return changePictures(
      act,
      open,
      [...open.pictures, added],
      { deed: 'picture added', told },
      {
        pictureId,
        fileName: stored.fileName,
      },
    );
  });
}

/** Writes the alt text of a picture. */
export function describePicture(
  work: Work,
  postId: string,
  pictureId: string,
  alt: string,
): Promise<Result<PictureOutcome>> {
  return doing(work, async (act) => {
    const open = await takePost(act, postId, 'changePosts');
    return changePictures(
      act,
      open,
      withPicture(open, pictureId, { alt }),
      { deed: 'picture described', told: null },
      { pictureId },
    );
  });
}

/** Says what is done to a picture on its way out: the part that is sent, the type it becomes, the bytes it may have. */
export function setRecipe(
  work: Work,
  postId: string,
  pictureId: string,
  recipe: Recipe,
): Promise<Result<PictureOutcome>> {
  return doing(work, async (act) => {
    const open = await takePost(act, postId, 'changePosts');
    const picture = pictureOf(open, pictureId);
    if (recipe.crop && !isCrop(recipe.crop))
      refused({
        code: 'badCrop',
        field: 'crop',
        message: 'The frame has to lie inside the picture and have some size.',
      });
    if (recipe.toMime !== null && !OUT_TYPES.includes(recipe.toMime))
      refused({ code: 'badType', field: 'toMime', message: 'Pictures are converted to JPEG, PNG or WebP.' });
    if (recipe.toBytes !== null && (!Number.isInteger(recipe.toBytes) || recipe.toBytes < LEAST_BYTES))
      refused({ code: 'badBytes', field: 'toBytes', message: 'A picture is not scaled down below 20 kB.' });
    const { crop, toMime, toBytes } = recipe;
    // What it came to before it was fitted says nothing of what it comes to now.
    const fitted = { crop, toMime: toMime === picture.mime ? null : toMime, toBytes, rendered: null };
    const told = `Fitted ${quoted(picture.fileName)}`;
    return changePictures(
      act,
      open,
      withPicture(open, pictureId, fitted),
      { deed: 'picture fitted', told },
      { pictureId, ...recipe },
    );
  });
}

/** Bytes below which nobody needs a picture scaled down. */
const LEAST_BYTES = 20_000;

/** Removes a picture from a post. Its file stays, since other posts and copies that wait to leave may use it. */
export function removePicture(work: Work, postId: string, pictureId: string): Promise<Result<PictureOutcome>> {
  return doing(work, async (act) => {
    const open = await takePost(act, postId, 'changePosts');
    const picture = pictureOf(open, pictureId);
    const rest = open.pictures.filter((one) => one !== picture);
    const told = `Removed ${quoted(picture.fileName)} from ${quoted(open.post.title)}`;
    return changePictures(act, open, rest, { deed: 'picture removed', told }, { pictureId, picture });
  });
}

/**
 * Gives a taken post other pictures. A slide that was nothing but a picture that is gone goes with it.
 *
 * @param told how it is told where the person can undo it: “Added “dome.png” to “Rings””; null where it goes with something else
 * @param instead by the id of a picture, the one that takes its place in the parts that show it
 */
export async function changePictures(
  act: Doing,
  open: OpenPost,
  pictures: readonly Picture[],
  { deed, told }: { deed: string; told: string | null },
  detail: { pictureId: string } & Record<string, unknown>,
  instead: ReadonlyMap<string, string> = new Map(),
): Promise<PictureOutcome> {
  must(mayEdit(open.facts));
  const before = open.post.parts.map((part) => ({
    ...part,
    pictureId: part.pictureId === null ? null : (instead.get(part.pictureId) ?? part.pictureId),
  }));
  const shows = ({ pictureId }: Part) => pictureId === null || pictures.some(({ id }) => id === pictureId);
  const parts = partsWith(
    before.filter((part) => shows(part) || part.text.trim() !== ''),
    pictures,
  );
  const change = before.every(shows) && instead.size === 0 ? { pictures } : { pictures, parts };
  const outcome = await changePost(act, { open, change, deed, detail });
  const after = { pictures, parts: 'parts' in change ? parts : open.post.parts };
  const { brandId } = open.post;
  const changeId =
    told === null ? null : await noteChange(act, { brandId, label: told, items: [changedPictures(open, after)] });
  return { ...outcome, changeId, pictureId: detail.pictureId };
}

const pictureOf = ({ pictures }: OpenPost, id: string): Picture =>
  pictures.find((picture) => picture.id === id) ?? refused(notFound('picture'));

function withPicture(open: OpenPost, id: string, change: Partial<Picture>): Picture[] {
  const picture = pictureOf(open, id);
  return open.pictures.map((one) => (one === picture ? { ...one, ...change } : one));
}
