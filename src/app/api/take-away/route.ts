import { safeName } from '@/core/exchange/takeAway';
import { readDate } from '@/core/time/plan';
import { door } from '@/app/server/door';
import { askedFor, isId, nothingThere, refusal } from '@/app/server/request';
import { zipOf } from '@/app/server/zip';
import { takeAway } from '@/usecases/exchange/takeAway';
import { whatToTake } from '@/usecases/exchange/whatToTake';

/** Posts with all that belongs to them as a ZIP: `?post=`, those of a `?piece=`, or of a `?brand=` `&from=` a day `&to=` another. */
export const GET = door('look', async (request, _context, { app, work }) => {
  const [post, piece] = [askedFor(request, 'post'), askedFor(request, 'piece')];
  const [from, to] = [readDate(askedFor(request, 'from')), readDate(askedFor(request, 'to'))];
  const brand = askedFor(request, 'brand');
  const what = isId(post)
    ? { post }
    : isId(piece)
      ? { piece }
      : brand !== '' && from.ok && to.ok
        ? { brand, from: from.value, to: to.value }
        : null;
  if (!what) return nothingThere('post');
  const taken = await whatToTake(work, what);
  if (!taken.ok) return refusal(taken.refusal);
  const now = app.clock.now();
  const name = `${safeName(taken.value.name, 'posts')} ${now.slice(0, 10)}.zip`;
  return new Response(zipOf(takeAway(app.db, taken.value.postIds), app.folder.media, new Date(now)), {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
      'cache-control': 'no-store',
    },
  });
});
