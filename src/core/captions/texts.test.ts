import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import type { RuleSheet } from '../rulesheets/types';
import { allHashtags, composeField, composeTexts, fitTexts, surelyFewHashtags, surelyFitsComposed } from './compose';
import { countText } from './count';
import { hashtagsIn, readHashtags, unreadHashtags } from './hashtags';
import { linkSpans } from './links';

const sheet = (slug: string): RuleSheet => SHIPPED_RULE_SHEETS.find((candidate) => candidate.slug === slug)!;
const words = { headline: '', caption: '', hashtags: '', link: '' };
const linksOf = (text: string) => linkSpans(text).map(({ start, end }) => text.slice(start, end));

describe('links', () => {
  it.each([
    ['none', 'no link here', []],
    ['in a sentence', 'See https://a.example/b, then rest.', ['https://a.example/b']],
    ['with port, query and fragment', 'http://a.example:8080/p?q=1&r=[2]#s', ['http://a.example:8080/p?q=1&r=[2]#s']],
    ['balanced brackets stay', '(https://a.example/x_(y))', ['https://a.example/x_(y)']],
    ['in quotation marks', '“https://a.example/b”', ['https://a.example/b']],
    ['before CJK punctuation', '看https://a.example/b。', []],
    ['after a CJK mark', '看：https://a.example/b。', ['https://a.example/b']],
    ['an exclamation after it', 'https://a.example!!', ['https://a.example']],
    ['an IPv6 host', 'http://[::1]:4310/x', ['http://[::1]:4310/x']],
  ])('%s', (_name, text, expected) => expect(linksOf(text)).toEqual(expected));
});

describe('hashtags', () => {
  it.each([
    ['C++', ['C++']],
    ['night-sky', ['night-sky']],
    ['2026', ['2026']],
    ['#a#b', ['#a#b']],
    ['NightSky, #rings', []],
  ])('that no network can take are named whole, never shortened: %s', (typed, unread) => {
    expect(unreadHashtags(typed)).toEqual(unread);
    expect(readHashtags(typed)).toHaveLength(unread.length === 0 ? 2 : 0);
  });
  it.each([
    ['plain', 'a #NightSky b', ['#NightSky']],
    ['at the end of a sentence', 'See #rings.', ['#rings']],
    ['digits only are none', 'we are #1', []],
    ['digits after letters', '#star7', ['#star7']],
    ['not inside a word or an address', 'a#b https://a.example/#c', []],
    ['accents and marks', '#céu #ce\u0301u', ['#céu']],
    ['Japanese, full-width sign', '＃星空 #夜', ['#星空', '#夜']],
    ['Devanagari', '#रात', ['#रात']],
    ['Arabic', '#ليل', ['#ليل']],
    ['twice is once', '#Sky #sky', ['#Sky']],
    ['a middle dot inside', '#col·lab', ['#col·lab']],
  ])('%s', (_name, text, expected) => expect(hashtagsIn(text)).toEqual(expected));

  it('reads them as people type them', () =>
    expect(readHashtags('NightSky, #rings  rings;Moon')).toEqual(['#NightSky', '#rings', '#Moon']));
});

describe('composing', () => {
  it('puts caption, link and new hashtags a blank line apart', () =>
    expect(
      composeTexts(
        { ...words, caption: 'Rings #NightSky', hashtags: '#nightsky Saturn', link: 'https://a.example' },
        sheet('pithline'),
        'text',
      ),
    ).toEqual([{ name: 'caption', text: 'Rings #NightSky\n\nhttps://a.example\n\n#Saturn' }]));

  it('does not repeat a link that the caption holds', () =>
    expect(
      composeTexts(
        { ...words, caption: 'See https://a.example today', link: 'https://a.example' },
        sheet('pithline'),
        'text',
      )[0]!.text,
    ).toBe('See https://a.example today'));

  it('does not repeat a link that stands in the caption, whatever white space is round the one beside it', () =>
    expect(
      composeTexts(
        { ...words, caption: 'See https://a.example', link: ' https://a.example\n' },
        sheet('pithline'),
        'text',
      )[0]!.text,
    ).toBe('See https://a.example'));
  it('leaves hashtags out where the network has none', () =>
    expect(
      composeTexts({ ...words, caption: 'Dear reader', hashtags: '#a1 #b2' }, sheet('lettermill'), 'newsletter')[2]!
        .text,
    ).toBe('Dear reader'));

  it('keeps the typed text as the beginning, so that marks fall where one types', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme' }),
        fc.constantFrom('', 'https://a.example'),
        fc.constantFrom('', '#one #two'),
        (caption, link, hashtags) => {
          const [fit] = fitTexts({ headline: '', caption, link, hashtags }, sheet('pithline'), 'text');
          return caption.trim() === '' || fit!.text.startsWith(caption);
        },
      ),
    );
  });

  it('counts the composed text', () => {
    const [fit] = fitTexts(
      { ...words, caption: 'x'.repeat(300), link: 'https://a.example/b' },
      sheet('pithline'),
      'text',
    );
    expect(fit).toMatchObject({ count: 333, left: -13, overAt: 302 });
  });

  it('counts hashtags of caption and field once', () =>
    expect(allHashtags({ caption: '#a1 #b2', hashtags: 'b2 c3' })).toEqual(['#a1', '#b2', '#c3']));
});

describe('what is told without composing', () => {
  const bits = fc.array(
    fc.constantFrom(
      'Rings',
      ' ',
      '#NightSky',
      '#rings',
      '＃星',
      '星空',
      '🌠',
      ',',
      '\n',
      'https://a.example',
      'www.b.example',
      '#',
    ),
    { maxLength: 12 },
  );
  const written = fc
    .record({ caption: bits, hashtags: bits, link: fc.constantFrom('', 'https://fennelmoor.example/rings') })
    .map(({ caption, hashtags, link }) => ({
      headline: '',
      caption: caption.join(''),
      hashtags: hashtags.join(' '),
      link,
    }));
  const rules = SHIPPED_RULE_SHEETS.flatMap((sheet) => sheet.fields.map((rule) => ({ rule, sheet })));

  it('that a field surely fits is said only of fields that do', () =>
    fc.assert(
      fc.property(
        written,
        fc.constantFrom(...rules),
        fc.integer({ min: 1, max: 200 }),
        (words, { rule: shipped, sheet }, limit) => {
          const rule = { ...shipped, limit };
          return (
            !surelyFitsComposed(words, rule) || countText(composeField(words, rule, sheet.hashtagLimit), rule) <= limit
          );
        },
      ),
      { numRuns: 2000 },
    ));

  it('that hashtags are surely few is said only where they are', () =>
    fc.assert(
      fc.property(written, fc.integer({ min: 0, max: 8 }), (words, most) => {
        return !surelyFewHashtags(words, most) || allHashtags(words).length <= most;
      }),
      { numRuns: 2000 },
    ));

  it('holds for usual posts, so that they are not counted', () => {
    const words = { headline: '', caption: 'The dome is open.', hashtags: '#dome #stars', link: 'https://a.example' };
    const rule = SHIPPED_RULE_SHEETS.find(({ slug }) => slug === 'pithline')!.fields.find(
      ({ name }) => name === 'caption',
    )!;
    expect([surelyFitsComposed(words, rule), surelyFewHashtags(words, 4)]).toEqual([true, true]);
  });
});
