import { describe, expect, it } from 'vitest';
import { analyse } from '../extracts/analyse';
import { findClips } from '../clips/clips';
import { findExtracts } from '../extracts/extracts';
import type { FanOutGround } from '../fanOut/ground';
import { draftFanOut } from '../fanOut/draftFanOut';
import { SHIPPED_FAN_OUTS } from '../fanOut/shipped';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { plainlyKept, readingOf, readSource, type SourceText } from './readSource';

const read = (text: string, name = ''): SourceText => {
  const source = readSource(text, name);
  if (!source.ok) throw new Error(source.refusal.message);
  return source.value;
};
const extractsOf = (text: string) => findExtracts(analyse(readingOf(plainlyKept(text))));
const ground = (source: string): FanOutGround => ({
  ...{ kept: plainlyKept(source), title: 'A title', link: '', judged: [], chosen: {}, on: null },
  rows: SHIPPED_FAN_OUTS[0]!.rows,
  channels: SHIPPED_RULE_SHEETS.map((sheet) => ({ id: sheet.slug, name: sheet.name, sheet })),
  ...{ used: {}, existing: {}, shelf: { hashtags: [] }, under: null, wordsPerMinute: 150, seed: 1 },
});
const clock = (ms: number) => new Date(ms).toISOString().slice(11, 23);

describe('texts nobody would wish for', () => {
  it.each([
    ['nothing', ''],
    ['white space', ' \n\n \t'],
    ['only emoji', '😀🎉👩‍👩‍👧 '.repeat(400)],
    ['one endless word', 'x'.repeat(50_000)],
    ['one endless sentence', 'the rings of the planet go round and round '.repeat(2_000)],
    ['only marks', '?!. … — “”'.repeat(2_000)],
    ['only numbers', '1 2 3 4.5 6,7 '.repeat(3_000)],
    ['a thousand headings', '# One\n\n'.repeat(1_000)],
    ['right to left and back', 'حلقات 123 rings، '.repeat(1_000)],
  ])('%s gives extracts and drafts that are whole, or none', (_name, text) => {
    for (const { text: extract, start, end } of extractsOf(text)) {
      expect(extract.trim()).not.toBe('');
      expect(end - start).toBe(extract.length);
    }
    for (const { drafts } of draftFanOut(ground(text)).posts)
      for (const { words } of drafts) expect(words.caption ?? '').not.toMatch(/undefined|null|NaN/);
  });

  it('a page of ten megabytes full of scripts is read as its article, and nothing of it runs', () => {
    const scripts = `<script>globalThis.wasRun = true; document.title = "taken";</script>\n`;
    const paragraph =
      '<p>The rings of the planet are thin, and every fifteen years they seem to be gone for a while.</p>';
    const page = `<!doctype html><html><head><title>Rings</title>${scripts.repeat(150_000)}</head>
      <body onload="globalThis.wasRun = true"><nav>Home</nav><article><h1>Rings</h1>${paragraph.repeat(30)}</article></body></html>`;
    expect(page.length).toBeGreaterThan(10_000_000);
    const { source } = read(page, 'rings.html');
    expect(source).toContain('every fifteen years');
    expect(source).not.toContain('wasRun');
    expect((globalThis as { wasRun?: boolean }).wasRun).toBeUndefined();
  });

  it('subtitles of five hours, out of order, overlapping, without or with negative times, give clips that lie apart', () => {
    const cues = Array.from({ length: 4_500 }, (_one, at) => {
      const from = at * 4_000;
      const [start, end] = at % 50 === 7 ? [from + 3_000, from] : [from, from + (at % 9 === 0 ? 6_000 : 3_500)];
      return `${clock(start)} --> ${clock(end)}\nSentence number ${at} tells of the rings of the planet.`;
    });
    cues.reverse();
    cues.push('-00:00:05.000 --> 00:00:01.000\nBefore it began.', '--> \nNo times at all.');
    const source = read(`WEBVTT\n\n${cues.join('\n\n')}`, 'long.vtt');
    for (let at = 1; at < source.cues.length; at++)
      expect(source.cues[at]!.inMs).toBeGreaterThanOrEqual(source.cues[at - 1]!.inMs);
    const clips = findClips(analyse({ ...readingOf(source), ...source })).sort((one, other) => one.inMs - other.inMs);
    expect(clips.length).toBeGreaterThan(3);
    for (const { inMs, outMs } of clips) {
      expect(outMs - inMs).toBeGreaterThanOrEqual(15_000);
      expect(outMs - inMs).toBeLessThanOrEqual(60_000);
    }
    for (let at = 1; at < clips.length; at++)
      expect(clips[at]!.inMs - clips[at - 1]!.outMs).toBeGreaterThanOrEqual(30_000);
  });
});
