import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fitTexts } from '../captions/compose';
import { countText } from '../captions/count';
import { analyse } from '../extracts/analyse';
import { findClips } from '../clips/clips';
import { findExtracts } from '../extracts/extracts';
import { pointsOutside } from '../extracts/standsAlone';
import { draftRow, Spent, whyFewer } from '../fanOut/draftRow';
import type { FanOutRow } from '../fanOut/fanOut';
import { SHIPPED_FAN_OUTS } from '../fanOut/shipped';
import { readMarkdown } from '../reading/readingText';
import { readingOf, readSource } from '../reading/readSource';
import { countPart, partFaults, partsRule } from '../posts/parts';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { fieldRule, FORMATS, type Format, type RuleSheet } from '../rulesheets/types';
import type { Draft, DraftOrder, DraftSource } from './draft';
import { countOthers, keywordsOf } from './keywords';
import { ruleBasedHelper } from './ruleBased';
import { said } from './saying';
import { titleOf } from './titles';

const TALK = `# Rings that vanish

## Seeing them edge on

Every fifteen years the planet tips far enough that we look along the plane of its rings. The sheet of rings is thin, and in places it is ten metres thick. Where are the rings, people on the terrace ask?

So for a few weeks a small telescope shows a planet with nothing round it at all. If you scale the rings to a football pitch, they would be thinner than the paint on the lines. I like that one.

## What the log book says

The log book of the observatory holds sixty years of evenings. “On the second of March there was no ring, and an hour later a thread,” somebody wrote in pencil. What would you have written in the log book?

1. Look for the planet in the south after dinner, when the moon is down.
2. Wait until the telescope has cooled on the terrace for an hour.
3. Count the moons that the glare of the rings hides in other years.
`;
const LINK = 'https://fennelmoor.example/talks/rings';
const SHELF = { hashtags: ['#Rings', '#Harbour', '#LogBook', '#Telescope'] };
const sourceOf = (markdown: string, link = LINK): DraftSource => {
  const reading = readMarkdown(markdown);
  const analysis = analyse(reading, 'en');
  return { title: reading.title ?? 'A talk', link, analysis, extracts: findExtracts(analysis, 24) };
};
const TALK_SOURCE = sourceOf(TALK);
const sheetOf = (slug: string) => SHIPPED_RULE_SHEETS.find((sheet) => sheet.slug === slug)!;
const order = (slug: string, format: Format, more: Partial<DraftOrder> = {}): DraftOrder => ({
  sheet: sheetOf(slug),
  format,
  variant: null,
  from: TALK_SOURCE.extracts.slice(0, 1),
  clip: null,
  titlesTaken: [],
  openingsTaken: [],
  under: null,
  wordsPerMinute: 150,
  seed: 1,
  ...more,
});
const draft = (slug: string, format: Format, more: Partial<DraftOrder> = {}) =>
  ruleBasedHelper(TALK_SOURCE, SHELF, order(slug, format, more))!;

it('a thread has no part that says next to nothing, where it can be cut otherwise', () => {
  const source = sourceOf(`${TALK}
## The bus

The last bus to the valley leaves at twenty past six, and the road from the church to the stop takes three minutes at a walk. Long ago somebody had moved the hands of the clock forward, so that whoever ran at the quarter would still catch the bus. The clock was not wrong at all. It was kind.

A clock that everybody can see is no instrument, it is an agreement. Two people who look at two phones have two times, and they argue about the clock. Two people who look up at one clock can only argue about the bus.
`);
  const start = source.analysis.text.indexOf('The last bus');
  const from = [
    { kind: 'point' as const, start, end: source.analysis.text.indexOf(' Long ago'), text: '', reason: '' },
  ];
  const { words, parts } = ruleBasedHelper(source, SHELF, order('pithline', 'thread', { from }))!;
  expect(words.caption).toContain('The last bus');
  expect(parts.join(' ')).toContain('It was kind.');
  for (const part of parts) expect(part.length).toBeGreaterThan(28);
});

it('an extract is carried on by nothing that is not understood beside it', () => {
  const rope = 'A rope that looks new outside can be dust inside.';
  const captionWith = (next: string) => {
    const source = sourceOf(`${TALK}\n## Rope\n\n${rope} ${next}\n`);
    const start = source.analysis.text.indexOf(rope);
    const from = [{ kind: 'point' as const, start, end: start + rope.length, text: rope, reason: '' }];
    return ruleBasedHelper(source, SHELF, order('benchfeed', 'text', { from }))!.words.caption;
  };
  expect(captionWith('She had told us so about that rope twice in one winter.')).toBe(rope);
  expect(captionWith('Dust inside a rope is heard before the rope goes.')).toContain('Dust inside a rope');
});

const RUN = { shelf: SHELF, under: null, wordsPerMinute: 150, seed: 1 };
/** The posts of a row on a network. */
const rowOf = (row: FanOutRow, slug: string, spent = new Spent()) =>
  draftRow(ruleBasedHelper, TALK_SOURCE, { row, at: 0, clips: [] }, { id: slug, sheet: sheetOf(slug) }, RUN, spent);

