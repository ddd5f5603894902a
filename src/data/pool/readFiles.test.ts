import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { writeCsvRows } from '@/core/exchange/csvText';
import { planImport, startMapping } from '@/core/exchange/planImport';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { closePool } from './pool';
import { planRows, readCsvFile, readDatesFile } from './readFiles';
import { longestAway } from './testAway';

const bytes = (text: string) => new TextEncoder().encode(text);
const SPAN = { from: '2026-01-01', to: '2028-12-31' };
const event = (...lines: string[]) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT'];
const calendar = (...events: string[][]) => bytes(['BEGIN:VCALENDAR', ...events.flat(), 'END:VCALENDAR'].join('\r\n'));
const dates = async (file: Uint8Array) => {
  const read = await readDatesFile(file, SPAN, 'Europe/Lisbon');
  if (!read.ok) throw new Error(read.refusal.message);
  return read.value;
};

// The first thread takes its time to start.
beforeAll(async () => void (await readCsvFile(bytes('a,b\n1,2'))));
afterAll(closePool);

/** The loop may be away so long on a busy machine, in milliseconds; the work itself takes many times that. */
const AWAY_MS = 3_000;

describe('files that would take for ever', () => {
  const feast = event('SUMMARY:Feast', 'DTSTART;VALUE=DATE:20261208');
  it.each([
    ['a day that its month never has', 'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30', /no month it names has/],
    ['an interval of ages', 'FREQ=DAILY;INTERVAL=999999999', /too seldom/],
    ['steps that never meet their weekday', 'FREQ=DAILY;INTERVAL=7;BYDAY=MO', /too long|too often/],
  ])(
    '%s spoils its own event only',
    async (_name, rule, reason) => {
      const file = calendar(event('SUMMARY:Odd', 'DTSTART;VALUE=DATE:20260101', `RRULE:${rule}`), feast);
      const { away, done: read } = await longestAway(() => dates(file));
      expect(away).toBeLessThan(AWAY_MS);
      expect(read.dates.map(({ title }) => title)).toEqual(['Feast']);
      expect(read.bad).toMatchObject([{ line: 2, reason: expect.stringMatching(reason) }]);
    },
    30_000,
  );

  it('a quarter of a million exceptions, and quotes without end, keep nobody waiting', async () => {
    const day = (n: number) => new Date(Date.UTC(2026, 0, 1 + n)).toISOString().slice(0, 10).replaceAll('-', '');
    const exdates = Array.from(
      { length: 250 },
      (_, row) => `EXDATE;VALUE=DATE:${Array.from({ length: 1_000 }, (_, n) => day(row * 1_000 + n)).join(',')}`,
    );
    const file = calendar(event('SUMMARY:Odd', 'DTSTART;VALUE=DATE:20260101', 'RRULE:FREQ=DAILY', ...exdates), feast);
    const csv = bytes('"a'.repeat(1_000_000));
    const both = () => Promise.all([readDatesFile(file, SPAN, 'Europe/Lisbon'), readCsvFile(csv)]);
    const { away, done } = await longestAway(both);
    expect(away).toBeLessThan(AWAY_MS);
    for (const read of done) expect(read.ok || read.refusal.field === 'file').toBe(true);
  }, 60_000);
});

it('a file with long lists is planned beside the event loop, as it would be on it', async () => {
  const steps = JSON.stringify(Array.from({ length: 50 }, (_, n) => ({ title: `Ask ${n}`, lead: n % 9 })));
  const rows = Array.from({ length: 1_000 }, (_, n) => [`Row ${n}`, 'pithline', '2026-12-10', steps]);
  const read = await readCsvFile(bytes(writeCsvRows([['title', 'channel', 'date', 'steps'], ...rows])));
  if (!read.ok) throw new Error(read.refusal.message);
  const channel = {
    id: 'pl',
    name: 'Pithline',
    callSign: 'PL',
    sheet: SHIPPED_RULE_SHEETS.find(({ slug }) => slug === 'pithline')!,
  };
  const people = { people: [], pillars: [], campaigns: [] };
  const ground = { channels: [channel], ...people, zone: 'Europe/Lisbon', today: '2026-11-23' };
  const mapping = startMapping(read.value, { title: 0, channel: 1, date: 2, steps: 3 }, null);
  const begun = performance.now();
  const here = planImport(read.value, mapping, ground);
  const tookMs = performance.now() - begun;
  const { away, done: planned } = await longestAway(() => planRows(read.value, mapping, ground));
  expect(away).toBeLessThan(tookMs / 2);
  expect(planned).toEqual({ ok: true, value: here });
  expect(here.rows).toHaveLength(1_000);
});
