import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { accountWords } from './accountWords';
import { groupLeftOut, nameOfLeftOut, type LeftOutReason } from './leftOut';
import { readingOf, readSource, type SourceText } from './readSource';
import { unknownLanguage } from './unknownLanguage';

const brought = (text: string, name = ''): SourceText => {
  const read = readSource(text, name);
  if (!read.ok) throw new Error(read.refusal.message);
  return read.value;
};
const readOf = (text: string, name = '') => readingOf(brought(text, name));
const blocksOf = (text: string, name = '') => {
  const reading = readOf(text, name);
  return reading.blocks.map(({ kind, start, end }) => [kind, reading.text.slice(start, end)]);
};
const leftOf = (text: string, name = '') => readOf(text, name).leftOut.map(({ reason, text: left }) => [reason, left]);

describe('a page as it is in the world', () => {
  it('is read without the notes of sources among its words', () => {
    const text =
      'A rope ages from the inside [Letters of a Rigger, pp. 12-14] and shows nothing. [Op. Cit., p. 85] It is the dust (Brook et al., 1998) that cuts. He said so (p. 3) in [the old] harbour.';
    expect(blocksOf(text)).toEqual([
      [
        'paragraph',
        'A rope ages from the inside and shows nothing. It is the dust that cuts. He said so in [the old] harbour.',
      ],
    ]);
    expect(leftOf(text)).toEqual([
      ['citation', '[Letters of a Rigger, pp. 12-14]'],
      ['citation', '[Op. Cit., p. 85]'],
      ['citation', '(Brook et al., 1998)'],
      ['citation', '(p. 3)'],
    ]);
  });

  it('is read without what points to other places of the page in brackets', () => {
    const text =
      'A rope (see Knots of the North (KN)) ages from the inside. Die Seile (siehe Abschnitt 3) altern. Somebody (see him run) came, and (see what you like) went.';
    expect(leftOf(text).map(([, one]) => one)).toEqual(['(see Knots of the North (KN))', '(siehe Abschnitt 3)']);
    expect(readOf(text).text).toContain('A rope ages from the inside. Die Seile altern. Somebody (see him run)');
  });

  it('is read without the names of books it lists, wherever they stand; what happened in some year stays', () => {
    const books = [
      'Brook, Ada, The Old Ropes of the Harbour, 4 volumes, Oak Press, Oldhaven, 2010.',
      'Marsh, B. N., Knots and Their Names, Tidal Library, Oldhaven, 1999.',
      'Reed, Cyril, “Dust”, in: Papers of the Guild of Riggers, 1984, pp. 3–9.',
    ];
    const years = '- 1984: The Old Mill opened in Oldhaven.\n- 1990: It burned, and the town built it again by hand.';
    const text = `# Ropes\n\nThe ropes come from stories and from these books:\n\n${books.map((book, at) => `${at + 1}. ${book}`).join('\n')}\n\n${years}\n`;
    expect(leftOf(text, 'a.md')).toEqual(books.map((book) => ['reference', book]));
    expect(blocksOf(text, 'a.md').filter(([kind]) => kind === 'listItem')).toHaveLength(2);
  });

  it('is read without a list that mostly names books, whatever else it names', () => {
    const list = [
      'Harbour papers of the guild',
      'Marsh, Ben N. (1999), Knots of the north: some remarks that nobody asked for. Riggers at Work, 18, 4',
      'Brook, Ada (2010), A rope and its winter, and what the winter does to it',
      '“The Rope and Its Keeper” by Ada Brook and Ben Marsh [Tidal Library]',
      'A hundred sea songs and how they are sung, 18 volumes, Tidal Library, Oldhaven.',
    ];
    const text = `# Ropes\n\nA rope ages from the inside.\n\n${list.map((line) => `- ${line}`).join('\n')}\n`;
    expect(leftOf(text, 'a.md')).toEqual(list.map((line) => ['reference', line]));
  });

  it('keeps a sentence that names pages and a year, and leaves out a line that ends with them', () => {
    const said =
      'In 1998 the guild wrote on pp. 12–14 of its log that a rope ages from the inside, and nobody read it.';
    const line = 'Papers of the guild of riggers 29 (2008), pp87-123.';
    expect(leftOf(`# Ropes\n\n${said}\n\n${line}`, 'a.md')).toEqual([['reference', line]]);
  });

  it('keeps what happened year by year, also where nouns have large letters', () => {
    const years = [
      'Am 21. April 1999 gründeten die Reederei Brook und der Verein der Seiler eine Allianz: Die Reederei wollte Seile verkaufen, der Verein neue Mitglieder.',
      'Im Januar 2001 folgte Ada Brook ihrem Bruder Cyril als Leiterin der Werft, Ben Marsh wurde Schatzmeister, Cyril Brook Ehrenmitglied, Dea Reed Sekretärin.',
      'Das siebte Treffen der Seiler fand vom 2. bis 9. Juli 2004 in Althafen, im Saal der Gilde, mit 40 Gästen statt.',
      'Am 12. März 2006 starb Cyril Brook, Gründer der Werft, nach langer Krankheit in Althafen, im Haus der Gilde.',
    ];
    expect(leftOf(`# Die Werft\n\n${years.join('\n\n')}\n`, 'a.md')).toEqual([]);
  });

  it('is read without references by their short names, and without links alone', () => {
    const books = [
      'Brook 1980: Ada Brook, Ropes of the Twentieth Century. Oldhaven 1980.',
      'Marsh 1996: Ben Marsh and Dea Reed, Essential Dictionary of Knots.',
      'Reed 1968: Cyril Reed, Knots: A Manual of Modern Practice.',
    ];
    const text = `# Ropes\n\n\\[Top\\]\\[Contents\\]\n\nA rope ages from the inside.\n\n${books.map((one) => `- ${one}`).join('\n')}\n`;
    expect(leftOf(text, 'a.md')).toEqual([
      ['navigation', '[Top][Contents]'],
      ...books.map((book) => ['reference', book]),
    ]);
  });

  it('is read without the pages before and behind it', () => {
    const text = 'The harbour sleeps.\n\n‹ What is a knot? up Why do ropes fail? ›\n\nIt wakes at six.';
    expect(leftOf(text)).toEqual([['navigation', '‹ What is a knot? up Why do ropes fail? ›']]);
  });

  it('has what is in other letters marked as in another language, however short it is', () => {
    const text = `The old ropes of the harbour have names, and the names are older than the harbour is.\n\nحبال الميناء القديمة\n\nEach of them is written on a board that hangs by the door.`;
    expect(readOf(text).blocks.map(({ language }) => language !== undefined)).toEqual([false, true, false]);
  });

  it('has a paragraph marked as in another language whose names of files are in none', () => {
    const french = Array(4)
      .fill(
        'Le port dort quand la marée est basse, et les cordes sèchent sur le quai. Il faut attendre que les bateaux reviennent, et les enfants comptent les lampes.',
      )
      .join(' ');
    const english =
      'This command creates a rope in the ropes/issued/rope.harbour.example.md file; the corresponding knot is stored in ropes/private/rope.harbour.example.key.';
    const { blocks } = readOf(`# Le port\n\n${french}\n\n${english}\n`, 'a.md');
    expect(blocks.at(-1)!.language).toBe('en');
  });

  it('has a paragraph of few small words marked as in another language, where its letters tell', () => {
    const text =
      'Die alten Seile des Hafens haben Namen, und die Namen sind älter als der Hafen.\n\nSeveral commands allow the easy creation of chrooted or virtual test environments.\n\nJedes von ihnen hängt an einer Tafel neben der Tür.';
    expect(readOf(text).blocks.map(({ language }) => language)).toEqual([undefined, 'en', undefined]);
  });

  it('is read without those who made it, and without the names of pictures, unless it is a letter of thanks', () => {
    const section = '## Thanks\n\nThe knots were tied by Ada Brook.\n\n- Cyril Reed (harbour)';
    const text = `# Ropes\n\nA rope ages from the inside.\n\nPhotograph of a rope that is older than the harbour\n\n${section}\n\n## Sources / Notes\n\nThe harbour book.\n\n## Acknowledgements and further reading\n\nThe old log.`;
    expect(blocksOf(text, 'a.md').map(([, one]) => one)).toEqual(['Ropes', 'A rope ages from the inside.']);
    expect(leftOf(text, 'a.md').map(([reason]) => reason)).toEqual(['caption', 'credit', 'reference', 'credit']);
    expect(blocksOf('# Thanks\n\nYou carried the piano.', 'a.md')).toHaveLength(2);
    const long = 'Whoever lends a rope lends the winter in it, and asks for both. '.repeat(30);
    expect(blocksOf(`# Ropes\n\nA rope ages.\n\n## Licensing\n\n${long}`, 'a.md')).toHaveLength(4);
  });

  it('has lines that stand above paragraphs as headings, and none of several lines in a row', () => {
    const long = 'A rope ages from the inside, where nobody looks, and shows nothing of it on the outside.';
    const text = `# Ropes\n\n**Knots ‘of the sea’**\n\n${long}\n\nRopes in a row\n\nKnots in a row\n\n${long}`;
    expect(blocksOf(text, 'a.md').map(([kind]) => kind)).toEqual([
      ...['heading', 'heading', 'paragraph'],
      ...['paragraph', 'paragraph', 'paragraph'],
    ]);
  });

  it('has its numbered headings as they stand, without what points to them', () => {
    const page = '<h1>Ropes¶</h1><h2>1) Old ropes<a href="#old">¶</a></h2><p>A rope ages from the inside.</p>';
    expect(blocksOf(page, 'a.html').map(([, one]) => one)).toEqual([
      'Ropes',
      '1) Old ropes',
      'A rope ages from the inside.',
    ]);
  });

  it('has its title without the number of its section', () => {
    const page =
      '<html><head><title>The rope book: 1.2 Old ropes</title></head><body><p>A rope ages.</p></body></html>';
    expect(brought(page, 'a.html').title).toBe('The rope book: Old ropes');
    expect(brought('# D.8 What do ropes cost?\n\nA rope costs a winter.', 'a.md').title).toBe('What do ropes cost?');
    expect(brought('# Kapitel 3. Alte Seile\n\nEin Seil altert im Winter.', 'a.md').title).toBe('Alte Seile');
    expect(brought('# Anhang A. Alte Seile\n\nEin Seil altert im Winter.', 'a.md').title).toBe('Alte Seile');
    expect(brought('# IV. Old ropes\n\nA rope costs a winter.', 'a.md').title).toBe('Old ropes');
    expect(brought('# 10 old ropes\n\nA rope costs a winter.', 'a.md').title).toBe('10 old ropes');
  });

  it('leaves no space where two marks stood before a full stop', () => {
    const page =
      '<h1>Ropes</h1><p>It is bounded by the river <sup><a href="#f1">[1]</a></sup> <sup><a href="#f2">[2]</a></sup>. The rope is old.</p>';
    expect(blocksOf(page, 'a.html').at(-1)![1]).toBe('It is bounded by the river. The rope is old.');
  });
});