/** What is wrong with a draft by its rule sheet. */
function faults(one: Draft, sheet: RuleSheet, format: Format): string[] {
  const parts = one.parts.map((text, at) => ({ id: `${at}`, text, pictureId: `${at}` }));
  const words = { headline: '', caption: '', hashtags: '', link: '', ...one.words, parts };
  const fits = fitTexts(words, sheet, format);
  const rule = partsRule(sheet, format);
  return [
    ...fits.filter(({ left }) => left < 0).map(({ rule: { name }, left }) => `${name} ${left}`),
    ...fits
      .filter(({ rule: { required, name }, text }) => required && name === 'headline' && text === '')
      .map(() => 'no title'),
    ...(rule ? partFaults(parts, rule, sheet).map(({ code, index }) => `${code} ${index}`) : []),
    ...(rule && parts.length > rule.most - (rule.needs === 'text' ? 1 : 0) ? ['too many parts'] : []),
  ];
}

const EVERY = SHIPPED_RULE_SHEETS.flatMap((sheet) => sheet.formats.map(({ format }) => [sheet.slug, format] as const));

describe('drafts', () => {
  it('exist for all eleven formats', () =>
    expect(new Set(EVERY.map(([, format]) => format))).toEqual(new Set(FORMATS)));

  it.each(EVERY)('for %s, %s keep to the rule sheet', (slug, format) => {
    for (const variant of [null, 'question', 'claim', 'number'] as const) {
      const from = TALK_SOURCE.extracts.slice(2, 3);
      const one = ruleBasedHelper(TALK_SOURCE, SHELF, order(slug, format, { variant, from }));
      if (one) expect(faults(one, sheetOf(slug), format)).toEqual([]);
    }
  });

  it('say of each sentence where it comes from, and are made of nothing but whole sentences of the piece', () => {
    const { text, sentences: own, blocks } = TALK_SOURCE.analysis;
    const stretches = [...own, ...blocks].map(({ start, end }) => text.slice(start, end).replace(/\s+/g, ' '));
    for (const [slug, format] of EVERY) {
      const made = ruleBasedHelper(TALK_SOURCE, SHELF, order(slug, format));
      if (!made) continue;
      const { words, parts, sentences } = made;
      for (const { field, part, text: said, origin } of sentences) {
        const stands = field === 'parts' ? parts[part!]! : words[field]!;
        expect(stands).toContain(said);
        if (origin !== 'piece') continue;
        const plain = said.replace(/^(?:- |\d+\. |> |## )|\\(?=[#>+*_`-])/g, '').toLowerCase();
        const whole = stretches.filter(
          (one) => plain.includes(one.toLowerCase().replace(/\.$/, '')) || one.toLowerCase() === plain,
        );
        expect([slug, format, plain, whole.length > 0]).toEqual([slug, format, plain, true]);
      }
      const said = sentences.filter(({ field }) => field === 'caption').map((one) => one.text);
      const rest = said.reduce((left, one) => left.replace(one, ''), words.caption ?? '');
      expect(rest.replace(/\d{1,3}\/\d{1,3}/, '').trim()).toBe('');
    }
  });

  it('hold the extract they are made from, whole, behind whatever opens them', () => {
    for (const [slug, format] of EVERY)
      for (const extract of TALK_SOURCE.extracts)
        for (const variant of [null, 'question', 'claim', 'number'] as const) {
          const one = ruleBasedHelper(TALK_SOURCE, SHELF, order(slug, format, { variant, from: [extract] }));
          if (!one || !['text', 'photo', 'boardPicture'].includes(format)) continue;
          expect(one.words.caption!.toLowerCase()).toContain(extract.text.toLowerCase().replace(/\s+/g, ' '));
        }
  });

  it('of an extract that does not fit are not made', () => {
    const long = { ...TALK_SOURCE.extracts[0]!, start: 20, end: 700 };
    const source = { ...TALK_SOURCE, extracts: [long] };
    expect(ruleBasedHelper(source, SHELF, order('pithline', 'text', { from: [long] }))).toBeNull();
  });

  it('open with a question, a claim or a number; a variant the piece gives nothing for is left out', () => {
    const source = sourceOf(
      '# Fog\n\nWho waits for a ferry in the fog? The ferry waits in the harbour until the fog has gone from the pier. Twelve sailings were late in October.',
    );
    const extract = { ...findExtracts(source.analysis)[0]!, kind: 'point' as const };
    const start = source.analysis.text.indexOf('The ferry waits');
    const from = [{ ...extract, start, end: source.analysis.text.indexOf(' Twelve') }].map((one) => ({
      ...one,
      text: source.analysis.text.slice(one.start, one.end),
    }));
    const many = Array.from({ length: 9 }, (_, at) => `The bell of pier ${at} rings in the fog of the harbour.`);
    const longer = { ...source, analysis: sourceOf(`${source.analysis.text}\n\n${many.join(' ')}`).analysis };
    const hook = (variant: DraftOrder['variant']) =>
      ruleBasedHelper(longer, SHELF, order('benchfeed', 'text', { variant, from }))?.words.caption?.split('\n')[0];
    expect(hook('question')).toBe('Who waits for a ferry in the fog?');
    expect(hook('claim')).toMatch(/^The ferry waits/);
    expect(hook('number')).toBeUndefined();
  });

  it('leave off words that only tie a sentence to the one before, and say so', () => {
    const text = 'And the old bell of the harbour is louder than any screen on the quay in the fog.';
    const source = sourceOf(`# Fog\n\nThe ferry waits. ${text}\n\n${'A bell needs no current at all. '.repeat(9)}`);
    const extract = findExtracts(source.analysis, 40).find((one) => one.text.startsWith('the old bell'))!;
    const one = ruleBasedHelper(source, SHELF, order('benchfeed', 'text', { from: [extract] }))!;
    expect(one.words.caption).toMatch(/^The old bell/);
    expect(one.sentences.find(({ field }) => field === 'caption')).toMatchObject({ isShortened: true });
  });

  it('of a thread are one stretch in its order, in 3 to 8 parts that end with sentences, the first understood alone', () => {
    const { words, parts, sentences } = draft('pithline', 'thread', { from: [] });
    expect(words.caption).toMatch(/ 1\/\d+$/);
    parts.forEach((part, at) => expect(part.endsWith(` ${at + 2}/${parts.length + 1}`)).toBe(true));
    expect(parts.length + 1).toBeGreaterThanOrEqual(3);
    expect(parts.length + 1).toBeLessThanOrEqual(8);
    const places = sentences.map(({ text }) => TALK_SOURCE.analysis.text.toLowerCase().indexOf(text.toLowerCase()));
    expect(places.every((place) => place >= 0)).toBe(true);
    expect(places).toEqual([...places].sort((one, other) => one - other));
    for (const part of [words.caption!, ...parts]) expect(part.replace(/ \d\/\d$/, '')).toMatch(/[.?!”]$/);
    expect(pointsOutside(sentences[0]!.text, 'en')).toBeNull();
  });

  it('of a carousel take the steps of a list, below its heading', () => {
    const { parts } = draft('glassrow', 'carousel', { from: [] });
    expect(parts[0]).toBe('What the log book says');
    expect(parts.slice(1).map((text) => text.split(' ')[0])).toEqual(['Look', 'Wait', 'Count']);
  });

  it('of a carousel open with nothing that a slide says', () => {
    const slides = [
      'Every rope that looks new outside can be dust inside. Nobody can see that.',
      'Everybody knows the rope that holds the boat. Hardly anybody knows how old it is.',
      'Nobody hears a rope go, and everybody hears it land. The whole quay does.',
      'A rope is only as old as the day on which somebody last looked at it.',
    ];
    const source = sourceOf(
      `# Ropes\n\n${'The harbour sleeps until six, and then the first boats come in. '.repeat(2)}\n\n## Four things\n\n${slides.map((one, at) => `${at + 1}. ${one}`).join('\n')}\n\n## More\n\nThe boats pay for a rope what the bakers pay for a winter of flour. Whoever buys a rope buys a winter.\n`,
    );
    const { words, parts } = ruleBasedHelper(source, SHELF, order('glassrow', 'carousel', { from: [] }))!;
    expect(parts.slice(1)).toHaveLength(4);
    for (const part of parts) expect(part.includes(words.caption!.split(/(?<=[.?!]) /)[0]!)).toBe(false);
  });

  it('of a carousel pass over a numbered list of which a step does not fit', () => {
    const long = 'Look for the planet in the south after dinner, '.repeat(6);
    const source = sourceOf(`${TALK}\n4. ${long}when it is dark.\n`);
    const made = ruleBasedHelper(source, SHELF, order('glassrow', 'carousel', { from: [] }));
    expect(made?.parts.some((part) => part.startsWith('Wait until')) ?? false).toBe(false);
  });

  it('of a letter have a subject, a preheader, a lead and points', () => {
    const letter = draft('lettermill', 'newsletter', { from: [] });
    expect(letter.words.headline).toBe('Rings that vanish');
    expect(letter.words.preheader!.length).toBeGreaterThan(20);
    expect(letter.words.caption).toMatch(/\n\n## [^\n]+\n\n- /);
    expect(letter.words.caption).not.toContain(letter.words.preheader!);
  });

  it('have the title of their piece, also where it is a single word', () => {
    const letter = order('lettermill', 'newsletter', { from: [] });
    const rule = fieldRule(letter.sheet, 'headline')!;
    expect(titleOf({ ...TALK_SOURCE, title: 'Ringebene' }, letter, rule)).toEqual({
      text: 'Ringebene',
      origin: 'title',
    });
  });

  it('have a title that says something else than what stands right below it', () => {
    const source = { ...TALK_SOURCE, title: '' };
    const letter = order('lettermill', 'newsletter', { from: [] });
    const rule = fieldRule(letter.sheet, 'headline')!;
    const title = titleOf(source, letter, rule)!.text;
    expect(titleOf(source, letter, rule, 'The harbour sleeps.')!.text).toBe(title);
    expect(titleOf(source, letter, rule, title)!.text).not.toBe(title);
  });

  it('of an article are the piece’s own sections and paragraphs in their order, shortened by whole paragraphs', () => {
    const long = `${TALK}\n\n## The end\n\n${'The dome leaks where the chair used to stand. '.repeat(12)}`;
    const source = sourceOf(long);
    const made = ruleBasedHelper(source, SHELF, order('inkfold', 'article', { from: [] }))!.words.caption!;
    const paragraphs = made.split('\n\n');
    expect(paragraphs[0]).toBe('## Seeing them edge on');
    expect(paragraphs[1]).toMatch(/^Every fifteen years/);
    expect(made).toContain('1. Look for the planet');
    const sheet = sheetOf('inkfold');
    const narrow = {
      ...sheet,
      fields: sheet.fields.map((field) => (field.name === 'caption' ? { ...field, limit: 700 } : field)),
    };
    const short = ruleBasedHelper(source, SHELF, { ...order('inkfold', 'article', { from: [] }), sheet: narrow })!.words
      .caption!;
    expect(short.length).toBeLessThanOrEqual(700);
    for (const paragraph of short.split('\n\n')) expect(paragraphs).toContain(paragraph);
    expect(
      ruleBasedHelper(sourceOf('# Fog\n\nThe ferry waits.'), SHELF, order('inkfold', 'article', { from: [] })),
    ).toBeNull();
  });

  it('of an article are in the letters of the piece, without lines that are only an address', () => {
    const prose = 'The rope of our harbour is oiled each winter, and the boats go out with it in spring. '.repeat(8);
    const source = sourceOf(
      `# Rope\n\n${prose}\n\nmake rope is what the old keeper types.\n\nhttps://marl.example/rope-of-the-harbour`,
    );
    const { caption } = ruleBasedHelper(source, SHELF, order('inkfold', 'article', { from: [] }))!.words;
    expect(caption).toContain('\nmake rope is');
    expect(caption).not.toContain('marl.example');
  });

  it('of an article keep one endless sentence, and leave out what leads to a picture and the numbers of sections', () => {
    const endless = `${'the ferry waits and the harbour sleeps and the lamp is lit and '.repeat(12)}nobody comes.`;
    const source = sourceOf(
      `${TALK.repeat(2).replace('## Seeing', '## 1.2 Seeing')}\n\nThis is how it looked from the terrace:\n\n${endless} And then`,
    );
    const made = ruleBasedHelper(source, SHELF, order('inkfold', 'article', { from: [] }))!.words.caption!;
    expect(made).toContain('the lamp is lit');
    expect(made).not.toContain('This is how it looked');
    expect(made.split('\n\n')[0]).toBe('## Seeing them edge on');
  });

  it('of a piece that is partly in another language say nothing of those parts, in an article and its keywords neither', () => {
    const foreign =
      'Die alten Seile des Hafens haben Namen, und die Namen sind älter als der Hafen, wie man hier seit hundert Jahren erzählt.';
    const source = sourceOf(TALK.replace('## What the log', `${foreign}\n\n## What the log`).repeat(2));
    expect(source.analysis.text).toContain(foreign);
    const { words } = ruleBasedHelper(source, SHELF, order('inkfold', 'article', { from: [] }))!;
    expect(words.caption).toContain('Every fifteen years');
    expect(words.caption).not.toContain('Seile');
    expect(
      keywordsOf(source.analysis, 40)
        .map((keyword) => keyword.words)
        .join(' '),
    ).not.toMatch(/seile|hafens/);
  });

  it('of a letter begin with the beginning of the piece where it stands alone, and with the beginning of a paragraph', () => {
    const about = (place: string) =>
      `The ${place} of a harbour is the first thing that a boat asks about when it comes home. Whoever keeps the ${place} of a harbour keeps the boat as well. No boat leaves the ${place} of a harbour without a word. A ${place} is a promise that a harbour makes to every boat.`;
    const source = sourceOf(`# Harbours\n\n${['quay', 'lamp', 'rope', 'bell'].map(about).join('\n\n')}`);
    const { words } = ruleBasedHelper(source, SHELF, order('lettermill', 'newsletter', { from: [] }))!;
    expect(words.caption).toMatch(/^The quay of a harbour/);
  });

  it('of a thread and a letter do not stop among several that are counted, and hold nothing that points to the page', () => {
    const rope = (place: string) =>
      `The ${place} is a rope of the harbour that no boat of the harbour has ever used in all the years of the harbour.`;
    const counted = ['first', 'second', 'third', 'fourth'].map(rope).join(' ');
    const four = sourceOf(
      `# Ropes\n\nA harbour is held by four ropes of the harbour, and every boat of the harbour knows them. ${counted}`,
    );
    const other = sourceOf(
      `# Ropes\n\nA harbour is held by its ropes, and every boat of the harbour knows the ropes. No boat of the harbour has more ropes than the harbour. Most ropes of the harbour are kept as the previous section says of ropes. Every rope of the harbour has a name that the harbour knows.\n\n${counted.replaceAll('harbour', 'bay')} ${counted.replaceAll('harbour', 'yard')}`,
    );
    for (const [slug, format] of [
      ['pithline', 'thread'],
      ['lettermill', 'newsletter'],
    ] as const) {
      const { words, parts } = ruleBasedHelper(four, SHELF, order(slug, format, { from: [] }))!;
      const text = [words.caption, ...parts].join(' ');
      expect(text.includes('The third is')).toBe(text.includes('The fourth is'));
      const drafted = ruleBasedHelper(other, SHELF, order(slug, format, { from: [] }));
      expect([drafted?.words.caption, ...(drafted?.parts ?? [])].join(' ')).not.toContain('previous section');
    }
  });

  it('of a carousel beside which nothing can be said have the title of the piece as their caption', () => {
    const argument =
      'A rope from the old mill is heavier than most boats on the quay. The rope dries slowly in the wind of the mill. It holds longer than a rope that dries at a stove by the mill. And it costs the mill three summers of rope.';
    const other = Array(5)
      .fill(0)
      .map((_, at) => `In winter ${at + 3} keepers of the north count bells for the guild. They ring for it.`)
      .join('\n\n');
    const source = { ...sourceOf(`# Harbours\n\n${other}\n\n${argument}`), title: 'What a rope costs' };
    const { words, parts } = ruleBasedHelper(source, SHELF, order('glassrow', 'carousel', { from: [] }))!;
    expect(parts[0]).toMatch(/^A rope from the old mill/);
    expect(words.caption).toBe('What a rope costs');
  });

  it('of a carousel have a caption of what the slides are of, and no title that says something else', () => {
    const section = (name: string, thing: string) =>
      `## ${name}\n\nA ${thing} from the old mill is heavier than most boats on the quay. Nobody sells a ${thing} that has seen a hard winter in the north. Every ${thing} has a keeper who counts its hours at night. Without a good ${thing} no captain would ever leave the bay. A broken ${thing} costs more than three summers of fish. Children learn the name of each ${thing} before they learn to swim. A ${thing} made by hand lasts longer than the hand that made it.`;
    const source = sourceOf(`# Harbours\n\n${section('Ropes', 'rope')}\n\n${section('Bells', 'bell')}`);
    const { words, parts } = ruleBasedHelper(source, SHELF, order('glassrow', 'carousel', { from: [] }))!;
    const thing = parts[0] === 'Ropes' ? 'rope' : 'bell';
    for (const text of [...parts.slice(1), words.caption]) expect(text).toContain(thing);
    const filler = (at: number) =>
      `I went down to quay ${at} in the morning and told nobody about what happened there, and then I came back up. `;
    const apart = sourceOf(
      `${Array.from({ length: 30 }, (_, at) => filler(at)).join('\n\n')}\n\nA price is a promise about bread. A promise about bread is kept at four in the morning. Bread at four in the morning has no price yet. The price of bread is made by whoever is hungry first. Whoever is hungry first keeps the promise of the price.`,
    );
    const made = ruleBasedHelper(
      { ...apart, title: 'What we owe' },
      SHELF,
      order('glassrow', 'carousel', { from: [] }),
    );
    expect(made?.parts).not.toContain('What we owe');
    expect(made?.parts.length).toBeGreaterThan(3);
  });

  it('of a letter open with what nothing else opens with, where others say the rest', () => {
    const place = (name: string) =>
      `The ${name} is what a boat asks about first. Whoever keeps the ${name} keeps the boat. No boat leaves the ${name} without a word of thanks. The ${name} is a promise that is made to every boat.`;
    const source = sourceOf(
      `# Harbours\n\n${place('quay')}\n\n${place('lamp')}\n\n${place('bell')}\n\nA bell is not a promise to a boat.`,
    );
    const all = source.analysis.sentences.map(({ start, end }) => source.analysis.text.slice(start, end));
    const free = 'Whoever keeps the lamp keeps the boat.';
    const openingsTaken = all.filter((text) => text !== free);
    const letter = ruleBasedHelper(source, SHELF, order('lettermill', 'newsletter', { from: [], openingsTaken }))!;
    expect(letter.words.caption?.startsWith(free)).toBe(true);
  });

  it('are not carried on about a person of whom no name stands before', () => {
    const made = (who: string) => {
      const source = sourceOf(
        `# Logs\n\n## Who writes\n\nWhat you do not write down belongs to ${who} who does the next evening. He is a very pleasant man, and the log book is his by now. Nobody else has ever asked for the log book of the terrace.\n\n${'The terrace is cold in spring, and the dome is colder than the terrace. '.repeat(9)}`,
      );
      const from = source.extracts.filter(({ text }) => text.startsWith('What you do not')).slice(0, 1);
      return ruleBasedHelper(source, SHELF, order('benchfeed', 'text', { from }))!.words.caption;
    };
    expect(made('the person')).not.toContain('He is');
    expect(made('old Piet Lund')).toContain('He is');
  });

  it('of a carousel of one argument have the heading it stands below, and a caption of it', () => {
    const source = sourceOf(
      `# Harbours\n\nI came down early. We had no lamp then. My boat was blue. Nobody had told me about the fog. I went home again.\n\n## The price of bread\n\nA price is a promise about bread. A promise about bread is kept at four in the morning. Bread at four in the morning has no price yet. The price of bread is made by whoever is hungry first. Whoever is hungry first keeps the promise of the price.`,
    );
    const { words, parts } = ruleBasedHelper(source, SHELF, order('glassrow', 'carousel', { from: [] }))!;
    expect(parts[0]).toBe('The price of bread');
    expect(words.caption).toMatch(/price|bread/);
    expect(parts).not.toContain(words.caption);
  });

  it('of a carousel are drawn from the beginning of a section, and of an argument from the beginning of a paragraph', () => {
    const leaning = Array.from(
      { length: 30 },
      (_, at) => `Then it was taken down to quay ${at} by them, and they came back.`,
    ).join(' ');
    const good =
      'A bell from the old mill is heavier than most boats. Nobody sells a bell that has seen a hard winter. Every bell has a keeper who counts its hours. Without a good bell no captain would leave the bay. Children learn the name of each bell before they swim.';
    const carousel = (text: string) =>
      ruleBasedHelper(sourceOf(text), SHELF, order('glassrow', 'carousel', { from: [] }));
    expect(carousel(`# Harbours\n\n## Bells\n\n${good} ${leaning}`)?.parts[0]).toBe('Bells');
    expect(carousel(`# Harbours\n\n## Bells\n\n${leaning} ${good} They were all sold.`)).toBeNull();
  });

  it('of a carousel carry the title of the piece where any text has such a section', () => {
    const source = sourceOf(TALK.replace('## What the log book says', '## 3. Introduction'));
    const { parts } = ruleBasedHelper(source, SHELF, order('glassrow', 'carousel', { from: [] }))!;
    expect(parts[0]).toBe('Rings that vanish');
  });

  it('of one sentence have the heading above it as their title, and it only where that is taken', () => {
    const text = 'The log book of the observatory holds sixty years of evenings.';
    const start = TALK_SOURCE.analysis.text.indexOf(text);
    const from = [{ kind: 'point' as const, start, end: start + text.length, text, reason: '' }];
    const titled = (titlesTaken: string[]) => draft('corkwall', 'boardPicture', { from, titlesTaken }).words.headline;
    expect(titled([])).toBe('What the log book says');
    expect(titled(['What the log book says'])).toBe(text.slice(0, -1));
  });

  it.each([
    ['(https://marl.example/Rope).', '(https://marl.example/Rope).'],
    ['eBikes stand on the quay.', 'eBikes stand on the quay.'],
    ['(ropes stand on the quay)', '(Ropes stand on the quay)'],
  ])('begin a sentence “%s” as “%s”', (text, as) =>
    expect(said(sourceOf(text), { start: 0, end: text.length }).text).toBe(as),
  );

  it('of a thread are none of which only the first of several is said', () => {
    const thread = (last: string) =>
      ruleBasedHelper(
        sourceOf(
          `# Boats\n\nThe harbour has two plans for the boats of the harbour in the morning. First, the harbour pays for boats that stay in all the morning. Boats that stay in the harbour cost a winter of bread. ${last} a winter of bread is what the boats of the harbour bring in.\n`,
        ),
        SHELF,
        order('pithline', 'thread', { from: [] }),
      );
    expect(thread('Second,')).not.toBeNull();
    expect(thread('For the harbour,')).toBeNull();
  });

  it('are made of nothing of which half is in quotation marks', () => {
    const thread = (mark: string) =>
      ruleBasedHelper(
        sourceOf(
          `# Boats\n\nThe boats of the harbour go out at six in the morning. The harbour pays for boats that stay in all the morning. Boats that stay in the harbour cost a winter of bread. A winter of bread is what the boats of the harbour bring in.${mark}\n`,
        ),
        SHELF,
        order('pithline', 'thread', { from: [] }),
      );
    expect(thread('')).not.toBeNull();
    expect(thread('"')).toBeNull();
  });

  it('of a letter and an article leave an address to the letter', () => {
    const address = 'https://log.example/my_page_two';
    const source = sourceOf(`${TALK}\n\nThe whole log is at ${address} for everybody who likes *stars* in it.`);
    for (const [slug, format] of [['inkfold', 'article']] as const)
      expect(ruleBasedHelper(source, SHELF, order(slug, format, { from: [] }))!.words.caption).toContain(address);
  });

  it('of several board pictures have as many titles, each a whole sentence or a heading', () => {
    const row: FanOutRow = {
      network: 'pictureBoard',
      format: 'boardPicture',
      count: 5,
      source: { of: 'extracts', kinds: [] },
      offset: 0,
      gap: 7,
    };
    const posts = rowOf(row, 'corkwall');
    const titles = posts.map(({ drafts }) => drafts[0]!.words.headline!);
    expect(titles.length).toBeGreaterThan(2);
    expect(new Set(titles.map((title) => title.toLowerCase())).size).toBe(titles.length);
    const { text, sentences, blocks } = TALK_SOURCE.analysis;
    const whole = [...sentences, ...blocks].map(({ start, end }) => text.slice(start, end).replace(/\.$/, ''));
    for (const title of titles) expect(whole).toContain(title);
  });

  it('of a short video say the words of their clip; a script keeps to its time', () => {
    const { words } = draft('tallclip', 'shortVideo');
    expect(words.script!.split(/\s+/).length).toBeLessThanOrEqual(115);
    expect(words.coverIdeas).not.toBe('');
  });

  it('stay under a length of one’s own, and carry hashtags only for what the piece is about', () => {
    const { words } = draft('glassrow', 'photo', { under: 125 });
    const rule = fieldRule(sheetOf('glassrow'), 'caption')!;
    expect(
      countText(
        fitTexts(
          { headline: '', caption: words.caption!, hashtags: words.hashtags!, link: '' },
          sheetOf('glassrow'),
          'photo',
        )[0]!.text,
        rule,
      ),
    ).toBeLessThanOrEqual(125);
    expect(words.hashtags).toContain('#Rings');
    expect(words.hashtags).not.toContain('#Harbour');
  });

  it('are the same for the same seed', () => {
    expect(draft('benchfeed', 'text')).toEqual(draft('benchfeed', 'text'));
  });

  it('keep to every rule sheet whatever the text', () => {
    const word = fc.stringMatching(/^[a-zé月🪐-🪙]{1,12}$/u);
    const sentence = fc
      .tuple(fc.array(word, { minLength: 1, maxLength: 30 }), fc.constantFrom('.', '?', '!', '…', ''))
      .map(([words, mark]) => `${words.join(' ')}${mark}`);
    const text = fc
      .array(
        fc.array(sentence, { minLength: 1, maxLength: 4 }).map((list) => list.join(' ')),
        { minLength: 1, maxLength: 5 },
      )
      .map((list) => `# ${list[0]!.slice(0, 190)}\n\n${list.join('\n\n')}`);
    fc.assert(
      fc.property(text, fc.constantFrom(...EVERY), fc.nat(3), (markdown, [slug, format], seed) => {
        const source = sourceOf(markdown, seed % 2 ? LINK : '');
        const one = ruleBasedHelper(source, SHELF, {
          ...order(slug, format, { from: source.extracts.slice(0, 1) }),
          seed,
        });
        if (one)
          expect(faults(one, sheetOf(slug), format).filter((fault) => !fault.startsWith('no title'))).toEqual([]);
      }),
      { numRuns: 300 },
    );
  });
});

describe('fan-outs', () => {
  const rows = (slug: string) => SHIPPED_FAN_OUTS.find((fanOut) => fanOut.slug === slug)!.rows;

  it('ask only for formats that a shipped network of that kind takes', () => {
    for (const { rows: own } of SHIPPED_FAN_OUTS)
      for (const { network, format } of own)
        expect(
          SHIPPED_RULE_SHEETS.some(
            (sheet) => sheet.kind === network && sheet.formats.some((rule) => rule.format === format),
          ),
        ).toBe(true);
  });

  it('make no two posts that say the same, on one channel or on several', () => {
    const spent = new Spent();
    const row = { ...rows('message')[1]!, count: 30 };
    const first = rowOf(row, 'benchfeed', spent);
    const again = rowOf({ ...row, network: 'personalProfile' }, 'homestoop', spent);
    const said = [...first, ...again].flatMap(({ drafts }) => drafts.map(({ words }) => words.caption));
    expect(new Set(said).size).toBe(said.length);
    expect(whyFewer(row, first.length)).toContain('stands alone');
  });

  it('open each post of the whole piece otherwise, and deal what one opens with last', () => {
    const spent = new Spent();
    const whole = (format: Format, network: FanOutRow['network']): FanOutRow => ({
      ...{ network, format, count: 1, source: { of: 'whole' }, offset: 0, gap: 7 },
    });
    const opening = (posts: ReturnType<typeof rowOf>) =>
      posts[0]!.drafts[0]!.sentences.find(({ field }) => field === 'caption')!.text;
    const carousel = opening(rowOf(whole('carousel', 'photoFeed'), 'glassrow', spent));
    const text = opening(rowOf(whole('text', 'professionalFeed'), 'benchfeed', spent));
    const photos = { ...whole('photo', 'photoFeed'), count: 2, source: { of: 'extracts' as const, kinds: [] } };
    const photo = rowOf(photos, 'glassrow', spent).map(({ from }) => from[0]!.text);
    expect(new Set([carousel, text]).size).toBe(2);
    expect(photo).toHaveLength(2);
    for (const one of photo) expect(one.startsWith(carousel)).toBe(false);
    const [video] = rowOf(whole('longVideo', 'longVideo'), 'hourlight', spent);
    const [letter] = rowOf(whole('newsletter', 'newsletter'), 'lettermill', spent);
    const saidIn = (post: typeof video) =>
      post!.drafts[0]!.sentences.filter(({ field }) => field === 'caption').map(({ text }) => text);
    expect(saidIn(letter)[0]).not.toBe(saidIn(video)[0]);
    const story = opening(rowOf(whole('text', 'personalProfile'), 'homestoop', spent));
    for (const one of photo) expect(one.startsWith(story)).toBe(false);
  });

  it('say a message on every channel, on each once', () => {
    const source = sourceOf('The ferry does not sail on Saturday. It sails again on Sunday at nine.');
    const spent = new Spent();
    const said = (slug: string, format: Format) =>
      draftRow(
        ruleBasedHelper,
        source,
        { row: { ...rows('message')[0]!, network: sheetOf(slug).kind, format, count: 2 }, at: 0, clips: [] },
        { id: slug, sheet: sheetOf(slug) },
        RUN,
        spent,
      ).map(({ drafts }) => drafts[0]!.words.caption);
    const whole = 'The ferry does not sail on Saturday. It sails again on Sunday at nine.';
    expect([said('pithline', 'text'), said('benchfeed', 'text'), said('homestoop', 'text')]).toEqual([
      [whole],
      [whole],
      [whole],
    ]);
  });

  it('deal each extract once a channel, make fewer where there are fewer, and pass over what is used', () => {
    const row = rows('talk').find(({ format }) => format === 'boardPicture')!;
    const taken = [TALK_SOURCE.extracts[0]!].map(({ start, end }) => ({ start, end }));
    const spent = new Spent({ corkwall: taken });
    const dealt = rowOf({ ...row, count: 50 }, 'corkwall', spent);
    expect(dealt.length).toBeLessThan(TALK_SOURCE.extracts.length);
    expect(new Set(dealt.map(({ from }) => from[0]!.start)).size).toBe(dealt.length);
    expect(dealt.some(({ from }) => from[0]!.start === taken[0]!.start)).toBe(false);
    expect(rowOf(row, 'corkwall', spent)).toEqual([]);
  });

  it('make a timed talk into clips, an untimed one into extracts instead', () => {
    const cues = TALK.split(/(?<=[.?])\s+/).map(
      (line, at) =>
        `00:${String(Math.floor(at / 6)).padStart(2, '0')}:${String((at * 10) % 60).padStart(2, '0')}.000 --> 00:${String(Math.floor(at / 6)).padStart(2, '0')}:${String(((at * 10) % 60) + 9).padStart(2, '0')}.000\n${line.replace(/[#\d]/g, '').trim()}`,
    );
    const read = readSource(`WEBVTT\n\n${cues.join('\n\n')}`);
    if (!read.ok) throw new Error(read.refusal.message);
    const clips = findClips(analyse({ ...readingOf(read.value), ...read.value }), { most: 3, apartMs: 1_000 });
    const row = rows('talk').find(({ source }) => source.of === 'clips')!;
    const dealt = (own: typeof clips) =>
      draftRow(
        ruleBasedHelper,
        TALK_SOURCE,
        { row, at: 0, clips: own },
        { id: 'tallclip', sheet: sheetOf('tallclip') },
        RUN,
        new Spent(),
      );
    expect(dealt(clips).every(({ clip }) => clip !== null)).toBe(true);
    expect(dealt([]).every(({ from }) => from.length === 1)).toBe(true);
  });
});

describe('keywords and titles', () => {
  it('are the words and phrases a text comes back to', () => {
    const words = keywordsOf(TALK_SOURCE.analysis, 8).map((keyword) => keyword.words);
    expect(words).toContain('log book');
    expect(words).toContain('rings');
    expect(words).not.toContain('log');
    const rare = keywordsOf(TALK_SOURCE.analysis, 3, { count: 100, holding: (word) => (word === 'rings' ? 100 : 1) });
    expect(rare.map((keyword) => keyword.words)).not.toContain('rings');
    const others = countOthers(['Rings, rings and rings.', 'The rings again', 'Nothing of it.']);
    expect([others.count, others.holding('rings'), others.holding('log')]).toEqual([3, 2, 0]);
  });

  it('count parts as captions are', () => expect(countPart('月', sheetOf('pithline'))).toBe(2));
});
