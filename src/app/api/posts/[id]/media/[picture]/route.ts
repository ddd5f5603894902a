import { door } from '@/app/server/door';
import { number, object, string } from 'yup';
import { listPictures } from '@/usecases/media/reading';
import { renderPicture } from '@/usecases/media/files';
import { describePicture, removePicture, setRecipe } from '@/usecases/media/pictures';
import { fields, maybeText } from '@/app/server/fields';
import { answerPicture } from '@/app/server/picture';
import { ofPost } from '@/usecases/rights/readFor';
import { isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { answerPost } from '../../../answer';

const share = (name: string) => number().typeError(`${name} is a share from 0 to 1.`).required();
const schema = fields({
  alt: maybeText('Alt text'),
  recipe: object({
    crop: object({ x: share('x'), y: share('y'), width: share('Width'), height: share('Height') })
      .noUnknown()
      .nullable()
      .defined(),
    toMime: string().nullable().defined(),
    toBytes: number().integer().nullable().defined(),
  })
    .noUnknown()
    .default(undefined)
    .optional(),
});

/** A picture of a post as it leaves: upright, cropped, converted, without data about where it was taken. */
export const GET = door<{ id: string; picture: string }>('look', async (_request, { params }, { app, work }) => {
  const { id, picture: pictureId } = await params;
  if (!isId(id) || !isId(pictureId)) return nothingThere('picture');
  const found = await ofPost(work, id, 'picture', async () =>
    (await listPictures(work.db, id)).find((one) => one.id === pictureId),
  );
  if (!found.ok) return refusal(found.refusal);
  const stored = found.value;
  const { crop, toMime, toBytes } = stored;
  const { bytes, picture } = await renderPicture(app.folder.media, { ...stored, recipe: { crop, toMime, toBytes } });
  return answerPicture(bytes, picture.mime, stored.fileName, 'inline');
});

/** Writes a picture's alt text, or what is done to it on its way out. */
export const PATCH = door<{ id: string; picture: string }>(
  'changePosts',
  async (request, { params }, { app, work }) => {
    const { id, picture } = await params;
    if (!isId(id) || !isId(picture)) return nothingThere('picture');
    const body = await readBody(request, schema);
    if (!body.ok) return refusal(body.refusal);
    const { alt, recipe } = body.value;
    if (recipe) return answerPost(app, id, await setRecipe(work, id, picture, recipe));
    return answerPost(app, id, await describePicture(work, id, picture, alt ?? ''));
  },
);

/** Takes a picture from a post. */
export const DELETE = door<{ id: string; picture: string }>(
  'changePosts',
  async (_request, { params }, { app, work }) => {
    const { id, picture } = await params;
    if (!isId(id) || !isId(picture)) return nothingThere('picture');
    return answerPost(app, id, await removePicture(work, id, picture));
  },
);
