import type { Metadata } from 'next';
import { readFilter } from '@/core/calendar/filter';
import type { ListPeriod } from '@/core/calendar/listPeriod';
import { addDays, startOfWeek } from '@/core/time/days';
import { localOf, readDate } from '@/core/time/plan';
import { listSavedViews } from '@/usecases/calendar/reading';
import { brandOfPage } from '@/app/server/brand';
import { brandsOfCalendar } from '@/app/server/calendar';
import { ARRANGEMENTS, loadCalendar, type Arrangement, type CalendarAsk } from '@/usecases/calendar/loadCalendar';
import { loadSheet } from '@/usecases/posts/loadPosts';
import { CalendarScreen } from './CalendarScreen';
import { titleOf } from './heading';
import { readLook } from './view';

const VIEW_WORDS: Record<Arrangement, string> = {
  lanes: 'Lanes',
  month: 'Month',
  day: 'Day',
  stages: 'Stages',
  list: 'List',
};

/** Names what is seen: “Month, November 2026”. */
export async function generateMetadata({ params, searchParams }: Props): Promise<Metadata> {
  const { brand, today } = await brandOfPage((await params).brand);
  const query = await searchParams;
  const ask = askOf((name) => (typeof query[name] === 'string' ? query[name] : null), today);
  const monday = startOfWeek(ask.date, brand.weekStart);
  const seen = titleOf(ask.arrangement, ask.date, [monday, addDays(monday, 7 * ask.weeks - 1)], ask.period);
  return { title: ask.arrangement === 'stages' ? seen : `${VIEW_WORDS[ask.arrangement]}, ${seen}` };
}

interface Props {
  params: Promise<{ brand: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

/** The calendar of a brand, or of several: arranged as `?as=` says, around `?date=`, filtered, with the post `?post=` open. */
export default async function CalendarPage({ params, searchParams }: Props) {
  const page = await brandOfPage((await params).brand);
  const { db, brand, me, now, today } = page;
  const query = await searchParams;
  const get = (name: string) => (typeof query[name] === 'string' ? query[name] : null);
  const openId = /^[0-9a-f-]{36}$/.test(get('post') ?? '') ? get('post') : null;
  const ask = { ...askOf(get, today), stepsOf: stepsAsked(get, me.id) };
  const shown = await brandsOfCalendar(page, get('brands'));
  const [view, savedViews, sheet] = await Promise.all([
    loadCalendar(
      db,
      shown.map((one) => one.brand),
      shown.flatMap((one) => one.channels),
      ask,
      now,
    ),
    listSavedViews(db, brand.id, me.id),
    openId ? loadSheet(db, openId) : undefined,
  ]);
  return (
    <CalendarScreen
      asked={{ arrangement: ask.arrangement, date: ask.date, weeks: ask.weeks }}
      today={today}
      now={localOf(now, brand.zone).time}
      view={view}
      brandsShown={shown}
      savedViews={savedViews}
      openSheet={sheet && !sheet.deleted ? sheet : null}
    />
  );
}

/** Working dates show where the address asks for them: everybody's, or one's own. */
function stepsAsked(get: (name: string) => string | null, personId: string): CalendarAsk['stepsOf'] {
  if (readLook(get).dates === 'publishing') return null;
  return get('whose') === 'mine' ? { personId } : 'all';
}

function askOf(get: (name: string) => string | null, today: string): CalendarAsk & { period: ListPeriod } {
  const asked = readDate(get('date') ?? '');
  const day = asked.ok ? asked.value : today;
  const arrangement: Arrangement = ARRANGEMENTS.find((name) => name === get('as')) ?? 'lanes';
  return {
    arrangement,
    date: arrangement === 'month' ? `${day.slice(0, 7)}-01` : day,
    weeks: get('weeks') === '2' ? 2 : 1,
    period: readLook(get).period,
    filter: readFilter(get),
  };
}
