import { addDays, daysBetween, weekdayOf } from './days';
import fc from 'fast-check';
import { Temporal } from 'temporal-polyfill';
import { describe, expect, it } from 'vitest';
import { dueInstant, isZone, localOf, placePlan, readDate, readTime } from './plan';

describe('reading dates and times', () => {
  it('takes a date that exists', () => expect(readDate('2028-02-29')).toEqual({ ok: true, value: '2028-02-29' }));
  it.each(['2026-02-31', '2027-02-29', '2026-13-01', '2026-00-10', '26-11-23', '2026-11-23T10:00', '', '1899-01-01'])(
    'refuses %s',
    (text) => expect(readDate(text).ok).toBe(false),
  );
  it('names the last day of the month', () => {
    const read = readDate('2026-02-31');
    expect(read.ok || read.refusal.message).toBe('There is no 2026-02-31. That month ends on the 28.');
  });
  it('takes times to the minute', () => expect(readTime('7:05')).toEqual({ ok: true, value: '07:05' }));
  it.each(['24:00', '12:60', 'noon', '12', '12:30:15'])('refuses the time %s', (text) =>
    expect(readTime(text).ok).toBe(false),
  );
});

describe('a plan in its zone', () => {
  it('is an instant', () =>
    expect(placePlan('2026-07-01', '14:30', 'Europe/Lisbon')).toEqual({
      kind: 'real',
      instant: '2026-07-01T13:30:00.000Z',
      repeated: false,
    }));

  const zones = ['Europe/Lisbon', 'Europe/Dublin', 'America/New_York', 'Australia/Lord_Howe', 'America/Sao_Paulo'];
  const changes = zones.flatMap((zone) => {
    const found: { zone: string; at: Temporal.ZonedDateTime }[] = [];
    let at = Temporal.Instant.from('2026-01-01T00:00:00Z').toZonedDateTimeISO(zone).getTimeZoneTransition('next');
    for (let n = 0; at && n < 2; n++) {
      found.push({ zone, at });
      at = at.getTimeZoneTransition('next');
    }
    return found;
  });

  it.each(changes.map(({ zone, at }) => [zone, at.toString(), at] as const))(
    'at the clock change of %s at %s',
    (zone, _text, at) => {
      const before = at.subtract({ nanoseconds: 1 });
      const jumpMinutes = (at.offsetNanoseconds - before.offsetNanoseconds) / 6e10;
      const wallAt = at.toPlainDateTime();
      if (jumpMinutes > 0) {
        const skipped = wallAt.subtract({ minutes: 1 });
        const placed = placePlan(
          skipped.toPlainDate().toString(),
          skipped.toPlainTime().toString({ smallestUnit: 'minute' }),
          zone,
        );
        expect(placed).toEqual({
          kind: 'skipped',
          next: {
            date: wallAt.toPlainDate().toString(),
            time: wallAt.toPlainTime().toString({ smallestUnit: 'minute' }),
          },
        });
      } else {
        const placed = placePlan(
          wallAt.toPlainDate().toString(),
          wallAt.toPlainTime().toString({ smallestUnit: 'minute' }),
          zone,
        );
        expect(placed).toMatchObject({ kind: 'real', repeated: true });
        expect(
          placed.kind === 'real' && Temporal.Instant.from(placed.instant).epochMilliseconds < at.epochMilliseconds,
        ).toBe(true);
      }
    },
  );

  it('refuses a skipped time with the next real one', () => {
    const due = dueInstant('2026-03-29', '01:30', 'Europe/Lisbon');
    expect(due).toMatchObject({ ok: false, refusal: { code: 'skippedTime', field: 'time' } });
    expect(due.ok || due.refusal.message).toContain('next real time is 02:00');
  });

  it('comes back from its instant unchanged, where it exists', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 3000 }),
        fc.integer({ min: 0, max: 1439 }),
        fc.constantFrom(...zones),
        (day, minute, zone) => {
          const date = addDays('2024-01-01', day);
          const time = `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;
          const placed = placePlan(date, time, zone);
          if (placed.kind === 'skipped') return true;
          const back = localOf(placed.instant, zone);
          return back.date === date && back.time === time;
        },
      ),
    );
  });
});

describe('days', () => {
  it('counts across months', () =>
    expect([addDays('2026-11-30', 1), daysBetween('2026-11-23', '2026-12-01')]).toEqual(['2026-12-01', 8]));
  it('knows weekdays', () => expect([weekdayOf('2026-11-23'), weekdayOf('2026-11-29')]).toEqual([1, 7]));
  it('knows zones', () => expect([isZone('Europe/Lisbon'), isZone('Mars/Base')]).toEqual([true, false]));
});
