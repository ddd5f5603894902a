import { describe, expect, it, vi } from 'vitest';
import type { KeyboardCoordinateGetter } from '@dnd-kit/core';
import type { Slip } from '@/core/calendar/slip';
import { addDays } from '@/core/time/plan';
import { announcements, byDays, dayId, placeOf, refusalFor, TRAY_ID, type Load } from './dragging';

const TODAY = '2026-11-23';
const dates = Array.from({ length: 14 }, (_, index) => addDays('2026-11-16', index));
const slip = { id: '1', title: 'Rings', date: '2026-11-24', stage: 'ready', delivery: null } as Slip;
const post: Load = { kind: 'post', slip };
const idea: Load = {
  kind: 'idea',
  idea: { id: '2', title: 'Moon', note: '', link: '', suggestedChannelIds: [], version: 1 },
};

/** Day cells 100 wide and 50 high in rows of seven, the tray on their left. */
const droppableRects = new Map<string, { left: number; top: number; width: number; height: number }>([
  [TRAY_ID, { left: -200, top: 0, width: 100, height: 100 }],
  ...dates.map(
    (date, index) =>
      [dayId(date), { left: (index % 7) * 100, top: Math.floor(index / 7) * 50, width: 100, height: 50 }] as const,
  ),
]);

/** The day a key moves to, by the middle of what is dragged (20 by 10). */
function press(code: string, load: Load, overId: string | null) {
  const preventDefault = vi.fn();
  const getter: KeyboardCoordinateGetter = byDays(dates, TODAY);
  const moved = getter(
    { code, preventDefault } as unknown as KeyboardEvent,
    {
      context: {
        over: overId ? { id: overId } : null,
        active: { data: { current: load } },
        droppableRects,
        collisionRect: { width: 20, height: 10 },
      },
    } as unknown as Parameters<KeyboardCoordinateGetter>[1],
  );
  if (!moved) return null;
  const [x, y] = [moved.x + 10, moved.y + 5];
  return [...droppableRects].find(
    ([, rect]) => x === rect.left + rect.width / 2 && y === rect.top + rect.height / 2,
  )?.[0];
}

describe('moving by keyboard', () => {
  it.each([
    ['ArrowRight', dayId('2026-11-24'), dayId('2026-11-25')],
    ['ArrowLeft', dayId('2026-11-24'), dayId('2026-11-23')],
    ['ArrowUp', dayId('2026-11-24'), dayId('2026-11-17')],
    ['ArrowDown', dayId('2026-11-17'), dayId('2026-11-24')],
    ['ArrowRight', dayId('2026-11-22'), dayId('2026-11-23')],
    ['ArrowDown', dayId('2026-11-29'), dayId('2026-11-29')],
    ['ArrowUp', dayId('2026-11-16'), dayId('2026-11-16')],
    ['Home', dayId('2026-11-24'), TRAY_ID],
  ])('%s from %s goes to %s', (code, from, to) => expect(press(code, post, from)).toBe(to));

  it('goes from the tray to today first', () => expect(press('ArrowRight', idea, TRAY_ID)).toBe(dayId(TODAY)));
  it('starts from the post’s own day', () => expect(press('ArrowRight', post, null)).toBe(dayId('2026-11-25')));
  it('leaves other keys alone', () => expect(press('KeyA', post, null)).toBeNull());
});

describe('what is said while dragging', () => {
  const said = announcements(TODAY);
  const active = { data: { current: post } } as never;
  it('names the thing and the day', () => {
    expect(said.onDragStart({ active })).toBe('Lifted “Rings”.');
    expect(said.onDragOver({ active, over: { id: dayId('2026-11-26') } as never })).toBe('Thursday 26 November.');
    expect(said.onDragEnd({ active, over: { id: TRAY_ID } as never })).toBe('Dropped “Rings” on the tray.');
    expect(said.onDragCancel({ active, over: null })).toBe('“Rings” is back where it was.');
  });
  it('says why not', () => {
    expect(said.onDragOver({ active, over: { id: dayId('2026-11-20') } as never })).toBe(
      'Friday 20 November: not here, that day has passed.',
    );
    expect(said.onDragEnd({ active, over: { id: dayId('2026-11-20') } as never })).toContain(
      'Not dropped: that day has passed',
    );
  });
});

it('knows places by their ids', () => {
  expect(placeOf(dayId('2026-11-20'))).toEqual({ kind: 'day', date: '2026-11-20' });
  expect(placeOf(TRAY_ID)).toEqual({ kind: 'tray' });
  expect(refusalFor(null, TRAY_ID, TODAY)).toBeNull();
  expect(refusalFor(post, undefined, TODAY)).toBeNull();
});
