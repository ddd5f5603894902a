import { describe, expect, it } from 'vitest';
import { looksTimed, readSubtitles, timesOf, type Transcript } from './subtitles';

const read = (source: string): Transcript => {
  const result = readSubtitles(source);
  if (!result.ok) throw new Error(result.refusal.message);
  return result.value;
};
const said = ({ text, cues }: Transcript) =>
  cues.map(({ start, end, inMs, outMs }) => [text.slice(start, end), inMs, outMs]);

describe('subtitles', () => {
  it('are read from SRT and from WebVTT alike', () => {
    const srt =
      '1\n00:00:01,000 --> 00:00:02,500\nNobody stole them.\n\n2\n00:00:02,600 --> 00:00:04,000\nThe sheet\nis thin.\n';
    const vtt =
      'WEBVTT - a talk\n\nNOTE made by hand\nin two lines\n\nSTYLE\n::cue { color: red }\n\nfirst\n00:01.000 --> 00:02.500 align:start position:10%\n<v Rosa Amaro>Nobody <i>stole</i> them.</v>\n\n00:02.600 --> 00:04.000\n<c.loud>The sheet</c>\nis thin.';
    for (const source of [srt, vtt, srt.replaceAll('\n', '\r\n')]) {
      const transcript = read(source);
      expect(looksTimed(source)).toBe(true);
      expect(transcript.text).toBe('Nobody stole them. The sheet is thin.');
      expect(said(transcript)).toEqual([
        ['Nobody stole them.', 1_000, 2_500],
        ['The sheet is thin.', 2_600, 4_000],
      ]);
      expect(transcript.isWordTimed).toBe(false);
    }
  });

  it('carry times of single words where these have some', () => {
    const transcript = read(
      'WEBVTT\n\n00:01.000 --> 00:03.000\nNobody <00:01.500><c>stole</c> <00:02.000><c>them.</c>',
    );
    expect(said(transcript)).toEqual([
      ['Nobody', 1_000, 1_500],
      ['stole', 1_500, 2_000],
      ['them.', 2_000, 3_000],
    ]);
    expect(transcript.isWordTimed).toBe(true);
  });

  it('of rolling captions are taken once, each line at its first time', () => {
    const transcript = read(
      [
        'WEBVTT',
        '00:00.000 --> 00:02.000\nso the rings',
        '00:02.000 --> 00:02.010\nso the rings',
        '00:02.010 --> 00:04.000\nso the rings\nare very<00:03.000><c> thin</c>',
        '00:04.000 --> 00:06.000\nare very thin\nthin as paper',
      ].join('\n\n'),
    );
    expect(transcript.text).toBe('so the rings are very thin thin as paper');
    expect(transcript.cues.map(({ inMs }) => inMs)).toEqual([0, 2_010, 3_000, 4_000]);
  });

  it('out of order, overlapping, backwards, negative and without times are mended or named', () => {
    const transcript = read(
      [
        '00:00:09,000 --> 00:00:11,000\nlast',
        '-00:00:01,000 --> 00:00:02,000\nfirst',
        'sometime --> later\nnever',
        '00:00:05,000 --> 00:00:09,500\nmiddle',
        '00:00:04,000 --> 00:00:03,000\nbackwards',
      ].join('\n\n'),
    );
    expect(said(transcript)).toEqual([
      ['first', 0, 2_000],
      ['backwards', 4_000, 4_000],
      ['middle', 5_000, 9_000],
      ['last', 9_000, 11_000],
    ]);
    expect(transcript.leftOut).toEqual([{ reason: 'untimed', text: 'never' }]);
  });

  it('begin a new paragraph with another speaker and after a long pause, and lose no word before a colon', () => {
    const transcript = read(
      [
        '00:00:01,000 --> 00:00:02,000\nROSA: Remember: look south.',
        '00:00:02,000 --> 00:00:03,000\n- When?',
        '00:00:03,000 --> 00:00:04,000\nINÊS: At nine.',
        '00:00:09,000 --> 00:00:10,000\nRemember: nine.',
      ].join('\n\n'),
    );
    expect(transcript.text).toBe('ROSA: Remember: look south. When?\n\nINÊS: At nine.\n\nRemember: nine.');
    expect(timesOf(transcript.cues, 0, 'ROSA: Remember:'.length)?.inMs).toBe(1_000);
  });

  it('five hours long are read; a file without a line of times is refused', () => {
    const cues = Array.from({ length: 9_000 }, (_, index) => {
      const at = (ms: number) => new Date(ms).toISOString().slice(11, 23).replace('.', ',');
      return `${index + 1}\n${at(index * 2_000)} --> ${at(index * 2_000 + 1_900)}\nSentence number ${index} is here.`;
    });
    const transcript = read(cues.join('\n\n'));
    expect(transcript.cues).toHaveLength(9_000);
    expect(transcript.cues.at(-1)!.outMs).toBe(8_999 * 2_000 + 1_900);
    expect(readSubtitles('WEBVTT\n\nnothing here')).toMatchObject({ ok: false, refusal: { code: 'noCues' } });
  });

  it('tell when a part of a cue is said by its share of characters', () => {
    const { cues, text } = read('00:00:10,000 --> 00:00:20,000\n0123456789');
    expect(timesOf(cues, 2, 5)).toEqual({ inMs: 12_000, outMs: 15_000 });
    expect(timesOf(cues, text.length + 2, text.length + 5)).toBeNull();
  });
});
