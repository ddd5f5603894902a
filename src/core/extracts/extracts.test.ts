import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainlyKept, readingOf } from '../reading/readSource';
import { readMarkdown, readPlain } from '../reading/readingText';
import { readSubtitles } from '../reading/subtitles';
import { analyse, opensWith } from './analyse';
import { bestSet, findClips, type TimedWindow } from '../clips/clips';
import { findExtracts } from './extracts';
import { guessLanguage, wordsOfLanguage } from './languages';
import { overlapOf, textRank } from './rank';
import { contentWords, sentencesOf, wordsIn } from './sentences';

const TALK = `# Rings that vanish

Good evening, can everybody hear me at the back of the dome tonight?

Every fifteen years the planet tips far enough that we look along the plane of its rings. This is like looking at a sheet of paper from the side. The rings are ten metres thick in places, and wide as most of the way to our moon.

Why do children on the terrace always ask who has stolen them? They are there, but a small telescope shows a planet with nothing round it at all. It was so in 1951 too.

The log book of the observatory holds a hundred years of evenings on the terrace. “On the second of March there was no ring, and an hour later a thread,” somebody wrote in pencil.

1. Look for the planet in the south after dinner, when the moon is down.
2. Wait until the telescope has cooled on the terrace for an hour.
`;
const talk = () => analyse(readMarkdown(TALK));
const stretches = (source: string, language: string | null = 'en') => {
  const reading = readMarkdown(source);
  return sentencesOf(reading, language).map(({ start, end }) => reading.text.slice(start, end));
};

it('what is worth far less than the best of its text is proposed only among the first ten', () => {
  const weak = [
    'We took the ladder into the orchard before breakfast.',
    'We kept my kettle beside the window of the kitchen.',
    'We found the needle under a carpet near the cellar.',
    'We got our tickets from a stranger behind the station.',
    'We gave the parrot to my cousin in the village.',
    'We held the candle over the cupboard on the stairs.',
    'We knew the baker by his apron and his whistle.',
    'We saw the ferry turn round outside the harbour.',
    'We stood between the tractors with our umbrellas open.',
    'We thought about the drawer full of unpaid letters.',
    'We told the gardener about a hole in the fence.',
    'We wanted the blue bicycle from the second shelf.',
    'We wrote postcards to the teacher of geography.',
    'We looked at the painting above the piano again.',
    'We painted the shed with leftover varnish in spring.',
    'We carried the mattress across the frozen meadow.',
    'We borrowed the trumpet for a wedding in Oldhaven.',
    'We buried the clock beneath the roses at midnight.',
    'We polished the spoons until the butcher arrived.',
    'We folded the maps on the bonnet of the lorry.',
    'We boiled the beans without salt on Thursday.',
    'We repaired the saddle using wire and old leather.',
    'We rented the chapel for the rehearsal of the choir.',
    'We sketched the bridge while the mayor was asleep.',
  ];
  const good = ['rings', 'moons', 'storms'].map(
    (what) =>
      `Nobody who never counts ${what} ever misses them, and yet every planet with ${what} is a planet of ${what}.`,
  );
  const of = (sentences: readonly string[]) =>
    findExtracts(analyse(readMarkdown(sentences.join('\n\n')), 'en'), 24).length;
  expect(of(weak)).toBeGreaterThan(11);
  expect(of([...good, ...weak])).toBe(10);
});

it('what somebody did in a tale weighs less than what holds, in Spanish too', () => {
  const traits = (text: string) => [...analyse(readMarkdown(text), 'es').sentences[0]!.traits];
  expect(traits('El rey decidió arrojar la flecha al cielo del reino.')).toContain('past');
  expect(traits('Cada año lleva el nombre de un animal del calendario.')).not.toContain('past');
});

