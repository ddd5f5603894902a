import { describe, expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { readRuleSheet } from '../rulesheets/read';
import type { RuleSheet } from '../rulesheets/types';
import { colourDistance, contrast, readChannelColour } from './colours';

const CHANNEL_COLOURS = [
  '#2E7D50',
  '#6B7A2A',
  '#7A3B69',
  '#B4531F',
  '#3B6E7A',
  '#4A4E8C',
  '#94304B',
  '#6B5B2A',
  '#555555',
];

describe('colours', () => {
  it('have the contrast that the formula gives', () => {
    expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 5);
    expect(contrast('#777777', '#FFFFFF')).toBeCloseTo(4.48, 2);
    expect(contrast('#2E7D50', '#2E7D50')).toBe(1);
  });
  it('are as far apart as they look', () => {
    expect(colourDistance('#000000', '#FFFFFF')).toBeCloseTo(1, 3);
    expect(colourDistance('#3B5F7D', '#3B5F7D')).toBe(0);
  });
  it('of the demo’s channels can all be told apart and seen', () =>
    CHANNEL_COLOURS.forEach((color, index) => {
      const others = CHANNEL_COLOURS.filter((_, at) => at !== index).map((other) => ({ name: other, color: other }));
      expect(readChannelColour(color, others)).toEqual({ ok: true, value: color });
    }));
  it.each([
    ['green', 'badColour'],
    ['#FFF', 'badColour'],
    ['#F0E8D0', 'paleColour'],
    ['#2E7D52', 'nearColour'],
  ])('%s is refused as %s', (color, code) => {
    const read = readChannelColour(color, [{ name: 'Glassrow', color: '#2E7D50' }]);
    expect(read.ok || read.refusal.code).toBe(code);
  });
});

describe('a rule sheet of one’s own', () => {
  const base = SHIPPED_RULE_SHEETS[0]!;
  it('is fine where the shipped ones are', () =>
    SHIPPED_RULE_SHEETS.forEach((sheet) => expect(readRuleSheet(sheet)).toEqual({ ok: true, value: sheet })));
  it.each<[string, Partial<RuleSheet>, string]>([
    ['no name', { name: ' ' }, 'name'],
    ['a short name with spaces', { slug: 'my net' }, 'slug'],
    ['no main text', { fields: [] }, 'fields'],
    ['no limit', { fields: [{ ...base.fields[0]!, limit: 0 }] }, 'fields.caption'],
    ['half a character', { fields: [{ ...base.fields[0]!, limit: 10.5 }] }, 'fields.caption'],
    ['letters counted in nothing', { fields: [{ ...base.fields[0]!, unit: 'byte' as 'utf16' }] }, 'fields.caption'],
    ['wide characters of three', { fields: [{ ...base.fields[0]!, wideWeight: 3 as 2 }] }, 'fields.caption'],
    ['links of nothing', { fields: [{ ...base.fields[0]!, linkLength: 0 }] }, 'fields.caption'],
    [
      'a fold before the first letter',
      { fields: [{ ...base.fields[0]!, fold: { units: 0, lines: null } }] },
      'fields.caption',
    ],
    ['nothing composed', { fields: [{ ...base.fields[0]!, parts: [] }] }, 'fields.caption'],
    ['no label', { fields: [{ ...base.fields[0]!, label: '' }] }, 'fields.caption'],
    ['fewer hashtags than none', { hashtagLimit: -1 }, 'hashtagLimit'],
    ['no format', { formats: [] }, 'formats'],
    ['a format twice', { formats: [base.formats[0]!, base.formats[0]!] }, 'formats'],
    ['more pictures needed than taken', { formats: [{ format: 'photo', picturesMin: 3, picturesMax: 1 }] }, 'formats'],
    [
      'shapes from wide to narrow',
      { formats: [{ ...base.formats[0]!, shapes: { narrowest: 2, widest: 1 } }] },
      'formats',
    ],
    ['a width of nothing', { formats: [{ ...base.formats[0]!, minWidth: 0 }] }, 'formats'],
    [
      'slides without room for a letter',
      { formats: [{ ...base.formats[0]!, parts: { label: 'slide', most: 5, limit: 0, needs: 'picture' } }] },
      'formats',
    ],
    [
      'a video longer than it may be',
      { formats: [{ ...base.formats[0]!, video: { secondsMin: 9, secondsMax: 5, maxBytes: 1_000 } }] },
      'formats',
    ],
    [
      'a video of two gigabytes',
      { formats: [{ ...base.formats[0]!, video: { secondsMin: 1, secondsMax: 5, maxBytes: 2_000_000_000 } }] },
      'formats',
    ],
    [
      'a text nobody knows',
      { fields: [...base.fields, { ...base.fields[0]!, name: 'motto' as 'headline' }] },
      'fields.motto',
    ],
    ['pictures of no size', { pictureMaxBytes: 0 }, 'pictureMaxBytes'],
  ])('with %s is refused at its field', (_name, change, field) => {
    const read = readRuleSheet({ ...base, ...change });
    expect(read.ok || read.refusal.field).toBe(field);
  });
});
