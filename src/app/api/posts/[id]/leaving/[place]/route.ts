import { isVideo } from '@/core/media/video';
import { leavingName } from '@/core/media/fit';
import { maybeDeliveryOfPost } from '@/data/deliveries';
import { renderPicture } from '@/data/renderPicture';
import { answerPicture } from '@/app/server/picture';
import { isId, nothingThere, workOfRequest } from '@/app/server/request';

type Context = { params: Promise<{ id: string; place: string }> };

/**
 * A picture out of what leaves of a post, by its place there from 0, to be saved by who posts it by hand: upright, cropped,
 * converted, without data about where it was taken. Videos leave as they are; their originals are saved instead.
 */
export async function GET(_request: Request, { params }: Context): Promise<Response> {
  const { id, place } = await params;
  const { app } = await workOfRequest();
  const delivery = isId(id) ? await maybeDeliveryOfPost(app.db, id) : undefined;
  const stored = /^\d{1,3}$/.test(place) ? delivery?.parcel.pictures[Number(place)] : undefined;
  if (!stored || isVideo(stored)) return nothingThere('picture');
  const name = leavingName(stored.fileName, { mime: stored.mime, toMime: stored.recipe?.toMime ?? null });
  const { bytes, picture } = await renderPicture(app.folder.media, stored);
  return answerPicture(bytes, picture.mime, name, 'attachment');
}
