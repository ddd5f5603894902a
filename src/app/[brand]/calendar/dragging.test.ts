import { describe, expect, it, vi } from 'vitest';
import type { KeyboardCoordinateGetter } from '@dnd-kit/core';
import { dayPlace, type DropPlace } from '@/core/calendar/drop';
import type { Slip } from '@/core/calendar/slip';
import type { Opening } from '@/core/rhythm/openings';
import { addDays } from '@/core/time/days';
import { announcements, byPlaces, placeName, refusalFor, type Load } from './dragging';
import { dayId, hourPlace, laneId, lanePlace, nextStop, openingId, openingPlace, stageId, TRAY_ID } from './places';

const TODAY = '2026-11-23';
const dates = Array.from({ length: 14 }, (_, index) => addDays('2026-11-16', index));
const slip = {
  id: '1',
  brandId: 'b',
  channelId: 'GR',
  title: 'Rings',
  date: '2026-11-24',
  time: '10:05',
  stage: 'ready',
  delivery: null,
} as Slip;
const post: Load = { kind: 'posts', slips: [slip] };
const idea: Load = {
  kind: 'idea',
  idea: {
    id: '2',
    brandId: 'b',
    title: 'Moon',
    note: '',
    link: '',
    suggestedChannelIds: [],
    kind: 'message',
    version: 1,
  },
};
const ground = { todayOf: () => TODAY, brandOfChannel: () => 'b' };
const month = [dates.slice(0, 7), dates.slice(7)].map((week) => week.map((date) => [dayId(date)]));

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
  const getter: KeyboardCoordinateGetter = byPlaces(month, dayId(TODAY), { id: null });
  const moved = getter(
    { code, preventDefault } as unknown as KeyboardEvent,
    {
      context: {
        over: overId ? { id: overId } : null,
        active: { data: { current: { load } } },
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
    ['ArrowLeft', dayId('2026-11-23'), dayId('2026-11-22')],
    ['ArrowDown', dayId('2026-11-29'), dayId('2026-11-29')],
    ['ArrowUp', dayId('2026-11-16'), dayId('2026-11-16')],
    ['Home', dayId('2026-11-24'), TRAY_ID],
  ])('%s from %s goes to %s', (code, from, to) => expect(press(code, post, from)).toBe(to));

  it('goes from the tray to today first', () => expect(press('ArrowRight', idea, TRAY_ID)).toBe(dayId(TODAY)));
  it('starts from the post’s own day', () => expect(press('ArrowRight', post, null)).toBe(dayId('2026-11-25')));
  it('leaves other keys alone', () => expect(press('KeyA', post, null)).toBeNull());

  it('goes through the openings of a cell before it leaves the lane', () => {
    const lanes = ['GR', 'PL'].map((channel) => [
      [laneId(channel, '2026-11-24'), openingId(`${channel} a`)],
      [laneId(channel, '2026-11-25')],
    ]);
    const way = [laneId('GR', '2026-11-24')];
    for (const key of ['ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowUp', 'ArrowRight', 'ArrowUp', 'ArrowRight'])
      way.push(nextStop(lanes, way.at(-1)!, key)!);
    expect(way.slice(1)).toEqual([
      openingId('GR a'),
      laneId('PL', '2026-11-24'),
      openingId('PL a'),
      laneId('PL', '2026-11-24'),
      laneId('PL', '2026-11-25'),
      laneId('GR', '2026-11-25'),
      laneId('GR', '2026-11-25'),
    ]);
    expect(nextStop(lanes, stageId('ready'), 'ArrowUp')).toBeUndefined();
  });
});

describe('what is said while dragging', () => {
  const said = announcements(ground, () => 'Glassrow');
  const active = { data: { current: { load: post } } } as never;
  const over = (place: DropPlace) => ({ id: 'x', data: { current: place } }) as never;
  it('names the thing and the day', () => {
    expect(said.onDragStart({ active })).toBe('Lifted “Rings”.');
    expect(said.onDragOver({ active, over: over(dayPlace('2026-11-26')) })).toBe('Thursday 26 November.');
    expect(said.onDragEnd({ active, over: over({ kind: 'tray' }) })).toBe('Dropped “Rings” on the tray.');
    expect(said.onDragCancel({ active, over: null })).toBe('“Rings” is back where it was.');
  });
  it('names lane, hour, opening and stage', () => {
    const opening = { date: '2026-11-26', channelId: 'GR', time: '18:00', format: null, theme: '' } as Opening;
    const name = (place: DropPlace) => placeName(place, () => 'Glassrow');
    expect(name(lanePlace('GR', '2026-11-26'))).toBe('Thursday 26 November, Glassrow');
    expect(name(hourPlace('2026-11-26', 9))).toBe('Thursday 26 November, 09:00');
    expect(name(openingPlace(opening))).toBe('Thursday 26 November, Glassrow, 18:00');
    expect(name({ kind: 'stage', stage: 'signOff' })).toBe('sign-off');
  });
  it('says why not', () => {
    expect(said.onDragOver({ active, over: over(dayPlace('2026-11-20')) })).toBe(
      'Friday 20 November: not here, that day has passed.',
    );
    expect(said.onDragEnd({ active, over: over(dayPlace('2026-11-20')) })).toContain(
      'Not dropped: that day has passed',
    );
  });
});

describe('a drop of several', () => {
  const out = { ...slip, id: '3', stage: 'published' } as Slip;
  it('is refused only when none may fall there', () => {
    expect(refusalFor({ kind: 'posts', slips: [out, slip] }, dayPlace('2026-11-26'), ground)).toBeNull();
    expect(refusalFor({ kind: 'posts', slips: [out] }, dayPlace('2026-11-26'), ground)).toBe(
      'published posts stay as they are',
    );
    expect(refusalFor(null, { kind: 'tray' }, ground)).toBeNull();
    expect(refusalFor(post, null, ground)).toBeNull();
  });
});
