import { describe, expect, it } from 'vitest';
import type { Candidate } from './fill';
import type { Opening } from './openings';
import { openingsLeft } from './openingsLeft';

const TODAY = '2026-11-23';
const NOW = { date: TODAY, time: '12:00' };
const opening = (channelId: string, date: string, time: string) =>
  ({ key: `${channelId} ${date} ${time}`, channelId, date, time, format: null, theme: null }) as unknown as Opening;
const post = (id: string, channelId: string, date: string | null, time: string | null = null): Candidate => ({
  id,
  channelId,
  date,
  time,
  format: 'photo',
});
const openings = [
  opening('GR', '2026-11-24', '09:00'),
  opening('GR', '2026-11-26', '18:00'),
  opening('PL', '2026-11-24', '12:00'),
];
const left = (
  slips: Candidate[],
  planned: Candidate[] | null = null,
  channels: string[] = [],
  rhythmic = ['GR', 'PL'],
) => {
  const nowOf = Object.fromEntries(rhythmic.map((id) => [id, NOW]));
  const asked = openings.filter(({ channelId }) => channelId in nowOf);
  const { openings: open, extra } = openingsLeft({ openings: asked, slips, planned, nowOf }, new Set(channels));
  return { open: open.map(({ key }) => key), extra: [...extra] };
};

describe('openings left', () => {
  it('are those that no post fills', () =>
    expect(left([post('a', 'GR', '2026-11-24')]).open).toEqual(['GR 2026-11-26 18:00', 'PL 2026-11-24 12:00']));
  it('are filled by posts that a filter hides', () =>
    expect(left([], [post('a', 'GR', '2026-11-24')]).open).toEqual(['GR 2026-11-26 18:00', 'PL 2026-11-24 12:00']));
  it('count a post where it shows, not where it was read', () =>
    expect(left([post('a', 'GR', '2026-11-26')], [post('a', 'GR', '2026-11-24')]).open).toEqual([
      'GR 2026-11-24 09:00',
      'PL 2026-11-24 12:00',
    ]));
  it('are those of the channels that show', () => expect(left([], null, ['PL']).open).toEqual(['PL 2026-11-24 12:00']));
});

describe('extra', () => {
  it('is a post to come, of a channel with a rhythm, that fills no opening', () =>
    expect(left([post('a', 'GR', '2026-11-24', '09:00'), post('b', 'GR', '2026-11-24', '15:00')]).extra).toEqual([
      'b',
    ]));
  it.each([
    ['that was today', post('a', 'GR', TODAY)],
    ['without a day', post('a', 'GR', null)],
  ])('is none %s', (_name, candidate) => expect(left([candidate]).extra).toEqual([]));
  it('is none where the channel has no rhythm', () =>
    expect(left([post('a', 'PL', '2026-11-27')], null, [], ['GR']).extra).toEqual([]));
  it('is one of a channel with a rhythm whose openings do not show', () => {
    const { extra } = openingsLeft(
      { openings, slips: [post('a', 'MG', '2026-11-27')], planned: null, nowOf: { GR: NOW, PL: NOW, MG: NOW } },
      new Set(),
    );
    expect([...extra]).toEqual(['a']);
  });
  it('is none where there are no openings at all', () =>
    expect(
      openingsLeft(
        { openings: [], slips: [post('a', 'GR', '2026-11-27')], planned: null, nowOf: { GR: NOW } },
        new Set(),
      ),
    ).toEqual({ openings: [], extra: new Set() }));
});

describe('of today', () => {
  const today = [opening('GR', TODAY, '09:00'), opening('GR', TODAY, '12:00'), opening('GR', TODAY, '18:00')];
  const left = (...slips: Candidate[]) =>
    openingsLeft({ openings: today, slips, planned: null, nowOf: { GR: NOW } }, new Set()).openings.map(
      ({ time }) => time,
    );
  it('are left those still to come, this very minute’s too', () => expect(left()).toEqual(['12:00', '18:00']));
  it('the morning’s post fills the morning’s opening and leaves the others', () =>
    expect(left(post('a', 'GR', TODAY, '09:00'))).toEqual(['12:00', '18:00']));
  it('a post without a time fills the next one still to come', () =>
    expect(left(post('a', 'GR', TODAY), post('b', 'GR', TODAY, '09:00'))).toEqual(['18:00']));
});
