import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainlyKept } from '../reading/readSource';
import { correctionsOf, sayingOf, type Correction } from './corrections';
import { correctText } from './correctText';

const saying = (source: string, { title = 'Low tide', link = '' } = {}) =>
  sayingOf({ ...plainlyKept(source), title, link });
const between = (before: string, now: string): Correction[] => correctionsOf(saying(before), saying(now));
const corrected = (text: string, before: string, now: string) => correctText(text, between(before, now)).text;

const WALK = `The walk over the flats begins at 14:30 at the harbour. Tickets cost €12 for grown-ups. Our guide is Mira Solberg, who has led it for nine years.

Bring boots. The mud is deep near the old wreck.`;

describe('what a piece says otherwise', () => {
  it('is a sentence that was corrected, with the words that are others', () => {
    expect(between(WALK, WALK.replace('14:30', '15:15'))).toEqual([
      {
        of: 'sentence',
        before: 'The walk over the flats begins at 14:30 at the harbour.',
        after: 'The walk over the flats begins at 15:15 at the harbour.',
        changes: [{ from: '14:30', to: '15:15', left: 'at', right: 'at' }],
      },
    ]);
  });

  it('is a sentence that is gone, and none that only moved, or stands in another', () => {
    expect(between(WALK, WALK.replace(' The mud is deep near the old wreck.', ''))).toMatchObject([
      { before: 'The mud is deep near the old wreck.', after: null },
    ]);
    const [one, other] = WALK.split('\n\n');
    expect(between(WALK, `${other}\n\n${one}`)).toEqual([]);
    expect(between(WALK, `${WALK}\n\nDogs stay on the lead.`)).toEqual([]);
  });

  it('is its title and its link', () => {
    const [before, now] = [saying(WALK, { link: 'https://tide.example/a' }), saying(WALK, { title: 'Spring tide' })];
    expect(correctionsOf(before, now)).toMatchObject([
      { of: 'title', before: 'Low tide', after: 'Spring tide' },
      { of: 'link', before: 'https://tide.example/a', after: null },
    ]);
  });

  it('are words apart by a blank together: a day and its month', () => {
    const [change] = between('We meet on 5 December in the hall.', 'We meet on 12 January in the hall.');
    expect(change!.changes).toEqual([{ from: '5 December', to: '12 January', left: 'on', right: 'in' }]);
  });

  it('is nothing for two texts that have nothing to do with one another but what is gone', () => {
    const all = between(WALK, 'Something else entirely stands here now.');
    expect(all.every(({ after }) => after === null)).toBe(true);
    expect(all).toHaveLength(5);
  });
});

describe('a text made from a piece', () => {
  it('has a sentence that stands whole replaced', () => {
    expect(
      corrected('Mud!\n\nTickets cost €12 for grown-ups.', WALK, WALK.replace('Tickets cost €12', 'Entry costs €14')),
    ).toBe('Mud!\n\nEntry costs €14 for grown-ups.');
  });

  it('has a time, a price or a name replaced where it is said otherwise', () => {
    const now = WALK.replace('14:30', '15:15').replace('€12', '€14').replace('Solberg', 'Solheim');
    expect(corrected('Harbour, 14:30: we go. €12 for grown-ups! With Mira Solberg.', WALK, now)).toBe(
      'Harbour, 15:15: we go. €14 for grown-ups! With Mira Solheim.',
    );
  });

  it('keeps a figure that is about something else, or only a part of another', () => {
    const now = WALK.replace('€12', '€14');
    const other = 'Twelve of us came, and 12 seals watched. It is 12.50 m deep, tickets at no. 1,12.';
    expect(corrected(other, WALK, now)).toBe(other);
  });

  it('has any other word replaced only between the same words', () => {
    const now = WALK.replace('deep near', 'deepest near');
    expect(corrected('Careful: the mud is deep near the old wreck!', WALK, now)).toContain('is deepest near');
    expect(corrected('The sea is deep. The old wreck is rusty.', WALK, now)).toContain('sea is deep.');
  });

  it('keeps what stands there as it is said by now', () => {
    const [before, now] = [saying(WALK, { title: 'Low tide' }), saying(WALK, { title: 'Low tide in May' })];
    expect(correctText('Low tide in May: come along', correctionsOf(before, now))).toMatchObject({ made: [] });
    expect(correctText('Low tide: come along', correctionsOf(before, now)).text).toBe('Low tide in May: come along');
  });

  it('is told what of it the piece no longer says, which stays', () => {
    const found = correctText(
      'The mud is deep near the old wreck. Boots on!',
      between(WALK, WALK.split(' The mud')[0]!),
    );
    expect(found).toEqual({ text: 'The mud is deep near the old wreck. Boots on!', made: [], gone: [0] });
  });

  it('has its address replaced, and no longer one that begins with it', () => {
    const [before, now] = ['https://tide.example/a', 'https://tide.example/b'].map((link) => saying(WALK, { link }));
    const found = correctText('https://tide.example/a and https://tide.example/abc', correctionsOf(before!, now!));
    expect(found.text).toBe('https://tide.example/b and https://tide.example/abc');
  });

  it.each([
    [
      'Wir treffen uns am 5. Dezember um 19 Uhr an der Mole.',
      '19 Uhr',
      '20 Uhr',
      'Mole, 5. Dezember, 19 Uhr: wir treffen uns.',
    ],
    ['開演は十二月五日の午後七時です。', '七時', '八時', '開演は十二月五日の午後七時です。'],
  ])('is corrected in any language: %s', (before, from, to, post) => {
    expect(corrected(post, before, before.replace(from, to))).toContain(to);
  });

  it('is what the piece says once more after it was corrected: nothing is left to correct', () => {
    const place = fc.constantFrom('14:30', '€12', 'Solberg', 'nine years', 'harbour', 'deep');
    const put = fc.constantFrom('16:45', '€15', 'Aas', 'two summers', 'quay', 'cold');
    fc.assert(
      fc.property(place, put, fc.array(fc.nat(4), { maxLength: 4 }), (from, to, chosen) => {
        const corrections = between(WALK, WALK.replace(from, to));
        const sentences = saying(WALK).sentences;
        const post = chosen.map((at) => sentences[at % sentences.length]).join('\n');
        const once = correctText(post, corrections);
        expect(correctText(once.text, corrections).made).toEqual([]);
        expect(once.text.includes(from)).toBe(false);
      }),
    );
  });
});
