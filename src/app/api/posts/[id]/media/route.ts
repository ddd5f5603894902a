import { door } from '@/app/server/door';
import { maybePost } from '@/usecases/posts/reading';
import { takeUpload } from '@/app/server/upload';
import { isId, nothingThere } from '@/app/server/request';
import { attachFromLibrary } from '@/usecases/media/library';
import { attachPicture } from '@/usecases/media/pictures';
import { answerPost } from '../../answer';

/**
 * Attaches a picture or video to the post: the body is the file, its name in `x-file-name`; or, with `?file=`, one of the
 * brand's library by its content hash.
 */
export const POST = door<{ id: string }>('changePosts', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const sha256 = new URL(request.url).searchParams.get('file');
  if (sha256 === null) {
    const stored = await takeUpload(request, app.folder.media);
    return answerPost(app, id, stored.ok ? await attachPicture(work, id, stored.value, '') : stored);
  }
  const post = await maybePost(app.db, id);
  if (!post) return nothingThere('post');
  return answerPost(app, id, await attachFromLibrary(work, id, post.brandId, sha256));
});
