import { AS_IT_IS } from '../media/fit';
import { addDays, startOfWeek, weekdayOf } from '../time/days';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { dayPlace, formatNote, formatOn, whyNoDrop, type Dragged, type DropPlace } from './drop';
import { monthWeeks } from './month';
import { addMonths } from './months';
import { byTimeOfDay } from './order';
import { slipOf, type SlipSource } from './slip';

describe('the weeks of a month', () => {
  it('from Monday: November 2026 needs six', () => {
    const weeks = monthWeeks('2026-11-15', 1);
    expect([weeks.length, weeks[0]![0]!.date, weeks.at(-1)![6]!.date]).toEqual([6, '2026-10-26', '2026-12-06']);
  });
  it('from Sunday: November 2026 begins on one', () => {
    const weeks = monthWeeks('2026-11-15', 7);
    expect([weeks.length, weeks[0]![0]!.date, weeks.at(-1)![6]!.date]).toEqual([5, '2026-11-01', '2026-12-05']);
  });
  it('February 2027 is four weeks exactly', () => expect(monthWeeks('2027-02-10', 1)).toHaveLength(4));

  it('for any month and week start: whole weeks in order, every day of the month once, none to spare', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2400 }), fc.integer({ min: 1, max: 7 }), (index, weekStart) => {
        const month = addMonths('1950-01-01', index);
        const weeks = monthWeeks(month, weekStart);
        const days = weeks.flat();
        const inMonth = days.filter((day) => day.inMonth);
        expect(weeks.every((week) => week.length === 7 && weekdayOf(week[0]!.date) === weekStart)).toBe(true);
        expect(weeks.every((week) => week.some((day) => day.inMonth))).toBe(true);
        expect(days.every((day, at) => at === 0 || day.date === addDays(days[at - 1]!.date, 1))).toBe(true);
        expect(inMonth[0]!.day).toBe(1);
        expect(addDays(inMonth.at(-1)!.date, 1)).toBe(addMonths(month, 1));
      }),
    );
  });

  it('finds the start of a week', () =>
    expect([startOfWeek('2026-11-29', 1), startOfWeek('2026-11-29', 7), startOfWeek('2026-11-29', 6)]).toEqual([
      '2026-11-23',
      '2026-11-29',
      '2026-11-28',
    ]));
  it('turns years', () =>
    expect([addMonths('2026-11-01', 2), addMonths('2026-01-31', -1)]).toEqual(['2027-01-01', '2025-12-01']));
});

describe('the order of a day', () => {
  const post = (id: string, time: string | null, callSign = 'AA') => ({ id, date: '2026-11-23', time, callSign });
  it('is by time, untimed last, then by call sign and id', () =>
    expect(
      [post('1', null), post('2', '10:05', 'PL'), post('3', '10:05', 'GR'), post('4', '09:30')]
        .sort(byTimeOfDay)
        .map(({ id }) => id),
    ).toEqual(['4', '3', '2', '1']));
});

describe('a drop', () => {
  const post = {
    kind: 'post',
    brandId: 'moor',
    stage: 'ready',
    leaving: false,
    date: null,
    channelId: 'GR',
  } as const;
  const idea = { kind: 'idea', brandId: 'moor' } as const;
  const ground = {
    todayOf: (brandId: string) => (brandId === 'moor' ? '2026-11-23' : '2026-11-24'),
    brandOfChannel: (channelId: string) => ({ GR: 'moor', PL: 'moor', FX: 'ferry' })[channelId],
  };
  const lane = (channelId: string, date: string) => ({ ...dayPlace(date), channelId }) as DropPlace;
  it.each<[string, Dragged, DropPlace, string | null]>([
    ['an idea on today', idea, dayPlace('2026-11-23'), null],
    ['an idea on yesterday', idea, dayPlace('2026-11-22'), 'that day has passed'],
    ['where it is another day already', { ...post, brandId: 'ferry' }, dayPlace('2026-11-23'), 'that day has passed'],
    ['a post on tomorrow', post, dayPlace('2026-11-24'), null],
    ['a post on another lane of its brand', post, lane('PL', '2026-11-24'), null],
    ['a post on another brand’s lane', post, lane('FX', '2026-11-24'), 'that channel is another brand’s'],
    ['a published post', { ...post, stage: 'published' }, dayPlace('2026-11-24'), 'published posts stay as they are'],
    ['a post that is leaving, to the tray', { ...post, leaving: true }, { kind: 'tray' }, 'it is leaving right now'],
    ['a post to the tray', post, { kind: 'tray' }, null],
    ['a post to making', post, { kind: 'stage', stage: 'production' }, null],
    ['a post to published', post, { kind: 'stage', stage: 'published' }, 'published is reached by leaving'],
    ['an idea to a stage', idea, { kind: 'stage', stage: 'production' }, 'an idea needs a channel and a day first'],
  ])('%s', (_name, dragged, place, expected) => expect(whyNoDrop(dragged, place, ground)).toBe(expected));

  it('keeps the format where the network takes it, else takes its first, and says so', () => {
    const sheet = (slug: string) => SHIPPED_RULE_SHEETS.find((one) => one.slug === slug)!;
    expect(formatOn(sheet('glassrow'), 'carousel')).toBe('carousel');
    expect(formatOn(sheet('corkwall'), 'carousel')).toBe('boardPicture');
    expect(formatOn(sheet('corkwall'), null)).toBe('boardPicture');
    expect(formatNote(sheet('corkwall'), 'carousel', 'boardPicture')).toBe(
      'Corkwall takes no carousel, so it is a board picture now.',
    );
    expect(formatNote(sheet('glassrow'), 'photo', 'photo')).toBeNull();
  });
});

