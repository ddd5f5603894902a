import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { fieldRule } from '../rulesheets/types';
import { composeField } from '../captions/compose';
import { countText } from '../captions/count';
import { reopen } from './firstLines';

const sheetOf = (slug: string) => SHIPPED_RULE_SHEETS.find((sheet) => sheet.slug === slug)!;
const CAPTION = 'Saturn loses its rings. The rings are thin as paper. So look now.\n\nBring a coat tonight, please.';
const NOTHING = { title: '', extracts: [] };
const again = (caption: string, piece = { title: 'Rings that vanish', extracts: ['Why do rings go away at all?'] }) =>
  reopen({ caption, hashtags: '#Saturn', link: '' }, piece, sheetOf('glassrow'));

describe('another first line', () => {
  it('is one of its own sentences that leans on none, the rest staying in its order', () => {
    const own = again(CAPTION, NOTHING).filter(({ origin }) => origin === 'itsOwn');
    expect(own.map(({ caption }) => caption)).toEqual([
      'The rings are thin as paper.\n\nSaturn loses its rings. So look now.\n\nBring a coat tonight, please.',
      'Bring a coat tonight, please.\n\nSaturn loses its rings. The rings are thin as paper. So look now.',
    ]);
  });

  it('is a sentence of the piece, or its title, put before what was said', () => {
    const others = again(CAPTION).filter(({ origin }) => origin !== 'itsOwn');
    expect(others.map(({ origin, caption }) => [origin, caption.split('\n')[0]])).toEqual([
      ['piece', 'Why do rings go away at all?'],
      ['title', 'Rings that vanish'],
    ]);
    for (const { caption } of others) expect(caption).toContain(CAPTION);
  });

  it('is none that the caption says already, and none for an empty one', () => {
    expect(again(CAPTION, { title: 'Saturn loses its rings', extracts: [] }).map(({ origin }) => origin)).not.toContain(
      'title',
    );
    expect(again('  ')).toEqual([]);
  });

  it('takes the place of the first sentence where there is no room beside it', () => {
    const sheet = sheetOf('pithline');
    const limit = fieldRule(sheet, 'caption')!.limit;
    const caption = `It goes. ${'Long words fill this. '.repeat(Math.floor((limit - 10) / 22))}`.trim();
    const [first] = reopen({ caption, hashtags: '', link: '' }, { title: 'Rings go', extracts: [] }, sheet).filter(
      ({ origin }) => origin === 'title',
    );
    expect(first?.caption.startsWith('Rings go\n\nLong words')).toBe(true);
    expect(first?.caption).not.toContain('It goes.');
  });

  it('always fits its network, and loses no word of its own unless there is no room', () => {
    const words = fc.array(
      fc.constantFrom('rings', 'The sky is wide and dark.', 'why?', 'Look up\n\n', '12 nights', 'of', '#a'),
      {
        maxLength: 60,
      },
    );
    fc.assert(
      fc.property(words, fc.constantFrom(...SHIPPED_RULE_SHEETS), (parts, sheet) => {
        const caption = parts.join(' ');
        const rule = fieldRule(sheet, 'caption');
        for (const { caption: text, origin } of reopen(
          { caption, hashtags: '#b', link: '' },
          { title: 'A title of its own', extracts: ['Something else that was said there.'] },
          sheet,
        )) {
          const sent = composeField(
            { headline: '', caption: text, hashtags: '#b', link: '' },
            rule!,
            sheet.hashtagLimit,
          );
          expect(countText(sent, rule!)).toBeLessThanOrEqual(rule!.limit);
          expect(text).not.toBe(caption);
          if (origin === 'itsOwn')
            expect(text.split(/\s+/).filter(Boolean).sort()).toEqual(caption.split(/\s+/).filter(Boolean).sort());
        }
      }),
      { numRuns: 300 },
    );
  });
});
