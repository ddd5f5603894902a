import { describe, expect, it } from 'vitest';
import { outcomeInWords } from './useUploads';

const refused = (fileName: string) => ({ fileName, problem: `“${fileName}” is broken.` });

describe('what became of an upload', () => {
  it.each([
    ['all of one taken', { taken: 1, refused: [], stopped: false }, 1, null],
    ['all of many taken', { taken: 9, refused: [], stopped: false }, 9, null],
    ['the only one refused', { taken: 0, refused: [refused('a.png')], stopped: false }, 1, '“a.png” is broken.'],
    [
      'one of many refused',
      { taken: 2, refused: [refused('a.png')], stopped: false },
      3,
      'Added 2 of 3 files. One was refused: “a.png” is broken.',
    ],
    [
      'an end before all were sent',
      { taken: 40, refused: [refused('b.png')], stopped: false },
      500,
      'Added 40 of 500 files. One was refused: “b.png” is broken. 459 were not sent.',
    ],
    ['stopped', { taken: 3, refused: [], stopped: true }, 4, 'Added 3 of 4 files. 1 was not sent.'],
  ])('%s', (_what, outcome, total, words) => expect(outcomeInWords(outcome, total)).toBe(words));
});