it('what goes on from something else by beginning small is no extract, and neither is a link', () => {
  const text = `A rope must do four things, and the harbour asks for all of them.

- the rope must hold a boat through a whole night of wind and rain.

- the rope must not sing when the wind turns to the north of the harbour.

→ https://harbour.example/ropes/and-what-they-must-do-for-a-boat

A rope that sings in the wind keeps the whole harbour awake at night.`;
  const texts = findExtracts(analyse(readMarkdown(text), 'en')).map((extract) => extract.text);
  expect(texts).toContain('A rope that sings in the wind keeps the whole harbour awake at night.');
  expect(texts.join(' ')).not.toMatch(/must hold|must not sing|https/);
  const unmarked = 'hold the rope with both hands until the boat has stopped and the captain nods';
  expect(findExtracts(analyse(readPlain(unmarked), 'en'))).toHaveLength(1);
});

it('a line that no mark ends is no extract where sentences have their marks', () => {
  const said = 'A rope ages from the inside, where nobody looks for it in a whole winter.';
  const line = 'Example of what is said about the ropes of the harbour in the old log book';
  const texts = findExtracts(analyse(readMarkdown(`${said}\n\n${line}\n\nNobody sells a rope that has sung.`), 'en'));
  expect(texts.map(({ text }) => text)).toContain(said);
  expect(texts.map(({ text }) => text)).not.toContain(line);
});

it('what begins with something that was named just before is worth less, unless the whole text is about it', () => {
  const worthOf = (named: string) => {
    const beside = Array.from(
      { length: 6 },
      (_, at) => `Every harbour of the north keeps ${at + 3} old bells that no keeper ever rings in summer.`,
    );
    const analysis = analyse(
      readMarkdown(
        `${beside.join(' ')}\n\nIn winter the guild buys one ${named} for all boats of the coast. The lantern costs more than three summers of fish and bread.`,
      ),
      'en',
    );
    const at = analysis.sentences.findIndex(({ start }) => analysis.text.slice(start).startsWith('The lantern'));
    return opensWith(analysis.sentences[at]!);
  };
  expect(worthOf('bell')).toBe(1);
  expect(worthOf('lantern')).toBeLessThan(1);
});

it('an item of a list that only counts something is no extract, one that says something of it is', () => {
  const list = [
    '12,800 new ropes, wound by hand, for more than forty harbours of the north.',
    'More than 4,300 old ropes, dried at a stove, for the museum of the north.',
    '3 of 4 ropes that come back wet are dry by the morning of the next day.',
  ];
  const texts = findExtracts(analyse(readMarkdown(`# Ropes\n\n${list.map((one) => `- ${one}`).join('\n')}\n`)));
  expect(texts.map(({ text }) => text)).toEqual([list[2]]);
});

it('a sentence does not end in brackets, and names alone are no extract', () => {
  const text = `# Stars

We know that Hipparchus (2nd ct. BCE) wrote down where the stars of the sky stand, and that the sky has moved since.

- Ada Brook (Head of the Fennelmoor Observatory and of its Old Harbour Telescope)
- Wait until the telescope has cooled on the terrace for an hour
- Count the moons that the glare of the rings hides in other years
`;
  const found = findExtracts(analyse(readMarkdown(text), 'en'), 10).map((one) => one.text);
  expect(found.some((one) => one.startsWith('We know that Hipparchus (2nd ct. BCE) wrote'))).toBe(true);
  expect(found.some((one) => one.startsWith('Wait until'))).toBe(true);
  expect(found.filter((one) => /^BCE|Ada Brook/.test(one))).toEqual([]);
});

