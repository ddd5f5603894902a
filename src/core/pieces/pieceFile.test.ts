import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PIECE_KINDS } from './kinds';
import { readPieceFile, writePieceFile } from './pieceFile';
import type { HowRead } from '../reading/howRead';
import { READ_AS } from '../reading/readAs';
import { readSource } from '../reading/readSource';
import { ofEachPieceText } from './texts';

const anyLine = fc.oneof(
  fc.string({ unit: 'grapheme', maxLength: 30 }),
  fc.constantFrom('', '---', 'a: b', '"quoted"', '- list', '# 5', '{{x}}', 'null', '2026-11-30', '\u2028'),
);
const anyText = fc.array(anyLine, { maxLength: 5 }).map((lines) => lines.join('\n').replace(/\r/g, ''));

const anyWay: fc.Arbitrary<HowRead> = fc.record({
  as: fc.constantFrom(null, ...READ_AS),
  taken: fc.array(anyLine, { maxLength: 3 }),
  leftOut: fc.array(fc.record({ reason: fc.constantFrom('code' as const, 'navigation' as const), text: anyText }), {
    maxLength: 3,
  }),
});

describe('a piece as a file', () => {
  it('goes out and comes in again the same, whatever is in it', () => {
    fc.assert(
      fc.property(
        fc.record(ofEachPieceText(() => anyText)),
        fc.constantFrom(...PIECE_KINDS),
        fc.array(fc.nat(5), { maxLength: 6 }),
        anyWay,
        (texts, kind, lengths, how) => {
          let at = 0;
          const cues = lengths.flatMap((length, index) => {
            const cue = { start: at, end: at + length, inMs: index * 900, outMs: index * 900 + 700 };
            at += length + 1;
            return cue.end <= texts.sourceText.length ? [cue] : [];
          });
          const isWordTimed = cues.length > 2;
          const read = readPieceFile(writePieceFile({ ...texts, kind, cues, isWordTimed, how }))!;
          const { sourceText, ...about } = texts;
          const said = Object.fromEntries(Object.entries(about).filter(([, text]) => text !== ''));
          expect(read).toEqual({
            about: { ...said, kind },
            source: sourceText,
            cues,
            isWordTimed,
            how: { ...how, as: cues.length > 0 ? null : how.as },
          });
        },
      ),
      { numRuns: 300 },
    );
  });

  it('may be written by hand, as YAML is', () => {
    const file =
      '---\r\nfile: bimlo piece\r\ntitle: Rings, and why\r\nkind: talk\r\nnote: |\r\n  Two\r\n  lines\r\nlink: 5\r\n---\r\n# Rings';
    expect(readPieceFile(file)).toEqual({
      about: { title: 'Rings, and why', kind: 'talk', note: 'Two\nlines\n' },
      source: '# Rings',
      cues: [],
      isWordTimed: false,
      how: { as: 'markdown', taken: [], leftOut: [] },
    });
    const read = readSource(file, 'rings.md');
    expect(read.ok && [read.value.title, read.value.source]).toEqual(['Rings, and why', '# Rings']);
  });

  it.each([
    ['another’s front matter', '---\ntitle: x\n---\nText'],
    ['front matter without an end', '---\nfile: bimlo piece\nText'],
    ['what no YAML is', '---\nfile: "bimlo piece\n---\nText'],
    ['a text that speaks of it', 'file: bimlo piece'],
    ['aliases', `---\nfile: bimlo piece\na: &a [x]\nb: [*a, *a]\n---\nText`],
    ['a list', '---\n- bimlo piece\n---\nText'],
  ])('is not %s', (_name, text) => expect(readPieceFile(text)).toBeNull());

  it.each([
    ['outside of the text', [[0, 99, 0, 1]]],
    [
      'one before the other',
      [
        [2, 3, 0, 1],
        [0, 1, 1, 2],
      ],
    ],
    ['that end before they begin', [[0, 1, 5, 4]]],
    ['that are none', ['x']],
  ])('keeps its words without times %s', (_name, times) =>
    expect(readPieceFile(`---\nfile: "bimlo piece"\ntimes: ${JSON.stringify(times)}\n---\nWords`)).toMatchObject({
      source: 'Words',
      cues: [],
    }),
  );
});
