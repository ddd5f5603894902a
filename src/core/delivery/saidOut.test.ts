import { describe, expect, it } from 'vitest';
import { readSaidOut } from './saidOut';

const ZONE = 'Europe/Lisbon';
const NOW = '2026-11-25T18:10:00.000Z';
const read = (address: string, date?: string, time = '14:30') =>
  readSaidOut({ address, at: date === undefined ? null : { date, time } }, ZONE, NOW);

describe('what is said of a post that went out', () => {
  it.each([
    ['now, at an address', read(' https://stoop.example/1 '), 'https://stoop.example/1', NOW],
    ['now, without one', read(''), '', NOW],
    ['on a day that passed', read('', '2026-11-20'), '', '2026-11-20T14:30:00.000Z'],
    ['in summer, in the zone of its brand', read('', '2026-07-20'), '', '2026-07-20T13:30:00.000Z'],
    ['at this very minute', read('', '2026-11-25', '18:10'), '', NOW],
  ])('%s', (_name, said, address, publishedAt) => expect(said).toEqual({ ok: true, value: { address, publishedAt } }));

  it.each([
    ['an address that is none', read('on the wall'), 'badAddress'],
    ['a script', read('javascript:alert(1)'), 'badAddress'],
    ['a time to come', read('', '2026-11-25', '18:11'), 'notYet'],
    ['a time that the clock jumped over', read('', '2026-03-29', '01:30'), 'skippedTime'],
  ])('is refused: %s', (_name, said, code) => expect(said).toMatchObject({ ok: false, refusal: { code } }));
});
