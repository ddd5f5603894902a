import { describe, expect, it } from 'vitest';
import { clockFrom, isMovable } from './clock';

describe('the clock', () => {
  it('stands still where it is told and is moved by hand', () => {
    const clock = clockFrom('2026-11-23T11:42:00Z');
    expect(clock.now()).toBe('2026-11-23T11:42:00.000Z');
    if (!isMovable(clock)) throw new Error('it cannot be moved');
    clock.moveTo('2026-11-24T00:00:00.000Z');
    expect(clock.now()).toBe('2026-11-24T00:00:00.000Z');
  });
  it('runs otherwise, and refuses what is no instant', () => {
    expect(isMovable(clockFrom(undefined))).toBe(false);
    expect(() => clockFrom('soon')).toThrow(/BIMLO_NOW/);
  });
});
