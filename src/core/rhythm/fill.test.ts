import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Format } from '../rulesheets/types';
import { minutesOf, timeOf } from '../time/days';
import { fillOpenings, pairDay, type Candidate, type Place } from './fill';

const DAY = '2026-11-23';
const opening = (key: string, time: string, format: Format | null = null, date = DAY): Place => ({
  key,
  channelId: 'c',
  date,
  time,
  format,
});
const post = (id: string, time: string | null, format: Format = 'photo', date: string | null = DAY): Candidate => ({
  id,
  channelId: 'c',
  date,
  time,
  format,
});
const paired = (openings: Place[], posts: Candidate[]) => Object.fromEntries(pairDay(openings, posts));

describe('filling openings', () => {
  it('two posts between two openings: each takes the one on its side, in the order of time', () =>
    expect(
      paired([opening('early', '09:00'), opening('late', '18:00')], [post('b', '14:00'), post('a', '12:00')]),
    ).toEqual({ early: 'a', late: 'b' }));

  it('a post nearer to the second opening takes it, and the first stays open', () =>
    expect(paired([opening('early', '09:00'), opening('late', '18:00')], [post('a', '15:00')])).toEqual({ late: 'a' }));

  it('a format that does not match does not fill; another may, though it is farther', () =>
    expect(
      paired([opening('o', '09:00', 'carousel')], [post('near', '09:00', 'photo'), post('far', '20:00', 'carousel')]),
    ).toEqual({ o: 'far' }));

  it('as many pairs as possible come first, even where they lie farther apart', () =>
    expect(
      paired(
        [opening('any', '09:00'), opening('photo', '18:00', 'photo')],
        [post('p', '09:00', 'photo'), post('t', '09:00', 'text')],
      ),
    ).toEqual({ any: 't', photo: 'p' }));

  it('a date without a time takes what is left, the earliest first', () =>
    expect(
      paired(
        [opening('1', '08:00'), opening('2', '12:00'), opening('3', '18:00')],
        [post('timed', '09:00'), post('untimed', null)],
      ),
    ).toEqual({ 1: 'timed', 2: 'untimed' }));

  it('a date without a time does not push a timed post out', () =>
    expect(paired([opening('1', '08:00')], [post('untimed', null), post('timed', '20:00')])).toEqual({ 1: 'timed' }));

  it('posts without a time take the earliest openings in their order, whatever the order they are given in', () => {
    const openings = [opening('3', '18:00'), opening('1', '08:00'), opening('2', '12:00')];
    expect(paired(openings, [post('b', null), post('a', null)])).toEqual({ 1: 'a', 2: 'b' });
    expect(paired(openings, [post('b', null), post('c', null), post('a', null)])).toEqual({ 1: 'a', 2: 'b', 3: 'c' });
  });

  it('of posts at one minute the first by id takes the earlier opening, and of openings the first by key', () => {
    expect(paired([opening('y', '09:00'), opening('x', '09:00')], [post('b', '10:00'), post('a', '10:00')])).toEqual({
      x: 'a',
      y: 'b',
    });
    expect(paired([opening('1', '09:00')], [post('b', '10:00'), post('a', '10:00')])).toEqual({ 1: 'a' });
  });

  it('where two are as near, the earlier post and the earlier opening are paired', () => {
    expect(paired([opening('noon', '12:00')], [post('late', '13:00'), post('early', '11:00')])).toEqual({
      noon: 'early',
    });
    expect(paired([opening('b', '15:00'), opening('a', '09:00')], [post('p', '12:00')])).toEqual({ a: 'p' });
    const many = Array.from({ length: 5 }, (_, n) => post(`${n}`, null));
    expect(paired([opening('b', '15:00'), opening('a', '09:00')], many.reverse())).toEqual({ a: '0', b: '1' });
  });

  it('keeps channels and days apart, and names what is extra', () => {
    const fill = fillOpenings(
      [opening('mon', '09:00'), opening('tue', '09:00', null, '2026-11-24')],
      [
        post('a', '09:00'),
        post('b', '11:00'),
        { ...post('other', '09:00', 'photo', '2026-11-24'), channelId: 'd' },
        post('undated', null, 'photo', null),
      ],
    );
    expect([...fill.filledBy]).toEqual([['mon', 'a']]);
    expect([...fill.extra].sort()).toEqual(['b', 'other']);
  });

  it('has nothing to do with nothing', () =>
    expect(fillOpenings([], [])).toEqual({ filledBy: new Map(), extra: new Set() }));
});