describe('sentences', () => {
  it('do not end at abbreviations, initials, numbers or ordinals', () => {
    expect(
      stretches('Dr. R. Amaro came at 9 p.m. with 3.5 litres. “Nobody stole them.” She left, i.e. she went home.'),
    ).toEqual([
      'Dr. R. Amaro came at 9 p.m. with 3.5 litres.',
      '“Nobody stole them.”',
      'She left, i.e. she went home.',
    ]);
    expect(stretches('Am 3. März kamen wir, z. B. zu Fuß. Es war kalt.', 'de')).toEqual([
      'Am 3. März kamen wir, z. B. zu Fuß.',
      'Es war kalt.',
    ]);
    expect(stretches('月が出た。星も出た。', 'ja')).toEqual(['月が出た。', '星も出た。']);
  });

  it('of a transcript without punctuation end at pauses, and none is endless', () => {
    const cues = Array.from({ length: 60 }, (_, at) => {
      const from = at * 3 + (at % 3 === 0 ? 0 : -0.9);
      const time = (s: number) =>
        `00:${String(Math.floor(s / 60)).padStart(2, '0')}:${(s % 60).toFixed(3).padStart(6, '0')}`;
      return `${time(from)} --> ${time(from + 2)}\nand the rings of the planet went on number ${at}`;
    });
    const read = readSubtitles(`WEBVTT\n\n${cues.join('\n\n')}`);
    if (!read.ok) throw new Error(read.refusal.message);
    const reading = readingOf({ ...plainlyKept(read.value.text), cues: read.value.cues });
    const sentences = sentencesOf(reading, 'en', read.value.cues);
    expect(Math.max(...sentences.map(({ start, end }) => end - start))).toBeLessThanOrEqual(260);
    expect(sentences.length).toBeGreaterThan(12);
    expect(sentences.map(({ start, end }) => read.value.text.slice(start, end)).join(' ')).toBe(
      read.value.text.replace(/\s+/g, ' '),
    );
    expect(sentences.every(({ inMs, outMs }) => inMs! < outMs!)).toBe(true);
  });

  it('cover every word of any text, in order', () => {
    fc.assert(
      fc.property(fc.array(fc.stringMatching(/^[\p{L}.?!, ’”“0-9]{0,80}$/u), { maxLength: 6 }), (paragraphs) => {
        const text = paragraphs.join('\n\n').trim();
        const blocks = [{ kind: 'paragraph' as const, start: 0, end: text.length }];
        const sentences = sentencesOf({ text, blocks }, 'en');
        expect(
          sentences
            .map(({ start, end }) => text.slice(start, end))
            .join('')
            .replace(/\s+/g, ''),
        ).toBe(text.replace(/\s+/g, ''));
      }),
    );
  });
});

describe('the rank of sentences', () => {
  it('is higher for one that shares its words with many, and 0 for one without words', () => {
    const scores = textRank([
      ['rings', 'planet', 'plane'],
      ['rings', 'paint', 'thin'],
      ['planet', 'tips', 'plane'],
      ['coffee', 'break', 'soon'],
      [],
    ]);
    expect(scores[0]).toBeGreaterThan(scores[1]!);
    expect(scores[3]).toBeCloseTo(0.15);
    expect(scores[4]).toBe(0);
  });

  it('has nothing to say of an empty text, of emoji, or of one word', () => {
    for (const source of ['', '🪐🌙🪐', 'Rings', '\u0000', '# Only a heading'])
      expect(findExtracts(analyse(readMarkdown(source)))).toEqual([]);
  });
});

