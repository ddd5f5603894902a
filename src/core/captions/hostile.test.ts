import { describe, expect, it } from 'vitest';
import { reopen } from '../encores/firstLines';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { carryText } from './carry';
import { fitTexts } from './compose';
import { hashtagsIn, readHashtags } from './hashtags';
import { linkSpans } from './links';
import { spokenSeconds } from './spoken';

const pithline = SHIPPED_RULE_SHEETS.find(({ slug }) => slug === 'pithline')!;
const TOKENS = [
  ...['#a ', '@a ', '👩‍👩‍👧', '🇦', '字。', 'e\u0301', 'http://a.b/ ', ')', '(', '_', 'a, ', '. ', '“a ', '\u200d', '[a'],
  ...['http://a.b/', 'Word is. Two, three. '],
];
/** What is done with the texts of a post beside the page that shows it. */
const DONE: Record<string, (text: string) => unknown> = {
  links: linkSpans,
  hashtags: hashtagsIn,
  'a field of hashtags': readHashtags,
  spoken: (text) => spokenSeconds(text, 150),
  fits: (caption) => fitTexts({ headline: '', caption, hashtags: 'a b', link: 'http://a.b/' }, pithline, 'text'),
  carried: (caption) =>
    carryText({ caption, hashtags: 'a', network: 'x' }, { headline: '', link: '' }, pithline, [], 'fitted'),
  reopened: (caption) =>
    reopen(
      { caption, hashtags: '', link: '' },
      { title: 'A title of it', extracts: ['One line of the piece.'] },
      pithline,
    ),
};

describe.each([100_000, 8_000])('a caption of %i characters', (size) => {
  it.each(TOKENS)('of “%s” is worked on in time that grows with its length', (token) => {
    const text = `See http://a.example/${token.repeat(Math.ceil(size / token.length))}`;
    for (const [what, work] of Object.entries(DONE)) {
      expect(growth(work, text), what).toBeLessThan(8);
    }
  });
});

/**
 * How many times as long a text takes as its first quarter: about 4 where time grows with length, 16 where it grows with the square. What
 * is there at once is not told apart from the noise; a measurement that a busy machine spoiled is made again.
 */
function growth(work: (text: string) => unknown, text: string): number {
  const once = () => {
    const quarter = taken(() => work(text.slice(0, text.length / 4)));
    return taken(() => work(text)) / Math.max(quarter, 100);
  };
  const first = once();
  return first < 8 ? first : Math.min(first, once(), once());
}

function taken(work: () => unknown): number {
  const start = performance.now();
  work();
  return performance.now() - start;
}
