import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { takeApart } from '../extracts/takeApart';
import { readArticle } from './htmlArticle';
import { isQuick, parseMarkdown } from './markdown';
import { plainlyKept, readingOf, readSource } from './readSource';
import { maybeReadMarkdown, MOST_BLOCKS, readMarkdown, readPlain } from './readingText';

const kinds = (source: string) => {
  const { text, blocks } = readMarkdown(source);
  return blocks.map(({ kind, start, end }) => [kind, text.slice(start, end)]);
};

describe('a text as a person reads it', () => {
  it('has no marks in it, and its blocks are told apart', () => {
    const source =
      '---\ntitle: x\n---\n# Rings\n\nThey **vanish**, as [the log](https://a.example/b) says,\nin `pencil` &amp; ink.\n\n> No ring.\n\n3. Look\n4. Wait\n   - an hour\n\n```\ncode\n```\n<script>alert(1)</script>\n\n![a dome](x.png)';
    expect(kinds(source)).toEqual([
      ['heading', 'Rings'],
      ['paragraph', 'They vanish, as the log says, in pencil & ink.'],
      ['quote', 'No ring.'],
      ['listItem', 'Look'],
      ['listItem', 'Wait'],
      ['listItem', 'an hour'],
    ]);
    const reading = readMarkdown(source);
    expect(reading.title).toBe('Rings');
    expect(reading.blocks.map(({ number }) => number)).toEqual([undefined, undefined, undefined, 3, 4, undefined]);
  });

  it('is read as plain text where it is nested too deeply, or has too many paragraphs', () => {
    const deep = `${'> '.repeat(500)}rings`;
    expect(maybeReadMarkdown(deep)).toBe('tooIntricate');
    expect(readMarkdown(deep).blocks).toHaveLength(1);
    expect(readMarkdown(deep)).toMatchObject({ text: expect.stringContaining('rings') as string, isPlain: true });
    expect('isPlain' in readMarkdown('> rings')).toBe(false);
    const many = 'a\n\n'.repeat(MOST_BLOCKS + 5);
    expect(maybeReadMarkdown(many)).toBe('tooManyParagraphs');
    const { text, blocks } = readMarkdown(many);
    expect(blocks.length).toBeLessThanOrEqual(MOST_BLOCKS);
    expect(text.match(/a/g)).toHaveLength(MOST_BLOCKS + 5);
    expect(readSource(deep, 'deep.md')).toMatchObject({ ok: false, refusal: { code: 'tooIntricate' } });
    expect(readSource(many)).toMatchObject({
      refusal: { code: 'tooManyParagraphs', message: expect.stringContaining('more than 10,000 paragraphs') as string },
    });
  });

  it('is not read once more where it was read before', () => {
    const reading = readPlain('*Rings*');
    expect(readingOf({ ...plainlyKept('*Rings*'), reading })).toBe(reading);
    expect(takeApart({ ...plainlyKept('*Rings*'), reading }).text).toBe('*Rings*');
  });

  it('is never nested too deeply where it is quick to parse, so that an editor shows it', () => {
    const steps = Array.from({ length: 240 }, (_, level) => `${'  '.repeat(level)}- a`).join('\n');
    expect([parseMarkdown(steps), isQuick(steps)]).toEqual([null, false]);
    const token = fc.constantFrom(
      '*a ',
      '**a *b ',
      '[',
      '](x)',
      '> ',
      '- ',
      '  ',
      '\n',
      '\n    - ',
      '1. ',
      '~~',
      '_a_',
    );
    fc.assert(
      fc.property(fc.array(token, { maxLength: 1_500 }), (parts) => {
        const source = parts.join('');
        if (isQuick(source)) expect(parseMarkdown(source)).not.toBeNull();
      }),
      { numRuns: 60 },
    );
  });

  it('lies where its blocks say, whatever was written', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 200 }), (source) => {
        const { text, blocks } = readMarkdown(source);
        expect(blocks.map(({ start, end }) => text.slice(start, end)).join('\n\n')).toBe(text);
      }),
    );
  });
});

