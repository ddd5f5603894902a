import { door } from '@/app/server/door';
import { createReadStream } from 'node:fs';
import { readFile, stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { DRAWING } from '@/core/media/leaving';
import { isSound, isVideo } from '@/core/media/video';
import { maybeMimeFor } from '@/usecases/media/reading';
import { drawnPath, hasFile, picturePath, readPictureFile } from '@/usecases/media/files';
import { nothingThere } from '@/app/server/request';

/**
 * A stored picture or video by its content hash: `?size=thumb` for a picture's thumbnail, `?save` to save the original under
 * its name. The content of an address never changes, and nothing in it is ever run.
 */
export const GET = door<{ sha: string }>('look', async (request, { params }, { app, work }) => {
  const { sha } = await params;
  const { db, folder } = app;
  const known = /^[0-9a-f]{64}$/.test(sha) ? await maybeMimeFor(db, sha, work.actorId) : undefined;
  if (!known) return nothingThere('picture');
  const query = new URL(request.url).searchParams;
  const isThumb = query.get('size') === 'thumb' && !isVideo(known) && !isSound(known);
  const headers = {
    'content-type': isThumb ? 'image/webp' : known.mime,
    'content-disposition': query.has('save')
      ? `attachment; filename*=UTF-8''${encodeURIComponent(known.fileName)}`
      : 'inline',
    'cache-control': 'private, max-age=31536000, immutable',
    'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox",
    'x-content-type-options': 'nosniff',
  };
  if (!hasFile(folder.media, sha, isThumb ? 'thumb' : 'original')) return nothingThere('file');
  if (isVideo(known) || isSound(known))
    return stretchOf(picturePath(folder.media, sha, 'original'), request.headers.get('range'), headers);
  if (isThumb || query.has('save') || known.mime !== DRAWING) {
    const bytes = await readPictureFile(folder.media, sha, isThumb ? 'thumb' : 'original');
    return new Response(new Uint8Array(bytes), { headers });
  }
  // A drawing is shown as the bitmap that was made of it: what it would cost a browser to draw is nobody's to pay.
  const bytes = await readFile(await drawnPath(folder.media, { sha256: sha, mime: known.mime }, 'leaving'));
  return new Response(new Uint8Array(bytes), { headers: { ...headers, 'content-type': 'image/png' } });
});

/** A file streamed from the disk: all of it, or the one stretch asked for (RFC 9110, 14.2). */
async function stretchOf(path: string, range: string | null, headers: Record<string, string>): Promise<Response> {
  const { size } = await stat(path);
  const asked = /^bytes=(\d*)-(\d*)$/.exec(range ?? '');
  const [from, to] = asked?.[1]
    ? [Number(asked[1]), asked[2] ? Math.min(Number(asked[2]), size - 1) : size - 1]
    : [asked?.[2] ? Math.max(0, size - Number(asked[2])) : 0, size - 1];
  if (from > to) return new Response(null, { status: 416, headers: { 'content-range': `bytes */${size}` } });
  const body = Readable.toWeb(createReadStream(path, { start: from, end: to })) as ReadableStream;
  return new Response(body, {
    status: asked ? 206 : 200,
    headers: {
      ...headers,
      'accept-ranges': 'bytes',
      'content-length': String(to - from + 1),
      ...(asked ? { 'content-range': `bytes ${from}-${to}/${size}` } : {}),
    },
  });
}
