import { describe, expect, it } from 'vitest';
import { familyOf, type FamilyMember } from './family';

const member = (id: string, channelId: string, date: string | null, encoreOf: string | null = null): FamilyMember => ({
  ...{ id, channelId, title: id, date, isPublished: true, encoreOf },
});

describe('the family of a piece', () => {
  it('stands on one scale of time, a line for each channel in its order', () => {
    const family = familyOf(
      [
        member('a', 'PL', '2026-01-01'),
        member('b', 'GR', '2026-01-11'),
        member('c', 'PL', '2026-01-06'),
        member('d', 'PL', null),
      ],
      ['GR', 'PL', 'TC'],
      '2026-01-03',
    )!;
    expect(family).toMatchObject({ from: '2026-01-01', to: '2026-01-11', today: 0.2, undated: 1, again: [] });
    expect(family.lines.map(({ channelId, members }) => [channelId, members.map(({ id, at }) => [id, at])])).toEqual([
      ['GR', [['b', 1]]],
      [
        'PL',
        [
          ['a', 0],
          ['c', 0.5],
        ],
      ],
    ]);
  });

  it('ties each post to the next that is it again', () => {
    const posts = [
      member('a', 'GR', '2026-01-01'),
      member('b', 'GR', '2026-01-06', 'a'),
      member('c', 'GR', '2026-01-11', 'a'),
    ];
    expect(familyOf(posts, ['GR'], '2027-01-01')).toMatchObject({
      again: [
        { from: 0, to: 0.5 },
        { from: 0.5, to: 1 },
      ],
      today: null,
    });
  });

  it('of one day stands in the middle, of none is not drawn', () => {
    expect(familyOf([member('a', 'GR', '2026-01-01')], ['GR'], '2026-01-01')!.lines[0]!.members[0]!.at).toBe(0.5);
    expect(familyOf([member('a', 'GR', null)], ['GR'], '2026-01-01')).toBeNull();
  });
});