describe('the article of a page', () => {
  const PAGE = `<!doctype html><html><head><title>Rings — Fennel Moor</title><script>throw new Error('ran')</script></head><body>
    <nav><a href="/">Home</a> <a href="/visit">Visit us</a></nav>
    <article><h1>Rings that vanish</h1>
    ${'<p>Every fifteen years the planet tips so far that we look along its rings, and a small telescope shows nothing round it at all.</p>'.repeat(6)}
    <h2>What to do</h2><ol><li>Look for the <b>moons</b>.</li><li>Read 1. the *log* book.</li></ol>
    <blockquote>No ring, no ring.</blockquote><style>p{color:red}</style></article>
    <footer>Opening hours: Friday. Cookie settings.</footer></body></html>`;

  it('is taken out of it as Markdown, and nothing of the page runs', () => {
    const article = readArticle(PAGE);
    if (!article.ok) throw new Error(article.refusal.message);
    const { title, markdown } = article.value;
    expect(title).toContain('Rings');
    expect(markdown).not.toMatch(/Visit us|Cookie|color:red|ran/);
    const read = kinds(markdown);
    expect(read).toContainEqual(['heading', 'What to do']);
    expect(read).toContainEqual(['listItem', 'Look for the moons.']);
    expect(read).toContainEqual(['listItem', 'Read 1. the *log* book.']);
    expect(read).toContainEqual(['quote', 'No ring, no ring.']);
  });

  it('holds all sections of a page, of which a reader takes the longest, and what introduces them', () => {
    const prose = (word: string, times: number, tag = 'p') =>
      `<${tag}>The ${word} of our harbour is taken down each winter, oiled, and hung up again before the boats go out in spring.</${tag}>`.repeat(
        times,
      );
    const page = `<html><head><title>Keeping</title></head><body><ul><li><a href="/">Back</a></li></ul><div class="section"><h1>Keeping</h1>${prose('flag', 2, 'div')}
      <div class="section"><h2>Ropes</h2>${prose('rope', 3, 'div')}</div>
      <div class="section"><h2>Lamps</h2><div class="section">${prose('lamp', 14)}</div><div class="section">${prose('bell', 12)}</div></div></div>
      <div class="comments"><div class="section">${prose('gull', 3)}</div></div>
      <div class="teasers"><p><a href="/a">The oldest of our harbours is taken down each winter and oiled, and this is why</a></p></div></body></html>`;
    const article = readArticle(page);
    if (!article.ok) throw new Error(article.refusal.message);
    const { markdown } = article.value;
    for (const word of ['flag', 'rope', 'lamp', 'bell']) expect(markdown).toContain(`The ${word} of`);
    expect(markdown).not.toMatch(/gull|oldest|Back/);
  });

  it('has its definitions as items that name what they define, and lines that hold old marks whole', () => {
    const prose =
      '<p>Every harbour of this coast keeps its ropes, its bells and its boats in a house that nobody locks.</p>';
    const article = readArticle(
      `<article>${prose.repeat(6)}<dl><dt>the <i>bell</i>:</dt><dd><p>rings at six,</p><p>every day</p></dd><dt>rope</dt><dt>line</dt><dd>holds the boats</dd><dt>gull</dt></dl><p>It is kept dry (<acronym>KD</acronym>) all year.</p></article>`,
    );
    if (!article.ok) throw new Error(article.refusal.message);
    expect(article.value.markdown.split('\n').slice(-6).filter(Boolean)).toEqual([
      '- the bell: rings at six,',
      '- every day',
      '- rope, line: holds the boats',
      '- gull',
      'It is kept dry (KD) all year.',
    ]);
  });

  it('without text is refused, and any bytes are survived', () => {
    for (const html of ['', '<html></html>', '<script>1</script>', '<p> </p>'])
      expect(readArticle(html)).toMatchObject({ ok: false, refusal: { code: 'noText' } });
    expect(readArticle('<div>'.repeat(20_000))).toMatchObject({ ok: false, refusal: { code: 'tooDeep' } });
    expect(readArticle('just words, no page')).toMatchObject({ ok: expect.any(Boolean) });
    expect(readArticle('<div><p>one<p>two<li>three')).toMatchObject({ ok: true });
  });
});
