import { describe, expect, it } from 'vitest';
import { analyse } from '../extracts/analyse';
import { plainlyKept, readingOf } from '../reading/readSource';
import { passagesOf } from './passage';

const ROPE = `# Rope

A ferry carries six lines. Nobody counts them. The lines keep the ferry from drifting off. The springs keep the ferry from sliding along. A heaving line is thrown first. Passengers only ever watch the heaving line.

Every mooring line is tied five thousand times a year. A new rope flatters everybody, an old rope tells the truth. The inside of a rope was powder. Rope wears out from the inside, where nobody looks. You can only look after what you have written down. A red dot stands for a shock load.

- One line is left.
- Another line is left.

Short paragraph on rope. It ends here.`;

const source = (text: string) => ({
  ...{ title: '', link: '', extracts: [] },
  analysis: analyse(readingOf(plainlyKept(text)), 'en'),
});
const openings = (text: string, about: { start: number; end: number } | null = null) =>
  passagesOf(source(text), about).map((passage) => {
    const [first] = passage[0]!;
    return readingOf(plainlyKept(text)).text.slice(first!.start, first!.end);
  });

describe('a passage', () => {
  it('is whole paragraphs that follow each other, begun by a sentence that says something itself', () => {
    const [first] = openings(ROPE);
    expect(first).toBe('Every mooring line is tied five thousand times a year.');
    const all = passagesOf(source(ROPE), null);
    for (const passage of all) {
      expect(passage.flat().length).toBeGreaterThanOrEqual(6);
      expect(passage.flat().length).toBeLessThanOrEqual(14);
      for (const [at, paragraph] of passage.entries())
        if (at > 0) expect(paragraph[0]!.block).toBe(passage[at - 1]![0]!.block + 1);
    }
    expect(openings(ROPE)).not.toContain('One line is left.');
  });

  it('holds what it is to be about, or there is none', () => {
    const { text } = readingOf(plainlyKept(ROPE));
    const start = text.indexOf('The springs keep');
    expect(openings(ROPE, { start, end: start + 20 })).toEqual(expect.arrayContaining(['A ferry carries six lines.']));
    for (const opening of openings(ROPE, { start, end: start + 20 })) expect(opening).not.toMatch(/^Every mooring/);
    const end = text.indexOf('It ends here');
    expect(openings(ROPE, { start: end, end: end + 5 })).not.toContain('Short paragraph on rope.');
    expect(openings('One. Two.')).toEqual([]);
  });
});