describe('plain text', () => {
  it('is plain text: indents, stars and lines mean what they show', () => {
    const indented = `The harbour\n\n\tThe first paragraph of it begins with a tab and is as long as it likes.\n\n    The second begins with four spaces, and it says that 2*3*4 is 24 and __init__ a name.`;
    expect(blocksOf(indented)).toEqual([
      ['heading', 'The harbour'],
      ['paragraph', 'The first paragraph of it begins with a tab and is as long as it likes.'],
      ['paragraph', 'The second begins with four spaces, and it says that 2*3*4 is 24 and __init__ a name.'],
    ]);
    expect(blocksOf(indented, 'x.md')[1]![0]).toBe('paragraph');
  });

  it('has its broken lines joined, and its paragraphs where they begin indented', () => {
    const wrapped = `   When the boats come in at six the gulls are there before
the people are, and nobody has ever told them the time.
   The auction begins at seven. By half past, what was in
the sea at midnight has a price and a lorry waiting for
it in the yard behind the hall.`;
    expect(blocksOf(wrapped).map(([, text]) => text)).toEqual([
      'When the boats come in at six the gulls are there before the people are, and nobody has ever told them the time.',
      'The auction begins at seven. By half past, what was in the sea at midnight has a price and a lorry waiting for it in the yard behind the hall.',
    ]);
  });

  it('has quotations set in, lists and headings', () => {
    const text = `THE ROPE

A rope is only as old as the day on which somebody last looked
at it with care, and the log has a line on that.

    Nobody hears it go, and everybody
    hears it land.

What to look for:

- powder where the strands cross
- a shine on one side
  that is new

1. Cut it.
2. Look again.`;
    expect(blocksOf(text)).toEqual([
      ['heading', 'THE ROPE'],
      [
        'paragraph',
        'A rope is only as old as the day on which somebody last looked at it with care, and the log has a line on that.',
      ],
      ['quote', 'Nobody hears it go, and everybody hears it land.'],
      ['paragraph', 'What to look for:'],
      ['listItem', 'powder where the strands cross'],
      ['listItem', 'a shine on one side that is new'],
      ['listItem', 'Cut it.'],
      ['listItem', 'Look again.'],
    ]);
  });

  it('in one endless line is cut where its subject turns, and keeps every word', () => {
    const about = (nouns: string[], verb: string) =>
      Array.from(
        { length: 16 },
        (_, at) =>
          `The ${nouns[at % nouns.length]!} of the ${nouns[(at + 1) % nouns.length]!} ${verb} behind the ${nouns[(at + 2) % nouns.length]!} today.`,
      ).join(' ');
    const [bread, ships] = [
      about(['oven', 'dough', 'flour', 'crust'], 'rises'),
      about(['anchor', 'mast', 'harbour', 'keel'], 'sinks'),
    ];
    const text = `${bread} ${ships} ${bread.replaceAll('dough', 'yeast')}`;
    expect(text.length).toBeGreaterThan(2_500);
    const paragraphs = blocksOf(`${text} ${ships}`).map(([, paragraph]) => paragraph!);
    expect(paragraphs.length).toBeGreaterThan(2);
    expect(paragraphs.join(' ')).toBe(`${text} ${ships}`);
    const mixed = paragraphs.filter((paragraph) => /anchor/.test(paragraph) && /oven/.test(paragraph));
    expect(mixed.length).toBeLessThanOrEqual(1);
  });

  it('in one endless line has the headings that were written into it, and keeps every word', () => {
    const said = 'A harbour asks a boat for its name, and a boat asks a harbour for its lamp. '.repeat(20);
    const text = `${said}I. OF ROPES But a rope has no name at all. ${said}II. THE OLD NORTH LAMP I turn to the lamp. ${said}The A B C of it is plain.`;
    const blocks = blocksOf(text);
    expect(blocks.filter(([kind]) => kind === 'heading').map(([, one]) => one)).toEqual([
      'I. OF ROPES',
      'II. THE OLD NORTH LAMP',
    ]);
    expect(blocks.map(([, one]) => one).join(' ')).toBe(text);
  });

  it('is Markdown by its ending or its evidence, and as somebody chose', () => {
    const kindOf = (text: string, name = '') => readOf(text, name).as;
    expect(kindOf('# Rings\n\nThey vanish.')).toBe('markdown');
    expect(kindOf('See [the log](https://log.example/a).')).toBe('markdown');
    expect(kindOf('A *star* and 5 # 6.\n\n- one\n- two')).toBe('plain');
    expect(kindOf('A *star*.', 'star.md')).toBe('markdown');
    const source = brought('# Rings\n\nThey **vanish**.');
    expect(readingOf({ ...source, how: { ...source.how, as: 'plain' } }).text).toBe('# Rings\n\nThey **vanish**.');
  });
});

