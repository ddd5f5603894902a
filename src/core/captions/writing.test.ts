import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { carryText } from './carry';
import { fitTexts } from './compose';
import { countMatches, replaceMatches } from './replace';
import { lengthWords, spokenSeconds, spokenWords } from './spoken';
import { NO_UNDO, recordChange, redo, undo, type UndoStack } from './undo';

const sheet = (slug: string) => SHIPPED_RULE_SHEETS.find((one) => one.slug === slug)!;

describe('carrying a text to a sibling', () => {
  const to = { headline: '', link: '' };
  const names = [{ name: 'Dr Wen Sato', handles: { glassrow: '@wen.sees.stars', pithline: '@wensato' } }];
  const from = (caption: string, hashtags = '') => ({ caption, hashtags, network: 'glassrow' });

  it('leaves what fits as it is', () =>
    expect(carryText(from('Short.\n\n▪ And kept', '#a1'), to, sheet('pithline'), [], 'fitted')).toEqual({
      caption: 'Short.\n\n▪ And kept',
      hashtags: '#a1',
      shortened: false,
    }));

  it('ends with the last sentence that fits, the link of the sibling counted in', () => {
    const sentence = 'The dome opens in an hour, and the fog is lifting now. ';
    const carried = carryText(
      from(sentence.repeat(8)),
      { headline: '', link: 'https://moor.example/a' },
      sheet('pithline'),
      [],
      'fitted',
    );
    expect(carried.caption).toBe(sentence.repeat(5).trimEnd());
    expect(carried.shortened).toBe(true);
  });

  it('cuts one long sentence at a word', () => {
    const { caption } = carryText(from('word '.repeat(100)), to, sheet('pithline'), [], 'fitted');
    expect(caption).toBe(`${'word '.repeat(63)}word…`);
    expect([...caption].length).toBeLessThanOrEqual(320);
  });

  it('leaves out the hashtags that are too many', () =>
    expect(carryText(from('x', '#a1 #b2 #c3 #d4 #e5 #f6 #g7 #h8'), to, sheet('benchfeed'), [], 'fitted').hashtags).toBe(
      '#a1 #b2 #c3 #d4 #e5 #f6',
    ));

  it('names people as they are called there, by name where they have no handle', () => {
    const text = from('With @wen.sees.stars, and @somebody.');
    expect(carryText(text, to, sheet('pithline'), names, 'asItIs').caption).toBe('With @wensato, and @somebody.');
    expect(carryText(text, to, sheet('inkfold'), names, 'asItIs').caption).toBe('With Dr Wen Sato, and @somebody.');
  });

  it('always fits when it is to be fitted, and begins as the text begins', () =>
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', maxLength: 900 }),
        fc.constantFrom('pithline', 'corkwall'),
        (text, slug) => {
          const carried = carryText(from(text), to, sheet(slug), [], 'fitted');
          const [fit] = fitTexts({ ...to, ...carried }, sheet(slug), sheet(slug).formats[0]!.format).filter(
            ({ rule }) => rule.name === 'caption',
          );
          expect(fit!.left).toBeGreaterThanOrEqual(0);
          expect(text.startsWith(carried.caption.replace(/…$/, ''))).toBe(true);
        },
      ),
    ));
});

describe('Find and replace', () => {
  it.each([
    ['Open tonight. OPEN tomorrow', 'open', false, 2],
    ['Open tonight. OPEN tomorrow', 'open', true, 0],
    ['1+1 (or 2)', '1+1 (', false, 1],
    ['', 'x', false, 0],
    ['abc', '', false, 0],
    ['Éclair éclair', 'ÉCLAIR', false, 2],
  ])('%j holds %j (case counts: %s) %i times', (text, wanted, matchCase, times) =>
    expect(countMatches(text, wanted, matchCase)).toBe(times),
  );

  it('puts in what is written, letter by letter', () =>
    expect(replaceMatches('a.b.c', '.', '$&\\1', false)).toBe('a$&\\1b$&\\1c'));

  it('leaves nothing to be found when what is put in does not hold it', () =>
    fc.assert(
      fc.property(fc.string(), fc.string({ minLength: 1, maxLength: 3 }), (text, wanted) => {
        const after = replaceMatches(text, wanted, '', true);
        expect(after.length).toBe(text.length - countMatches(text, wanted, true) * wanted.length);
      }),
    ));
});

describe('spoken length', () => {
  it.each([
    ['', 0],
    ['One two three.', 3],
    ['One. [camera turns to the dome] Two!', 2],
    ['It’s 3 o’clock – or not?', 5],
  ])('%j has %i words', (script, count) => expect(spokenWords(script)).toBe(count));

  it('is rounded up to whole seconds', () => {
    expect(spokenSeconds('word '.repeat(150), 150)).toBe(60);
    expect(spokenSeconds('word', 150)).toBe(1);
  });

  it.each([
    [0, '0 s'],
    [40, '40 s'],
    [60, '1 min'],
    [125, '2 min 5 s'],
  ])('%i s reads %s', (seconds, words) => expect(lengthWords(seconds)).toBe(words));
});

describe('steps back in a text', () => {
  const typed = (words: string, from = '', stepMs = 100): { text: string; stack: UndoStack } =>
    [...words].reduce<{ text: string; stack: UndoStack; at: number }>(
      ({ text, stack, at }, letter) => ({
        text: text + letter,
        stack: recordChange(stack, text, text + letter, at),
        at: at + stepMs,
      }),
      { text: from, stack: NO_UNDO, at: 0 },
    );

  it('go word by word', () => {
    const { text, stack } = typed('one two three');
    expect(undo(stack, text)!.text).toBe('one two');
    expect(undo(undo(stack, text)!.stack, 'one two')!.text).toBe('one');
  });

  it('go letter by letter where one paused', () => {
    const { text, stack } = typed('abc', '', 2_000);
    expect(undo(stack, text)!.text).toBe('ab');
  });

  it('go forward again, until something else is typed', () => {
    const { text, stack } = typed('one two');
    const back = undo(stack, text)!;
    expect(redo(back.stack, back.text)!.text).toBe('one two');
    expect(redo(recordChange(back.stack, back.text, 'one!', 9_000), 'one!')).toBeNull();
  });

  it('end where writing began', () => {
    expect(undo(NO_UNDO, 'x')).toBeNull();
    expect(recordChange(NO_UNDO, 'x', 'x', 0)).toBe(NO_UNDO);
  });

  it('lead back to the beginning from any changes, and forth to the end', () =>
    fc.assert(
      fc.property(fc.array(fc.string({ maxLength: 20 }), { maxLength: 60 }), (states) => {
        let text = '';
        let stack = NO_UNDO;
        states.forEach((next, index) => {
          stack = recordChange(stack, text, next, index * 300);
          text = next;
        });
        const end = text;
        for (let step = undo(stack, text); step; step = undo(stack, text)) ({ text, stack } = step);
        expect(text).toBe('');
        for (let step = redo(stack, text); step; step = redo(stack, text)) ({ text, stack } = step);
        expect(text).toBe(end);
      }),
    ));

  it('keep no more than a hundred steps and 300,000 characters', () => {
    let stack = NO_UNDO;
    for (let index = 0; index < 300; index++) stack = recordChange(stack, `${index}`, `${index + 1}`, index * 5_000);
    expect(stack.past).toHaveLength(100);
    let big = NO_UNDO;
    for (let index = 0; index < 9; index++)
      big = recordChange(big, `${index}${'x'.repeat(90_000)}`, `${index}`, index * 5_000);
    expect(big.past.length).toBeLessThanOrEqual(4);
  });
});
