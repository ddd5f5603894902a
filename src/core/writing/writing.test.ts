import { expect, it } from 'vitest';
import type { Draft } from '../drafts/draft';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { readAnswer, readServiceAddress } from './form';
import { requestFor, writtenDraft, writtenKey } from './written';

const to = { sheet: SHIPPED_RULE_SHEETS.find(({ slug }) => slug === 'pithline')!, format: 'thread' as const };
const draft: Draft = {
  variant: null,
  words: { caption: 'Nine ropes hang on board.', hashtags: '#Rope', link: '' },
  parts: ['One is older than the ship.', 'We open each once a year.'],
  sentences: [
    { field: 'caption', text: 'Nine ropes hang on board.', origin: 'piece' },
    { field: 'parts', part: 0, text: 'One is older than the ship.', origin: 'piece' },
    { field: 'parts', part: 1, text: 'We open each once a year.', origin: 'piece' },
  ],
};
const RIGHT = ['The ferry carries nine ropes.', 'The oldest is older than she is.', 'Each is opened once a year.'];

it('a request says what is wanted, how long it may be, and how Bimlo would write it', () => {
  const request = requestFor(draft, to, 'Source.', 'en');
  expect(request.wanted.map(({ text, start }) => [text, start])).toEqual([
    [expect.any(String), 'Nine ropes hang on board.'],
    ['Part 1', 'One is older than the ship.'],
    ['Part 2', 'We open each once a year.'],
  ]);
  const caption = request.wanted[0]!;
  const longest = `${'a'.repeat(caption.most - 1)}.`;
  expect(writtenDraft(draft, to, [longest, ...RIGHT.slice(1)], 'en').ok).toBe(true);
  expect(writtenDraft(draft, to, [`a${longest}`, ...RIGHT.slice(1)], 'en').ok).toBe(false);
});

it('what a service wrote is marked as its own, paragraph by paragraph, and nothing else of the draft is another', () => {
  const made = writtenDraft(draft, to, RIGHT, 'en');
  expect(made).toMatchObject({
    ok: true,
    value: { words: { caption: RIGHT[0], hashtags: '#Rope' }, parts: RIGHT.slice(1) },
  });
  expect(made.ok && made.value.sentences.map(({ origin, text }) => [origin, text])).toEqual(
    RIGHT.map((text) => ['service', text]),
  );
  expect(made.ok && writtenKey(made.value, to)).not.toBe(writtenKey(draft, to));
});

it.each([
  ['too few texts', RIGHT.slice(1), /gave 2 texts instead of 3/],
  ['an empty text', [RIGHT[0]!, ' ', RIGHT[2]!], /empty/],
  ['half a sentence', ['The ferry carries nine ropes, and', ...RIGHT.slice(1)], /breaks off/],
  ['the same twice', [RIGHT[0]!, RIGHT[1]!, RIGHT[1]!], /the same twice/],
  ['a beginning that leans on the piece', ['He told them so that morning.', ...RIGHT.slice(1)], /leans on/],
  [
    'another language',
    [
      'Neun Taue hängen an Bord des Schiffes, und eines davon ist älter als das Schiff, auf dem sie hängen.',
      ...RIGHT.slice(1),
    ],
    /another language/,
  ],
  ['what does not fit', [`${'Rope. '.repeat(200)}End.`, ...RIGHT.slice(1)], /does not fit/],
])('%s is not taken', (_what, texts, why) => {
  const made = writtenDraft(draft, to, texts, 'en');
  expect(made.ok ? '' : made.refusal.message).toMatch(why);
});

it('an answer is a list of texts in JSON, and nothing else', () => {
  expect(readAnswer('{"texts": ["a"]}', 1)).toEqual({ ok: true, value: ['a'] });
  expect(readAnswer('{"texts": ["a\\u0000\\ud800b"]}', 1)).toEqual({ ok: true, value: ['a\ufffdb'] });
  for (const wrong of ['a', '[]', '{"texts": [1]}', '{"texts": "a"}', 'null', '{"texts": ["a", "b"]}'])
    expect(readAnswer(wrong, 1).ok).toBe(false);
});

it('an address is a page by HTTP or HTTPS, without a password, private ones too', () => {
  for (const right of ['https://write.example/x', 'http://10.0.0.7:8080/', 'http://localhost/write'])
    expect(readServiceAddress(right)).toEqual({ ok: true, value: right });
  for (const wrong of ['', 'write.example', 'file:///etc/passwd', 'https://a:b@write.example/'])
    expect(readServiceAddress(wrong).ok).toBe(false);
});