describe('what is not the thought of a text', () => {
  const ESSAY = 'A rope is only as old as the day on which somebody last looked at it with care.';
  it.each<[reason: LeftOutReason, text: string, left: string]>([
    ['contents', `## Contents\n\n- The rope\n- The knot\n\n## How it ends\n\n${ESSAY}`, 'Contents\nThe rope\nThe knot'],
    ['code', `${ESSAY}\n\n\`\`\`js\nconst knot = 1;\n\`\`\``, '```js\nconst knot = 1;\n```'],
    [
      'code',
      `${ESSAY}\n\nconst knot = tie(rope);\nif (knot) {\n  pull(knot);\n}`,
      'const knot = tie(rope);\nif (knot) {\npull(knot);\n}',
    ],
    ['table', `${ESSAY}\n\nRope\tYears\nSpring\t4\nBow\t6`, 'Rope\tYears\nSpring\t4\nBow\t6'],
    ['reference', `# Rope\n\n${ESSAY}\n\n## References\n\n1. The log, volume two.`, 'References\nThe log, volume two.'],
    ['referenceMark', `${ESSAY.slice(0, -1)}[12], it is said.`, '[12]'],
    ['referenceMark', `${ESSAY.slice(0, -1)} [p.12] of all.`, '[p.12]'],
    ['licence', `${ESSAY}\n\n© 2026 Marl & Oak. All rights reserved.`, '© 2026 Marl & Oak. All rights reserved.'],
    ['credit', `${ESSAY}\n\nProduced by Rosa Amaro`, 'Produced by Rosa Amaro'],
    ['credit', `${ESSAY}\n\nPhoto: Inês Lund`, 'Photo: Inês Lund'],
    ['caption', `${ESSAY}\n\nFigure 3: The rope on the quay`, 'Figure 3: The rope on the quay'],
    ['caption', `${ESSAY}\n\nExample 7.1. Finding a rope by its name`, 'Example 7.1. Finding a rope by its name'],
    ['stageMark', `${ESSAY} [Applause] The next one was mine.`, '[Applause]'],
    ['music', `${ESSAY}\n\n♪ the sea, the sea ♪`, '♪ the sea, the sea ♪'],
    ['signature', `${ESSAY}\n\nYours sincerely,\n\nRosa Amaro`, 'Rosa Amaro'],
    ['date', `Published on 3 May 2026\n\n${ESSAY}`, 'Published on 3 May 2026'],
    ['date', `den 3. Mai 2026\n\n${ESSAY}`, 'den 3. Mai 2026'],
    ['navigation', `Share this article\n\n${ESSAY}`, 'Share this article'],
    ['speaker', `Ada: What is a rope?\n\nBo: ${ESSAY}\n\nAda: And a knot?\n\nBo: A thought.`, 'Ada'],
  ])('is left out as %s', (reason, text, left) => {
    expect(leftOf(text)).toContainEqual([reason, left]);
    expect(readOf(text).text).toContain('only as old as the day');
  });

  it('leaves the sentence that a mark stood in as it would be without', () => {
    expect(readOf('We laughed [laughter], all of us (Applause). It was[3] late.[4]').text).toBe(
      'We laughed, all of us. It was late.',
    );
  });

  it.each([
    'Story by story we climbed until the roof was below us and the bay lay open.',
    'Music by itself is no reason to open a window in January.',
    'Notes are what is left of a lecture when the lecturer has gone home.',
    'In May 2026 we counted every rope on the quay, and there were ninety of them.',
    'Share this with whoever still believes that a rope is a rope.',
    'The table 3 metres from the door is ours.',
    'He said (and laughed) that nobody would come.',
  ])('is not “%s”', (sentence) => expect(leftOf(`${ESSAY}\n\n${sentence}`)).toEqual([]));

  it('is counted, and may be taken in after all', () => {
    const source = brought(`# Rope\n\n${ESSAY}[2]\n\n\`\`\`\nknot\n\`\`\`\n\n| a | b |\n|---|---|\n| c | d |`);
    const reading = readingOf(source);
    expect(groupLeftOut(reading.leftOut).map(({ label }) => label)).toEqual([
      '1 footnote mark',
      '1 block of code',
      '1 table',
    ]);
    expect(reading.words).toEqual({ read: 19, all: 25 });
    const taken = reading.leftOut.map(nameOfLeftOut);
    const after = readingOf({ ...source, how: { ...source.how, taken } });
    expect(after.leftOut).toEqual([]);
    expect(after.takenIn).toHaveLength(3);
    expect(after.text).toContain('with care.[2]');
    expect(after.text).toContain('a · b');
    expect(after.words).toEqual({ read: 25, all: 25 });
  });

  it('says that a text is in a language which Bimlo does not know', () => {
    const italian =
      'Il porto è silenzioso in inverno e le barche sono in secca. Chi non conosce la corda non conosce il mare, e nessuno la taglia due volte.';
    const said = (text: string) =>
      accountWords({ ...readOf(text), leftOut: [], unknownLanguage: unknownLanguage(text) });
    expect(said(italian)).toContain('Bimlo does not know Italian:');
    expect(said(ESSAY)).not.toContain('does not know');
    for (const short of ['', 'Rope.', '縄は港にあり、冬は静かです。', '1 2 3'])
      expect(unknownLanguage(short)).toSatisfy((name) => name === null || name === 'Japanese');
  });

  it('is a paragraph in another language only in part: it stays, and is marked', () => {
    const french = 'Il pleut sur la ville comme il pleut dans mon cœur, et personne ne sait pourquoi.';
    const text = `${ESSAY} It rains on the town and nobody knows for how long it will.\n\n${french}\n\nThe rest of it is in the log that we keep.`;
    expect(readOf(text).blocks.map(({ language }) => language)).toEqual([undefined, 'fr', undefined]);
  });
});

