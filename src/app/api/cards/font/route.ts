import { door } from '@/app/server/door';
import { isId, nothingThere, refusal } from '@/app/server/request';
import { loadCardFont } from '@/usecases/cards/cards';

/** The font that words on the pictures of a brand are set in: `?brandId=`; nothing where it has no file of one. */
export const GET = door('look', async (request, _context, { app, work }) => {
  const brandId = new URL(request.url).searchParams.get('brandId') ?? '';
  if (!isId(brandId)) return nothingThere('brand');
  const font = await loadCardFont({ ...work, folder: app.folder.media }, brandId);
  if (!font.ok) return refusal(font.refusal);
  if (font.value === null) return new Response(null, { status: 204 });
  return new Response(new Uint8Array(font.value), {
    headers: { 'content-type': 'application/octet-stream', 'cache-control': 'no-store' },
  });
});