describe('extracts', () => {
  it('are whole sentences of one paragraph, with their kind and the reason they were chosen', () => {
    const analysis = talk();
    const extracts = findExtracts(analysis);
    expect(extracts.map(({ kind }) => kind)).toEqual(
      expect.arrayContaining(['number', 'question', 'point', 'listStep']),
    );
    // “somebody wrote in pencil” names nobody.
    expect(extracts.some(({ kind }) => kind === 'quote')).toBe(false);
    for (const { start, end, text, reason } of extracts) {
      expect(analysis.text.slice(start, end)).toBe(text);
      expect(text).toMatch(/[.?”]$/);
      expect(text).not.toContain('\n');
      expect(text.length).toBeGreaterThanOrEqual(40);
      expect(text.length).toBeLessThanOrEqual(300);
      expect(reason).not.toBe('');
    }
    expect(extracts.find(({ kind }) => kind === 'listStep')?.reason).toMatch(/step [12] of a list/);
    expect(extracts.some(({ text }) => text.includes('hear me'))).toBe(false);
  });

  it('differ from each other and do not open by leaning on what was said', () => {
    const analysis = talk();
    const known = wordsOfLanguage('en');
    const contents = findExtracts(analysis).map(({ text }) => new Set(contentWords(wordsIn(text), known)));
    contents.forEach((one, at) =>
      contents.slice(at + 1).forEach((other) => expect(overlapOf(one, other)).toBeLessThan(0.4)),
    );
    for (const { text } of findExtracts(analysis)) expect(known.leaning.has(wordsIn(text)[0]!)).toBe(false);
  });

  it('are a quote only of somebody named, and a question only for one that a reader could answer', () => {
    const kindsOf = (source: string) =>
      findExtracts(analyse(readMarkdown(source))).map(({ kind, reason }) => [kind, reason]);
    expect(kindsOf('“A lake that bangs is a lake that grows,” Runa Vestergaard told the school.')).toEqual([
      ['quote', 'said by Runa Vestergaard'],
    ]);
    const talk =
      'Ada: What do people get wrong about a frozen lake?\n\nRuna: A lake that bangs in the night is a lake that grows.\n\nAda: And snow?\n\nRuna: Snow is a blanket, and under a blanket nothing freezes.';
    expect(kindsOf(talk)).toContainEqual(['quote', 'said by Runa']);
    expect(
      kindsOf('The rope is then ready for the “seven seas” test that every Harbour Guild knows.'),
    ).not.toContainEqual(['quote', expect.anything()]);
    expect(
      kindsOf('Wer das Seil „eine lange Geschichte“ nennt, hat den Hafen nie im Winter gesehen.')[0]?.[0],
    ).not.toBe('quote');
    expect(kindsOf('What would you miss if the ferry did not come?')).toEqual([['question', 'a question']]);
    expect(kindsOf('Why did we never ask our mother about the ferry and the fog?')).not.toContainEqual([
      'question',
      'a question',
    ]);
  });

  it('are a number only for one that is large, a share, or written in figures', () => {
    const kindOf = (sentence: string) => findExtracts(analyse(readMarkdown(sentence)), 1)[0]?.kind;
    expect(kindOf('The six lines of the ferry hold it for two long winter nights at the quay.')).toBe('point');
    expect(kindOf('The lines of the ferry are tied five thousand times in every winter.')).toBe('number');
    expect(kindOf('The lines of the ferry hold 40 tons against the weather of the winter.')).toBe('number');
    expect(kindOf('The lines of the ferry lose half of their strength to salt in a winter.')).toBe('number');
    expect(kindOf('For about three thousand of them the harbour was the first place with a light.')).toBe('point');
  });

  it('are never a part of a long sentence that has its marks', () => {
    const long = `The line ${'holds the ferry to the quay and the weather off the deck, '.repeat(9)}as it did before.`;
    expect(long.length).toBeGreaterThan(400);
    expect(findExtracts(analyse(readMarkdown(long)))).toEqual([]);
    const short = 'Nobody looks at the lines of the ferry until one of them parts.';
    expect(findExtracts(analyse(readMarkdown(`${long} ${short}`))).map(({ text }) => text)).toEqual([short]);
  });

  it('never end with a mark that leads to what follows', () => {
    const analysis = analyse(
      readMarkdown(
        'The old telescope on the terrace shows these three planets in a row:\n\nThe dome of the observatory leaks whenever the wind comes from the sea.',
      ),
    );
    expect(findExtracts(analysis).map(({ text }) => text.slice(0, 8))).toEqual(['The dome']);
  });

  it('that are taken or were turned down are not proposed again', () => {
    const analysis = talk();
    const [first, second] = findExtracts(analysis);
    const again = findExtracts(analysis, 12, [first!, second!]);
    expect(
      again.some(({ start, end }) => [first!, second!].some((taken) => start < taken.end && taken.start < end)),
    ).toBe(false);
    expect(findExtracts(analysis)).toEqual(findExtracts(talk()));
  });
});

