import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { composeTexts, type Words } from '../captions/compose';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { wordsOfHeld } from './heldWords';
import type { HeldPost } from './network';
import { makeParcel } from './parcel';

const sheets = SHIPPED_RULE_SHEETS.flatMap((sheet) => sheet.formats.map(({ format }) => ({ sheet, format })));
const text = fc
  .array(fc.constantFrom('Rings', 'tonight', '#moon', '#rings', 'https://moor.example/a', '\n', '\n\n', '.', ' '))
  .map((words) => words.join(' '));

const sent = (words: Words, { sheet, format }: (typeof sheets)[number]) => {
  const { words: _words, ...parcel } = makeParcel({ ...words, format, pictures: [] }, { account: '@moor', sheet });
  return parcel;
};

describe('the words that a network’s texts were composed from', () => {
  it('compose to the same texts again, whatever was written', () =>
    fc.assert(
      fc.property(
        fc.record({ headline: text, caption: text, hashtags: text, link: text, preheader: text, firstComment: text }),
        fc.constantFrom(...sheets),
        (words, where) => {
          const parcel = sent(words, where);
          const found = wordsOfHeld(parcel, where.sheet);
          // What is only blank is composed to nothing, and a text of tags alone may be read as either field.
          expect(composeTexts(found, where.sheet, where.format)).toEqual(parcel.texts);
        },
      ),
    ));

  it('are told apart: caption, link and hashtags', () => {
    const words = {
      headline: '',
      caption: 'Rings tonight #moon',
      hashtags: '#rings #open',
      link: 'https://moor.example/a',
    };
    const where = sheets.find(({ sheet, format }) => sheet.slug === 'glassrow' && format === 'photo')!;
    const pithline = sheets.find(({ sheet, format }) => sheet.slug === 'pithline' && format === 'text')!;
    for (const one of [where, pithline]) {
      const found = wordsOfHeld(sent(words, one), one.sheet);
      expect(found).toMatchObject({ caption: words.caption, hashtags: words.hashtags });
    }
    expect(wordsOfHeld(sent(words, pithline), pithline.sheet).link).toBe(words.link);
  });
});

it('parts are taken over with their words and pictures', () => {
  const where = sheets.find(({ format }) => format === 'carousel')!;
  const parcel = {
    ...sent({ headline: '', caption: 'Rings', hashtags: '', link: '' }, where),
    parts: [
      { text: 'First', picture: 1 },
      { text: 'Second', picture: null },
      { text: 'Third', picture: 7 },
    ],
    pictures: ['a', 'b'].map((id) => ({ id, sha256: id, mime: 'image/png', alt: '', fileName: '', bytes: 1 })),
  } as unknown as HeldPost['parcel'];
  expect(wordsOfHeld(parcel, where.sheet).parts).toEqual([
    { id: 'held-0', text: 'First', pictureId: 'b' },
    { id: 'held-1', text: 'Second', pictureId: null },
    { id: 'held-2', text: 'Third', pictureId: null },
  ]);
});

it('texts that were not composed so stand as what was typed, without link or hashtags beside them', () => {
  const where = sheets.find(({ sheet, format }) => sheet.slug === 'pithline' && format === 'text')!;
  const texts = [{ name: 'caption' as const, text: 'Rings\n\n#moon\n\nhttps://other.example' }];
  const parcel = { ...sent({ headline: '', caption: '', hashtags: '', link: '' }, where), texts };
  expect(wordsOfHeld({ ...parcel, link: 'https://moor.example/a', hashtags: [] }, where.sheet)).toMatchObject({
    headline: '',
    caption: texts[0]!.text,
    hashtags: '',
    link: '',
  });
  expect(wordsOfHeld({ ...parcel, texts: [] }, where.sheet)).toMatchObject({ caption: '', hashtags: '', link: '' });
});
