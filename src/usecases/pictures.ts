import { TEXT_LIMITS } from '@/core/pieces/piece';
import { mayEdit } from '@/core/stages/moves';
import { refuse, type Result } from '@/core/refusal';
import { deletePicture, insertPictures, updateAlt } from '@/data/media';
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
}

/** Attaches a stored picture to a post, after those it has. @returns the picture's id */
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

/** Takes a picture from a post. Its file stays, since other posts and copies that wait to leave may use it. */
export function removePicture(work: Work, postId: string, pictureId: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePost(act, postId);
    must(mayEdit(open.facts));
    const picture = (await deletePicture(act.tx, postId, pictureId)) ?? refused(notFound('picture'));
    await changePost(act, open, {}, 'picture removed', { picture });
    return true as const;
  });
}