describe('a file without sentences', () => {
  it.each([
    ['data', JSON.stringify({ ropes: [{ age: 4 }, { age: 6 }] })],
    [
      'a log',
      Array.from({ length: 40 }, (_, at) => `2026-11-0${at % 9} 12:00:${at} sensor=${at} v=${at * 3}.5 ok`).join('\n'),
    ],
    ['figures', Array.from({ length: 60 }, (_, at) => `${at},${at * 2},${at * 3}`).join('\n')],
  ])('is refused: %s', (_name, text) =>
    expect(readSource(text)).toMatchObject({ ok: false, refusal: { code: 'noSentences' } }),
  );
});

/** Words that no other stretch of a text has. */
const someWords = fc
  .array(fc.nat(26 ** 4 - 1), { minLength: 1, maxLength: 9 })
  .map((numbers) =>
    numbers.map((number) => `w${number.toString(26).replace(/\d/g, (digit) => 'qrstuvwxyz'[Number(digit)]!)}`),
  );
const sentence = someWords.map((words) => `The ${words.join(' ')} is here.`);
const line = fc.oneof(
  sentence,
  someWords.map((words) => words.join(' ')),
);
const MARKED: ((words: string) => string)[] = [
  (words) => words,
  (words) => `    ${words}`,
  (words) => `\t${words}\n${words}`,
  (words) => `## ${words}`,
  (words) => `${words}\n=====`,
  (words) => `- ${words}\n  ${words}\n- x ${words}`,
  (words) => `3. ${words}\n4) ${words}`,
  (words) => `> ${words}\n> > ${words}`,
  (words) => `\`\`\`\n${words};\n\`\`\``,
  (words) => `| ${words} | b |\n|---|---|\n| ${words} | d |`,
  (words) => `${words}\t${words}\n${words}   ${words}`,
  (words) => `[${words}](https://log.example/my_page_${words.replaceAll(' ', '_')} "${words}")`,
  (words) => `[${words}][${words}]\n\n[${words}]: /there "${words}"`,
  (words) => `![${words}](x.png) ${words} <b title="${words}">${words}</b>`,
  (words) => `<!-- ${words} -->\n\n<div>${words}</div>`,
  (words) => `References\n\n${words}`,
  (words) => `## Contents\n\n- ${words}`,
  (words) => `Photo: ${words}`,
  (words) => `${words} [applause] ♪ ${words} ♪ ${words}[12]`,
  (words) => `Ada: ${words}\n\nBo: ${words}\n\nAda: ${words}\n\nBo: ${words}`,
  (words) => `**${words}** *${words}* __${words}__ \`${words}\` ~~${words}~~ ${words}\\_x my_${words}`,
  (words) => `---\nabout: ${words}\n---`,
  (words) => `[^1]: ${words}`,
  (words) => `${words}-\n${words}`,
];
const PAGE: ((words: string) => string)[] = [
  (words) => `<p>${words} <a href="#x">${words}</a> <code>my_${words}</code></p>`,
  (words) => `<h2>${words}</h2><ul><li>${words}<ul><li>${words}</ul><li><p>${words}</ul>`,
  (words) => `<nav><a href="/a">${words}</a></nav><aside>${words}</aside>`,
  (words) => `<pre><code>${words}\n  ${words}</code></pre>`,
  (words) => `<table><caption>${words}</caption><tr><th>${words}<th>b<tr><td>${words}|<td>${words}</table>`,
  (words) => `<table class="infobox"><tr><td>${words}</table>`,
  (words) => `<figure><img alt="${words}"><figcaption>${words}</figcaption></figure>`,
  (words) => `<blockquote><p>${words}</p>${words}</blockquote><dl><dt>${words}<dd>${words}</dl>`,
  (words) => `<p>${words}<sup><a href="#n">1</a></sup> m<sup>2</sup></p><div class="footnotes">${words}</div>`,
  (words) => `<div>${words}<p>${words}</div>${words}<section class="share-bar">${words}</section>`,
  (words) => `<article><p>${words}</p></article><footer>${words}</footer>`,
  (words) => `<details><summary>${words}</summary>${words}</details><button>${words}</button>`,
];
const CUES: ((words: string, at: string) => string)[] = [
  (words, at) => `${at}\n${words}`,
  (words, at) => `${at}\n<v Ada>${words}\n[music] ${words}`,
  (words, at) => `intro ${words.slice(0, 9)}\n${at}\n♪ ${words} ♪`,
  (words) => `NOTE ${words}`,
  (words) => `some --> time\n${words}`,
  (words, at) => `${at}\nADA: ${words}\n- ${words}`,
];
const all = (stretches: readonly (readonly [number, string])[], makers: readonly ((words: string) => string)[]) =>
  stretches.map(([at, words]) => makers[at % makers.length]!(words));
