import { number, object, string } from 'yup';
import { listPictures } from '@/data/media';
import { renderPicture } from '@/data/renderPicture';
import { describePicture, removePicture, setRecipe } from '@/usecases/pictures';
import { fields, maybeText } from '@/app/server/fields';
import { answerPicture } from '@/app/server/picture';
import { isId, nothingThere, readBody, refusal, workOfRequest } from '@/app/server/request';
import { answerPost } from '../../../answer';

type Context = { params: Promise<{ id: string; picture: string }> };

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
export async function GET(_request: Request, { params }: Context): Promise<Response> {
  const { id, picture: pictureId } = await params;
  if (!isId(id) || !isId(pictureId)) return nothingThere('picture');
  const { app } = await workOfRequest();
  const stored = (await listPictures(app.db, id)).find((one) => one.id === pictureId);
  if (!stored) return nothingThere('picture');
  const { crop, toMime, toBytes } = stored;
  const { bytes, picture } = await renderPicture(app.folder.media, { ...stored, recipe: { crop, toMime, toBytes } });
  return answerPicture(bytes, picture.mime, stored.fileName, 'inline');
}

/** Writes a picture's alt text, or what is done to it on its way out. */
export async function PATCH(request: Request, { params }: Context): Promise<Response> {
  const { id, picture } = await params;
  if (!isId(id) || !isId(picture)) return nothingThere('picture');
  const { app, work } = await workOfRequest();
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { alt, recipe } = body.value;
  if (recipe) return answerPost(app, id, await setRecipe(work, id, picture, recipe));
  return answerPost(app, id, await describePicture(work, id, picture, alt ?? ''));
}

/** Takes a picture from a post. */
export async function DELETE(_request: Request, { params }: Context): Promise<Response> {
  const { id, picture } = await params;
  if (!isId(id) || !isId(picture)) return nothingThere('picture');
  const { app, work } = await workOfRequest();
  return answerPost(app, id, await removePicture(work, id, picture));
}
