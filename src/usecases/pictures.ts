import { TEXT_LIMITS } from '@/core/pieces/piece';
import { mayEdit } from '@/core/stages/moves';
import { refuse, type Result } from '@/core/refusal';
import { isCrop, OUT_TYPES, type Recipe } from '@/core/media/fit';
import { insertLibraryFiles } from '@/data/library';
import { deletePicture, insertPictures, updateAlt, updateRecipe } from '@/data/media';
import { changePost, takePost } from './posts';
import { doing, must, mustFit, notFound, refused, type Work } from './work';

/** Pictures a post keeps at the most. */
export const PICTURES_OF_POST = 40;

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

/** Attaches a stored picture or video to a post, after those it has. @returns the picture's id */
export function attachPicture(work: Work, postId: string, stored: StoredPicture, alt: string): Promise<Result<string>> {
  return doing(work, async (act) => {
    const open = await takePost(act, postId);
    must(mayEdit(open.facts));
    mustFit(alt, TEXT_LIMITS.alt, 'Alt text', 'alt');
    if (open.pictures.length >= PICTURES_OF_POST)
      must(
        refuse(
          'tooManyPictures',
          `A post keeps ${PICTURES_OF_POST} pictures at most. Take one away first.`,
          'pictures',
        ),
      );
    await insertLibraryFiles(act.tx, [{ ...stored, brandId: open.post.brandId, addedAt: act.now }]);
    const id = act.ids();
    const position = Math.max(0, ...open.pictures.map((picture) => picture.position)) + 1;
    await insertPictures(act.tx, [
      { ...stored, id, postId, position, alt: alt.trim(), brandId: open.post.brandId, addedAt: act.now },
    ]);
    await changePost(act, open, {}, 'picture added', { pictureId: id, fileName: stored.fileName });
    return id;
  });
}

/** Writes the alt text of a picture. */
export function describePicture(work: Work, postId: string, pictureId: string, alt: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePost(act, postId);
    must(mayEdit(open.facts));
    mustFit(alt, TEXT_LIMITS.alt, 'Alt text', 'alt');
    if (!(await updateAlt(act.tx, postId, pictureId, alt.trim()))) refused(notFound('picture'));
    await changePost(act, open, {}, 'picture described', { pictureId });
    return true as const;
  });
}

/** Says what is done to a picture on its way out: the part that leaves, the type it becomes, the bytes it may have. */
export function setRecipe(work: Work, postId: string, pictureId: string, recipe: Recipe): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePost(act, postId);
    must(mayEdit(open.facts));
    const picture = open.pictures.find(({ id }) => id === pictureId) ?? refused(notFound('picture'));
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
    await updateRecipe(act.tx, postId, pictureId, { crop, toMime: toMime === picture.mime ? null : toMime, toBytes });
    await changePost(act, open, {}, 'picture fitted', { pictureId, ...recipe });
    return true as const;
  });
}

/** Bytes below which nobody needs a picture scaled down. */
const LEAST_BYTES = 20_000;

/** Takes a picture from a post. Its file stays, since other posts and copies that wait to leave may use it. */
export function removePicture(work: Work, postId: string, pictureId: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePost(act, postId);
    must(mayEdit(open.facts));
    const picture = (await deletePicture(act.tx, postId, pictureId)) ?? refused(notFound('picture'));
    // A slide that was nothing but this picture goes with it.
    const parts = open.post.parts.filter(({ pictureId: shown, text }) => shown !== pictureId || text.trim() !== '');
    await changePost(act, open, { parts }, 'picture removed', { picture });
    return true as const;
  });
}
