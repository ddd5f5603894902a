import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { minutesOf, timeOf } from '../time/days';
import { chooseMinute, readWindow } from './window';

const AFTERNOON = { from: '13:00', until: '15:00' };
const choose = (seed: string, others: string[] = [], distance = 15, mayBe: (time: string) => boolean = () => true) =>
  chooseMinute(AFTERNOON, others, { distance, seed, mayBe });

describe('a minute of a window', () => {
  it('is the same for the same seed, and any of the window for others', () => {
    expect(choose('a')).toBe(choose('a'));
    const seen = new Set(Array.from({ length: 4_000 }, (_, at) => choose(`post-${at}:2026-11-26`)));
    expect(seen.size).toBe(120);
    expect([...seen].sort()[0]).toBe('13:00');
    expect([...seen].sort().at(-1)).toBe('14:59');
  });

  it('is chosen evenly', () => {
    const counts = new Array<number>(4).fill(0);
    for (let at = 0; at < 4_000; at++) counts[Math.floor((minutesOf(choose(`p${at}`)!) - 780) / 30)]!++;
    for (const count of counts) expect(Math.abs(count - 1_000)).toBeLessThan(150);
  });

  it('keeps its distance from the other posts, where any minute does', () => {
    const time = fc.integer({ min: 12 * 60, max: 16 * 60 }).map(timeOf);
    fc.assert(
      fc.property(
        fc.array(time, { maxLength: 8 }),
        fc.integer({ min: 0, max: 60 }),
        fc.string(),
        (others, distance, seed) => {
          const apartOf = (minute: number) =>
            Math.min(Infinity, ...others.map((other) => Math.abs(minutesOf(other) - minute)));
          const most = Math.max(...Array.from({ length: 120 }, (_, at) => apartOf(780 + at)));
          const chosen = choose(seed, others, distance)!;
          expect(chosen >= '13:00' && chosen < '15:00').toBe(true);
          expect(apartOf(minutesOf(chosen))).toBeGreaterThanOrEqual(Math.min(distance, most));
        },
      ),
    );
  });

  it('is one that may be, or none', () => {
    expect(choose('a', [], 15, (time) => time >= '14:58')).toMatch(/^14:5[89]$/);
    expect(choose('a', [], 15, () => false)).toBeNull();
  });
});

it('a window ends after it begins, and is no shorter than the distance of its channel', () => {
  const codeOf = (from: string, until: string) => {
    const read = readWindow({ from, until }, 15);
    return read.ok ? 'fine' : read.refusal.code;
  };
  expect(codeOf('13:00', '13:15')).toBe('fine');
  expect(codeOf('13:00', '13:14')).toBe('shortWindow');
  expect(codeOf('13:00', '13:00')).toBe('badWindow');
  expect(codeOf('13:00', '12:00')).toBe('badWindow');
});
