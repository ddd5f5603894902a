import { readFilter } from '@/core/calendar/filter';
import { maybeBrandBySlug } from '@/data/brands';
import { bimlo } from '@/runtime/bimlo';
import { postsAsCalendar, postsAsCsv } from '@/usecases/takeOut';
import { nothingThere } from '@/app/server/request';

/** The posts of `?brand=` that the calendar's filter lets through, as `?file=csv` or `?file=ics`. */
export async function GET(request: Request): Promise<Response> {
  const query = new URL(request.url).searchParams;
  const app = await bimlo();
  const brand = await maybeBrandBySlug(app.db, query.get('brand') ?? '');
  if (!brand) return nothingThere('brand');
  const filter = readFilter((name) => query.get(name));
  const isCalendar = query.get('file') === 'ics';
  const now = app.clock.now();
  const text = await (isCalendar ? postsAsCalendar : postsAsCsv)(app.db, brand, filter, now);
  const name = `${brand.slug}-posts-${now.slice(0, 10)}.${isCalendar ? 'ics' : 'csv'}`;
  return new Response(text, {
    headers: {
      'content-type': isCalendar ? 'text/calendar; charset=utf-8' : 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    },
  });
}