describe('languages', () => {
  it('are told by their small words', () => {
    expect(guessLanguage('Das ist der Ring und er ist nicht mehr da, weil wir auf die Kante sehen.')).toBe('de');
    expect(guessLanguage('Les anneaux sont là, mais nous ne pouvons pas les voir dans le télescope.')).toBe('fr');
    expect(guessLanguage('Los anillos están ahí, pero no los vemos con el telescopio de la terraza.')).toBe('es');
    expect(guessLanguage('Os anéis estão lá, mas nós não os vemos com o telescópio do terraço.')).toBe('pt');
    expect(guessLanguage('天文台の夜')).toBeNull();
  });
});

const window = fc
  .record({
    at: fc.integer({ min: 0, max: 40 }),
    long: fc.integer({ min: 1, max: 12 }),
    value: fc.integer({ min: 1, max: 50 }),
  })
  .map(({ at, long, value }): TimedWindow => ({ inMs: at * 1_000, outMs: (at + long) * 1_000, value }));

describe('clips', () => {
  it('are the most valuable set that lies far enough apart', () => {
    fc.assert(
      fc.property(
        fc.array(window, { maxLength: 9 }),
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 0, max: 6 }),
        (windows, most, apart) => {
          const value = (set: readonly TimedWindow[]) => set.reduce((sum, one) => sum + one.value, 0);
          const isApart = (set: readonly TimedWindow[]) => {
            const inOrder = [...set].sort((one, other) => one.inMs - other.inMs);
            return inOrder.every((one, at) => at === 0 || one.inMs - inOrder[at - 1]!.outMs >= apart * 1_000);
          };
          const chosen = bestSet(windows, most, apart * 1_000);
          expect(isApart(chosen)).toBe(true);
          expect(chosen.length).toBeLessThanOrEqual(most);
          const sets = Array.from({ length: 2 ** windows.length }, (_, mask) =>
            windows.filter((_one, at) => mask & (1 << at)),
          );
          expect(value(chosen)).toBe(Math.max(...sets.filter((set) => set.length <= most && isApart(set)).map(value)));
        },
      ),
      { numRuns: 200 },
    );
  });

  it('are windows of whole sentences, and begin after a breath where words are timed', () => {
    const words = TALK.replace(/[#\d]\.?/g, '')
      .split(/\s+/)
      .filter(Boolean);
    let at = 0;
    const time = () =>
      `00:${String(Math.floor(at / 60_000)).padStart(2, '0')}:${((at % 60_000) / 1_000).toFixed(3).padStart(6, '0')}`;
    const cues = Array.from({ length: Math.ceil(words.length / 8) }, (_, cue) => {
      const from = time();
      const said = words.slice(cue * 8, cue * 8 + 8).map((word) => {
        const stamped = `<${time()}>${word}`;
        at += 400;
        if (/[.?]$/.test(word)) at += 500;
        return stamped;
      });
      return `${from} --> ${time()}\n${said.join(' ')}`;
    });
    const read = readSubtitles(`WEBVTT\n\n${cues.join('\n\n')}`);
    if (!read.ok) throw new Error(read.refusal.message);
    const { cues: times, text } = read.value;
    const analysis = analyse({ ...readingOf({ ...plainlyKept(text), cues: times }), ...read.value });
    const clips = findClips(analysis, { most: 2, apartMs: 5_000 });
    expect(clips.length).toBeGreaterThan(0);
    for (const { inMs, outMs, start, end } of clips) {
      expect(outMs - inMs).toBeGreaterThanOrEqual(15_000);
      expect(outMs - inMs).toBeLessThanOrEqual(60_000);
      expect(analysis.sentences.some((sentence) => sentence.start === start && sentence.inMs === inMs)).toBe(true);
      expect(analysis.sentences.some((sentence) => sentence.end === end && sentence.outMs === outMs)).toBe(true);
    }
    expect(findClips(talk())).toEqual([]);
  });
});
