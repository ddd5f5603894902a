import { Readable } from 'node:stream';
import { door } from '@/app/server/door';
import { readFilter } from '@/core/calendar/filter';
import { maybeBrandBySlug } from '@/usecases/brands/reading';
import { postsAsCalendar, postsAsCsv } from '@/usecases/exchange/exportPosts';
import { noteExchange } from '@/usecases/exchange/noteExchange';
import { askedFor, nothingThere, refusal } from '@/app/server/request';
import { mayRead } from '@/usecases/rights/mustMay';

/** The posts of `?brand=` that the calendar's filter lets through, as `?file=csv` or `?file=ics`. */
export const GET = door('exchange', async (request, _context, { app, work }) => {
  const query = new URL(request.url).searchParams;
  const brand = await maybeBrandBySlug(app.db, askedFor(request, 'brand'));
  if (!brand) return nothingThere('brand');
  const allowed = await mayRead(work, 'exchange', brand.id);
  if (!allowed.ok) return refusal(allowed.refusal);
  const filter = readFilter((name) => query.get(name));
  const isCalendar = query.get('file') === 'ics';
  const now = app.clock.now();
  const texts = (isCalendar ? postsAsCalendar : postsAsCsv)(app.db, brand, filter, now);
  const name = `${brand.slug}-posts-${now.slice(0, 10)}.${isCalendar ? 'ics' : 'csv'}`;
  await noteExchange(app.db, work, 'exported', brand.id, name);
  return new Response(Readable.toWeb(Readable.from(texts, { objectMode: false })) as ReadableStream<Uint8Array>, {
    headers: {
      'content-type': isCalendar ? 'text/calendar; charset=utf-8' : 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    },
  });
});
