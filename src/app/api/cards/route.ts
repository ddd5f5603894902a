import type { Card } from '@/core/cards/card';
import { cardField } from '@/app/server/cardFields';
import { door } from '@/app/server/door';
import { fields, id } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { drawCardFor, loadCardColours } from '@/usecases/cards/cards';

const schema = fields({ brandId: id('Brand'), card: cardField });

/** The colours that the cards of a brand come in: `?brandId=`. */
export const GET = door('look', async (request, _context, { work }) => {
  const brandId = new URL(request.url).searchParams.get('brandId') ?? '';
  return isId(brandId) ? answer(await loadCardColours(work, brandId)) : nothingThere('brand');
});

/** Draws a card as it would look: a PNG picture. Nothing is kept. */
export const POST = door('changePosts', async (request, _context, { app, work }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const drawn = await drawCardFor({ ...work, folder: app.folder.media }, body.value.brandId, body.value.card as Card);
  if (!drawn.ok) return refusal(drawn.refusal);
  return new Response(new Uint8Array(drawn.value), {
    headers: { 'content-type': 'image/png', 'cache-control': 'no-store' },
  });
});