describe('a slip', () => {
  const glassrow = SHIPPED_RULE_SHEETS.find((sheet) => sheet.slug === 'glassrow')!;
  const picture = { sha256: 'ab', mime: 'image/png', bytes: 1, width: 1120, height: 1120, ...AS_IT_IS };
  const source: SlipSource = {
    id: '1',
    brandId: '0',
    pillarId: null,
    campaignId: null,
    repeatNumber: null,
    pieceId: '2',
    channelId: '3',
    format: 'photo',
    title: 'Moon',
    date: null,
    time: null,
    stage: 'drafting',
    ownerId: '4',
    version: 1,
    headline: '',
    caption: 'The Moon',
    hashtags: '',
    link: '',
    pictures: [],
    asked: null,
    delivery: null,
    waived: [],
    drafted: [],
    prep: null,
  };
  it('says what is missing', () =>
    expect(slipOf(source, { callSign: 'GR', sheet: glassrow }).missing).toBe('no picture'));
  it('says that its draft was not checked, until somebody touched it or said so', () => {
    const text = 'Rings are thin.';
    const post = { ...source, caption: text, pictures: [{ ...picture, alt: 'The Moon' }] };
    const missing = (drafted: SlipSource['drafted'], caption = text) =>
      slipOf({ ...post, caption, drafted }, { callSign: 'GR', sheet: glassrow }).missing;
    expect(missing([{ field: 'caption', text, origin: 'model' } as never])).toBe('draft not checked');
    expect(missing([{ field: 'caption', text, origin: 'model', isRead: true } as never])).toBeNull();
    expect(missing([{ field: 'caption', text, origin: 'model' } as never], 'Mine')).toBeNull();
  });
  it('says that it waits to be released, until it is out', () => {
    const delivery: SlipSource['delivery'] = {
      mode: 'automatic',
      state: 'waiting',
      unsure: true,
      attempts: 0,
      dueAt: '2026-11-26T14:30:00.000Z',
      isPractice: false,
      awaitsRelease: true,
    };
    const waits = (stage: 'scheduled' | 'published') =>
      slipOf({ ...source, stage, delivery }, { callSign: 'GR', sheet: glassrow }).delivery?.awaitsRelease;
    expect([waits('scheduled'), waits('published')]).toEqual([true, undefined]);
  });
  it('says nothing of what is out', () =>
    expect(slipOf({ ...source, stage: 'published' }, { callSign: 'GR', sheet: glassrow }).missing).toBeNull());
  it('shows the first picture', () =>
    expect(
      slipOf({ ...source, pictures: [{ ...picture, alt: 'The Moon' }] }, { callSign: 'GR', sheet: glassrow }),
    ).toMatchObject({ missing: null, thumb: 'ab' }));
  it('says that a picture is undescribed, unless that was waived', () => {
    const undescribed = { ...source, pictures: [{ ...picture, alt: ' ' }] };
    const missing = (post: SlipSource) => slipOf(post, { callSign: 'GR', sheet: glassrow }).missing;
    expect(missing(undescribed)).toBe('no alt text');
    expect(missing({ ...undescribed, waived: [{ key: 'alt' }] })).toBeNull();
  });
  it('shows how far its prep is, and what comes next', () => {
    const none: [number, number] = [0, 0];
    const counts = {
      words: [1, 2] as [number, number],
      picture: [0, 1] as [number, number],
      recording: none,
      editing: none,
      sending: none,
    };
    expect(
      slipOf({ ...source, prep: { counts, nextWork: 'words' } }, { callSign: 'GR', sheet: glassrow }),
    ).toMatchObject({
      progress: [
        { work: 'words', done: 1, all: 2 },
        { work: 'picture', done: 0, all: 1 },
      ],
      nextWork: 'words',
    });
  });
});
