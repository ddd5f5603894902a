import { door } from '@/app/server/door';
import { isVideo } from '@/core/media/video';
import { leavingName } from '@/core/media/fit';
import { maybeDeliveryOfPost } from '@/usecases/delivery/reading';
import { renderPicture } from '@/usecases/media/files';
import { answerPicture } from '@/app/server/picture';
import { ofPost } from '@/usecases/rights/readFor';
import { isId, nothingThere, refusal } from '@/app/server/request';

/**
 * A picture out of what leaves of a post, by its place there from 0, to be saved by who posts it by hand: upright, cropped,
 * converted, without data about where it was taken. Videos leave as they are; their originals are saved instead.
 */
export const GET = door<{ id: string; place: string }>('look', async (_request, { params }, { app, work }) => {
  const { id, place } = await params;
  if (!isId(id)) return nothingThere('picture');
  const delivery = await ofPost(work, id, 'picture', () => maybeDeliveryOfPost(work.db, id));
  if (!delivery.ok) return refusal(delivery.refusal);
  const stored = /^\d{1,3}$/.test(place) ? delivery.value.parcel.pictures[Number(place)] : undefined;
  if (!stored || isVideo(stored)) return nothingThere('picture');
  const name = leavingName(stored.fileName, { mime: stored.mime, toMime: stored.recipe?.toMime ?? null });
  const { bytes, picture } = await renderPicture(app.folder.media, stored);
  return answerPicture(bytes, picture.mime, name, 'attachment');
});