const stretches = fc.array(fc.tuple(fc.nat(100), line), { minLength: 1, maxLength: 12 });
const wordsOf = (text: string) => new Set(text.match(/\bw\p{L}+/gu) ?? []);

describe('every word of a source is read, or in a stretch that is named', () => {
  const lacking = (text: string, name: string) => {
    const source = readSource(text, name);
    if (!source.ok) return [];
    const reading = readingOf(source.value);
    const read = reading.blocks.map(({ start, end }) => reading.text.slice(start, end));
    const found = wordsOf([...read, ...reading.leftOut.map(({ text: left }) => left), source.value.title].join(' '));
    return [...wordsOf(text)].filter((word) => !found.has(word));
  };
  it.each([
    ['plain text and Markdown', MARKED, (parts: string[]) => parts.join('\n\n'), ['a.txt', 'a.md']],
    ['lines close to each other', MARKED, (parts: string[]) => parts.join('\n'), ['a.txt', 'a.md']],
    ['a page', PAGE, (parts: string[]) => `<html><body>${parts.join('')}</body></html>`, ['a.html']],
  ] as const)('of %s', (_name, makers, together, names) => {
    fc.assert(
      fc.property(stretches, (own) => {
        for (const name of names) expect(lacking(together(all(own, makers)), name)).toEqual([]);
      }),
      { numRuns: 150 },
    );
  });

  it('of subtitles', () => {
    fc.assert(
      fc.property(stretches, (own) => {
        const cues = own.map(([at, words], index) => {
          const second = String(index * 2).padStart(2, '0');
          return CUES[at % CUES.length]!(words, `00:00:${second}.000 --> 00:00:${second}.900`);
        });
        expect(lacking(`WEBVTT - a talk\n\n${cues.join('\n\n')}`, 'a.vtt')).toEqual([]);
      }),
      { numRuns: 150 },
    );
  });
});
