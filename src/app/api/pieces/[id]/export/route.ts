import { door } from '@/app/server/door';
import { isId, nothingThere, refusal } from '@/app/server/request';
import { exportPiece } from '@/usecases/exchange/exportPiece';

/** A piece with its extracts and posts as a JSON file, each drafted sentence with where it is from. */
export const GET = door<{ id: string }>('exchange', async (_request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  const file = await exportPiece(work, id);
  if (!file.ok) return refusal(file.refusal);
  return new Response(JSON.stringify(file.value, null, 2), {
    headers: {
      'content-type': 'application/json; charset=utf-8',
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(`${file.value.title.slice(0, 80)}.json`)}`,
      'cache-control': 'no-store',
    },
  });
});
