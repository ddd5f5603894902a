import { maybeMimeOf } from '@/data/media';
import { readPictureFile } from '@/data/pictureFiles';
import { bimlo } from '@/runtime/bimlo';
import { nothingThere } from '@/app/server/request';

/**
 * A stored picture by its content hash: `?size=thumb` for its thumbnail, `?save` to save the original under its name. The
 * content of an address never changes.
 */
export async function GET(request: Request, { params }: { params: Promise<{ sha: string }> }): Promise<Response> {
  const { sha } = await params;
  const { db, folder } = await bimlo();
  const known = /^[0-9a-f]{64}$/.test(sha) ? await maybeMimeOf(db, sha) : undefined;
  if (!known) return nothingThere('picture');
  const query = new URL(request.url).searchParams;
  const isThumb = query.get('size') === 'thumb';
  const bytes = await readPictureFile(folder.media, sha, isThumb ? 'thumb' : 'original');
  const save = query.has('save') ? `attachment; filename*=UTF-8''${encodeURIComponent(known.fileName)}` : 'inline';
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': isThumb ? 'image/webp' : known.mime,
      'content-disposition': save,
      'cache-control': 'private, max-age=31536000, immutable',
      'content-security-policy': "default-src 'none'; sandbox",
      'x-content-type-options': 'nosniff',
    },
  });
}
