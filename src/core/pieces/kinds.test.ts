import { expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { channelsForKind, type PieceKind } from './kinds';

const channels = SHIPPED_RULE_SHEETS.map((sheet) => ({ id: sheet.slug, sheet }));

it.each<[PieceKind, string[]]>([
  ['talk', ['longVideo']],
  ['article', ['article', 'newsletter']],
  ['photoSet', ['carousel', 'photo']],
])('a piece that is a %s is proposed for the channels that can carry it', (kind, formats) => {
  const proposed = channelsForKind(kind, channels);
  expect(proposed.length).toBeGreaterThan(0);
  for (const { id, sheet } of channels)
    expect(proposed.includes(id)).toBe(sheet.formats.some(({ format }) => formats.includes(format)));
});

it('a message is proposed for none', () => expect(channelsForKind('message', channels)).toEqual([]));
