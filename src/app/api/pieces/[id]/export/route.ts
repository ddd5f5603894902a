import { door } from '@/app/server/door';
import { askedFor, isId, nothingThere, refusal } from '@/app/server/request';
import { exportPiece, pieceAsMarkdown } from '@/usecases/exchange/exportPiece';

/**
 * A piece as a file: with `?file=md` as Markdown with front matter, else with its extracts and posts as JSON, each drafted sentence
 * with where it is from.
 */
export const GET = door<{ id: string }>('exchange', async (request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  if (askedFor(request, 'file') === 'md') {
    const file = await pieceAsMarkdown(work, id);
    return file.ok
      ? download(file.value.text, `${file.value.title.slice(0, 80)}.md`, 'text/markdown')
      : refusal(file.refusal);
  }
  const file = await exportPiece(work, id);
  if (!file.ok) return refusal(file.refusal);
  return download(JSON.stringify(file.value, null, 2), `${file.value.title.slice(0, 80)}.json`, 'application/json');
});

const download = (text: string, name: string, type: string): Response =>
  new Response(text, {
    headers: {
      'content-type': `${type}; charset=utf-8`,
      'content-disposition': `attachment; filename*=UTF-8\'\'${encodeURIComponent(name)}`,
      'cache-control': 'no-store',
    },
  });
