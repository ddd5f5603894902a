import { refuse } from '@/core/refusal';
import { refuseBySize, takePicture } from '@/data/pictureFiles';
import { attachPicture } from '@/usecases/pictures';
import { isId, nothingThere, workOfRequest } from '@/app/server/request';
import { answerPost } from '../../answer';

/** Takes a picture in (the body is the file, its name in `x-file-name`) and attaches it to the post. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const { app, work } = await workOfRequest();
  const fileName = decodeName(request.headers.get('x-file-name') ?? 'picture');
  const tooBig = refuseBySize(Number(request.headers.get('content-length') ?? 0), fileName);
  if (tooBig) return answerPost(app, id, tooBig);
  if (!request.body) return answerPost(app, id, refuse('emptyFile', 'The file is empty. Choose another.', 'pictures'));
  const stored = await takePicture(app.folder.media, request.body, fileName);
  return answerPost(app, id, stored.ok ? await attachPicture(work, id, stored.value, '') : stored);
}

function decodeName(encoded: string): string {
  try {
    return decodeURIComponent(encoded);
  } catch (error) {
    if (error instanceof URIError) return encoded;
    throw error;
  }
}