/** What a pairing is judged by. */
interface Worth {
  pairs: number;
  untimed: number;
  minutes: number;
}

/** The best worth of any pairing, by trying all of them. */
function bestByTrying(openings: readonly Place[], posts: readonly Candidate[]): Worth {
  let best: Worth = { pairs: 0, untimed: 0, minutes: 0 };
  const isBetter = (a: Worth, b: Worth) =>
    a.pairs !== b.pairs ? a.pairs > b.pairs : a.untimed !== b.untimed ? a.untimed < b.untimed : a.minutes < b.minutes;
  const go = (place: number, left: readonly Candidate[], worth: Worth) => {
    if (place === openings.length) {
      if (isBetter(worth, best)) best = worth;
      return;
    }
    go(place + 1, left, worth);
    const here = openings[place]!;
    for (const candidate of left)
      if (here.format === null || here.format === candidate.format)
        go(
          place + 1,
          left.filter((other) => other !== candidate),
          {
            pairs: worth.pairs + 1,
            untimed: worth.untimed + (candidate.time === null ? 1 : 0),
            minutes: worth.minutes + distance(here, candidate),
          },
        );
  };
  go(0, posts, best);
  return best;
}

const distance = (place: Place, candidate: Candidate): number =>
  candidate.time === null ? 0 : Math.abs(minutesOf(place.time) - minutesOf(candidate.time));

describe('against trying every pairing', () => {
  const time = fc.integer({ min: 0, max: 47 }).map((half) => timeOf(half * 30));
  const format = fc.constantFrom<Format>('photo', 'text', 'carousel');
  const openings = fc
    .array(fc.tuple(time, fc.option(format, { nil: null })), { maxLength: 4 })
    .map((list) => list.map(([at, asked], index) => opening(`o${index}`, at, asked)));
  const posts = fc
    .array(fc.tuple(fc.option(time, { nil: null, freq: 4 }), format), { maxLength: 5 })
    .map((list) => list.map(([at, kind], index) => post(`p${index}`, at, kind)));

  it('agrees on count, on posts without a time, on total distance; and keeps the order of time', () => {
    fc.assert(
      fc.property(openings, posts, (someOpenings, somePosts) => {
        const pairs = [...pairDay(someOpenings, somePosts)].map(([key, id]) => ({
          place: someOpenings.find((one) => one.key === key)!,
          candidate: somePosts.find((one) => one.id === id)!,
        }));
        expect(new Set(pairs.map(({ candidate }) => candidate.id)).size).toBe(pairs.length);
        for (const { place, candidate } of pairs)
          expect(place.format === null || place.format === candidate.format).toBe(true);
        expect({
          pairs: pairs.length,
          untimed: pairs.filter(({ candidate }) => candidate.time === null).length,
          minutes: pairs.reduce((sum, { place, candidate }) => sum + distance(place, candidate), 0),
        }).toEqual(bestByTrying(someOpenings, somePosts));
        const fits = (place: Place, candidate: Candidate) => place.format === null || place.format === candidate.format;
        for (const a of pairs)
          for (const b of pairs)
            if (a.candidate.time !== null && b.candidate.time !== null && a.place.time < b.place.time) {
              const crossed = a.candidate.time > b.candidate.time;
              const mayExchange = fits(a.place, b.candidate) && fits(b.place, a.candidate);
              expect(crossed && mayExchange).toBe(false);
            }
      }),
      { numRuns: 2_000 },
    );
  });
});

describe('of today', () => {
  const openings = [opening('morning', '09:00'), opening('evening', '18:00')];
  const filled = (posts: Candidate[], time: string) =>
    Object.fromEntries(fillOpenings(openings, posts, { date: DAY, time }).filledBy);
  it('a post without a time fills the next opening that is still to come, and none that is over', () => {
    expect(filled([post('a', null)], '08:59')).toEqual({ morning: 'a' });
    expect(filled([post('a', null)], '09:00')).toEqual({ morning: 'a' });
    expect(filled([post('a', null)], '09:01')).toEqual({ evening: 'a' });
    expect(Object.keys(filled([post('a', null), post('b', null)], '12:00'))).toEqual(['evening']);
    expect(filled([post('a', null)], '18:01')).toEqual({});
  });
  it('one with a time fills the opening it stands at, over or not', () =>
    expect(filled([post('a', '09:10'), post('b', null)], '12:00')).toEqual({ morning: 'a', evening: 'b' }));
});
