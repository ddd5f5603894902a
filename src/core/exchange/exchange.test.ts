import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { DATES_LIMIT, readCalendarFile } from './calendarFile';
import { dateOrders, guessColumns, guessStage, orderOfDates, readMoment, readOrderedDate } from './columns';
import { decodeText } from '../text/decode';
import { harmlessCell, readCsv, restoreCell, writeCsvRows } from './csvText';
import { planImport, startMapping, type ImportGround, type ImportMapping } from './planImport';

const tableOf = (text: string) => {
  const read = readCsv(text);
  if (!read.ok) throw new Error(read.refusal.message);
  return read.value;
};

describe('letters of a file', () => {
  const text = 'title;date\nDôme à 8 h — “star” 🌠;2026-11-26';
  const utf16 = (bigEndian: boolean, mark: boolean) => {
    const bytes = Buffer.from(mark ? `\ufeff${text}` : text, 'utf16le');
    return new Uint8Array(bigEndian ? bytes.swap16() : bytes);
  };
  it.each([
    ['UTF-8', new TextEncoder().encode(text)],
    ['UTF-8 with its mark', new TextEncoder().encode(`\ufeff${text}`)],
    ['UTF-16 little-endian with its mark', utf16(false, true)],
    ['UTF-16 little-endian without', utf16(false, false)],
    ['UTF-16 big-endian with its mark', utf16(true, true)],
    ['UTF-16 big-endian without', utf16(true, false)],
  ])('%s', (_name, bytes) => expect(decodeText(bytes).replace(/^\ufeff/, '')).toBe(text));
  it('Windows-1252', () =>
    expect(decodeText(new Uint8Array([0x44, 0xf4, 0x6d, 0x65, 0x20, 0x96, 0x20, 0x80]))).toBe('Dôme – €'));
});

describe('rows of a file', () => {
  it.each([
    ['commas', 'a,b\n1,2'],
    ['semicolons', 'a;b\r\n1;2\r\n'],
    ['tabs', 'a\tb\n1\t2'],
    ['a mark', '\ufeffa,b\n1,2\n\n'],
  ])('set apart by %s', (_name, text) =>
    expect(tableOf(text)).toEqual({ header: ['a', 'b'], rows: [{ line: 2, cells: ['1', '2'] }], bad: [] }),
  );
  it('know their line, though cells hold line breaks', () =>
    expect(tableOf('a,b\n"one\ntwo\r\nthree",x\nlast,y').rows.map(({ line }) => line)).toEqual([2, 5]));
  it('name a quote that never ends by its line', () => {
    const table = tableOf('a,b\n1,2\n"open,3\n4,5');
    expect(table.rows.map(({ line }) => line)).toEqual([2]);
    expect(table.bad).toEqual([{ line: 3, reason: expect.stringContaining('never closed') }]);
  });
  it.each([
    ['', 'emptyFile'],
    ['  \n ', 'emptyFile'],
    [`a\n${'x\n'.repeat(10_002)}`, 'tooManyRows'],
    [`a${',b'.repeat(1_000)}\nx`, 'tooManyColumns'],
  ])('refuse %#', (text, code) => {
    const read = readCsv(text);
    expect(read.ok || read.refusal.code).toBe(code);
  });
  it('make formulas harmless, and give every text back', () => {
    expect(harmlessCell('=1+1')).toBe("'=1+1");
    expect(harmlessCell("'=1")).toBe("''=1");
    expect(harmlessCell("it's")).toBe("it's");
    fc.assert(
      fc.property(
        fc.array(fc.oneof(fc.string({ unit: 'grapheme' }), fc.stringMatching(/^['=+\-@\t\r]{0,4}x?$/)), {
          minLength: 1,
          maxLength: 4,
        }),
        (cells) => {
          cells.forEach((cell) => {
            expect(restoreCell(harmlessCell(cell))).toBe(cell);
            expect(/^[=+\-@\t\r]/.test(harmlessCell(cell))).toBe(false);
          });
          const header = cells.map((_, index) => `c${index}`);
          const row = ['kept', ...cells.map((cell) => cell.replace(/\r/g, ''))];
          const table = tableOf(writeCsvRows([['first', ...header], row]));
          expect(table.rows[0]!.cells.map(restoreCell)).toEqual(row);
        },
      ),
    );
  });
});

describe('what columns hold', () => {
  const known = { channels: [{ id: '1', name: 'Glassrow', callSign: 'GR' }] };
  it('by their names, also those that others use', () =>
    expect(guessColumns(['Status', 'Publish date', 'Platform', 'Copy', 'Post title', 'Tags'], [], known)).toEqual({
      stage: 0,
      date: 1,
      channel: 2,
      caption: 3,
      headline: 4,
      hashtags: 5,
    }));
  it('by what stands in them, where names tell nothing', () =>
    expect(
      guessColumns(
        ['A', 'B', 'C', 'D', 'E'],
        [
          ['26/11/2026', '14:30', 'gr', 'https://fennelmoor.example', 'draft'],
          ['27/11/2026', '9:05', 'Glassrow', '', 'posted'],
        ],
        known,
      ),
    ).toEqual({ date: 0, time: 1, channel: 2, link: 3, stage: 4 }));
  it('dates in three orders', () => {
    expect(dateOrders('03/04/2026')).toEqual(['dmy', 'mdy']);
    expect(dateOrders('31.04.2026')).toEqual([]);
    expect(readOrderedDate('2026-04-03T09:00', 'ymd')).toBe('2026-04-03');
    expect(orderOfDates(['03/04/2026', '25/04/2026', ''])).toBe('dmy');
    expect(orderOfDates(['04/25/2026', '03/04/2026'])).toBe('mdy');
    expect(orderOfDates(['03/04/2026', '05/06/2026'])).toBe('ask');
    expect(orderOfDates(['soon'])).toBe('none');
  });
  it('stages by Bimlo’s words and by others', () =>
    expect(['Sign-off', 'signOff', 'POSTED', 'In progress', 'nonsense'].map(guessStage)).toEqual([
      'signOff',
      'signOff',
      'published',
      'production',
      null,
    ]));
});

describe('planning what comes in', () => {
  const sheet = (slug: string) => SHIPPED_RULE_SHEETS.find((one) => one.slug === slug)!;
  const ground: ImportGround = {
    channels: [
      { id: 'gr', name: 'Glassrow', callSign: 'GR', sheet: sheet('glassrow') },
      { id: 'pl', name: 'Pithline', callSign: 'PL', sheet: sheet('pithline') },
    ],
    people: [{ id: 'ines', name: 'Ines' }],
    pillars: [{ id: 'sky', name: 'Sky' }],
    campaigns: [],
    zone: 'Europe/Lisbon',
    today: '2026-11-23',
  };
  const plan = (text: string, change: Partial<ImportMapping> = {}) => {
    const table = tableOf(text);
    const columns = guessColumns(
      table.header,
      table.rows.map(({ cells }) => cells),
      ground,
    );
    return planImport(table, { ...startMapping(table, columns, null), ...change }, ground);
  };
  it('reads a good row whole', () => {
    const { rows, bad } = plan(
      'piece,title,channel,format,date,time,stage,caption,owner,pillar\nRings,Rings 1,gr,Carousel,2026-12-01,2.15 pm,Draft,"One\r\ntwo",ines,Sky',
    );
    expect(bad).toEqual([]);
    expect(rows).toEqual([
      {
        line: 2,
        key: 'Rings · Rings 1 · GR',
        givenId: '',
        pieceTitle: 'Rings',
        title: 'Rings 1',
        channelId: 'gr',
        format: 'carousel',
        date: '2026-12-01',
        time: '14:15',
        stage: 'drafting',
        caption: 'One\ntwo',
        ownerId: 'ines',
        pillarId: 'sky',
        lists: {},
      },
    ]);
  });
  it('reads lists in JSON, and names whoever does a step', () => {
    const cell = (list: unknown) => `"${JSON.stringify(list).replaceAll('"', '""')}"`;
    const row = (...lists: unknown[]) => `GR,Rings,${lists.map(cell).join(',')}`;
    const columns = 'channel,title,parts,media,steps,extracts';
    const { rows, bad } = plan(
      `${columns}\n${row(
        ['One', { text: '', picture: 1 }],
        [{ file: 'dome.jpg', alt: ' The dome ' }],
        [{ title: '  Draw\n it', work: 'picture', who: 'INES', lead: 2 }],
        [{ text: 'It is young.' }],
      )}`,
    );
    expect(bad).toEqual([]);
    expect(rows[0]!.lists).toMatchObject({
      parts: [
        { text: 'One', picture: null },
        { text: '', picture: 1 },
      ],
      media: [{ file: 'dome.jpg', alt: 'The dome', sha256: null, crop: null }],
      steps: [{ title: 'Draw it', ownerId: 'ines', lead: 2, leadIn: 'working', doneAt: null, doneBy: null }],
      extracts: [{ kind: 'quote', text: 'It is young.', start: null }],
    });
    const lists: [reason: string, ...cells: unknown[]][] = [
      ['none of its media', [{ text: 'x', picture: 2 }], [{ file: 'a.png' }], [], []],
      ['show the same picture', ['x', { picture: 1 }, { picture: 1 }], [{ file: 'a.png' }], [], []],
      ['media are not a list in JSON', [], [{ alt: 'no file' }], [], []],
      ['media are not a list in JSON', [], [{ file: 'a.png', sha256: '../../etc' }], [], []],
      [
        'does not lie inside the picture',
        [],
        [{ file: 'a.png', crop: { x: 0.9, y: 0, width: 0.9, height: 1 } }],
        [],
        [],
      ],
      ['Alt text: 2,001 characters', [], [{ file: 'a.png', alt: 'x'.repeat(2_001) }], [], []],
      ['it has more than 40 media', [], Array(41).fill({ file: 'a.png' }), [], []],
      ['nobody of this brand is called “Zoe”', [], [], [{ title: 'Draw', who: 'Zoe' }], []],
      ['The kind of work is not one', [], [], [{ title: 'Draw', work: 'dance' }], []],
      ['extracts are not a list in JSON', [], [], [], [{ kind: 'poem', text: 'x' }]],
      ['parts are not a list of texts', [{ length: 2 }, 3], [], [], []],
      ['steps are not a list in JSON', [], [], [null], []],
    ];
    for (const [reason, ...cells] of lists)
      expect(plan(`${columns}\n${row(...cells)}`).bad, reason).toEqual([
        { line: 2, reason: expect.stringContaining(reason) as string },
      ]);
  });
  it('takes a column of that name for no list that holds none', () => {
    const table = tableOf('Channel,Title,Media,Steps\nGR,Rings,dome.jpg,');
    expect(
      guessColumns(
        table.header,
        table.rows.map(({ cells }) => cells),
        ground,
      ),
    ).toEqual({ channel: 0, title: 1, steps: 3 });
  });
  it.each([
    ['its channel is empty', ',2026-12-01,10:00,x,,'],
    ['no channel is called “Tallclip”', 'Tallclip,2026-12-01,10:00,x,,'],
    ['“31/02/2026” is not a date', 'GR,31/02/2026,10:00,x,,'],
    ['“25:00” is not a time', 'GR,2026-12-01,25:00,x,,'],
    ['it has a time and no date', 'GR,,10:00,x,,'],
    ['jump over 01:30', 'GR,2027-03-28,01:30,x,,'],
    ['no stage is called “lost”', 'GR,2026-12-01,10:00,x,lost,'],
    ['no date up to today', 'GR,2026-12-01,10:00,x,posted,'],
    ['jump over 01:30', 'GR,2027-03-28T01:30,,x,,'],
    ['“2026-12-01T25:99” is not a date', 'GR,2026-12-01T25:99,,x,,'],
    ['The year 3026 is out of reach', 'GR,3026-12-01,10:00,x,,'],
    ['no stage is called “constructor”', 'GR,2026-12-01,10:00,x,constructor,'],
    ['no channel is called “__proto__”', '__proto__,2026-12-01,10:00,x,,'],
    ['neither title nor caption', 'GR,2026-12-01,10:00,,,'],
    ['nobody of this brand is called “Zoe”', 'GR,2026-12-01,10:00,x,,Zoe'],
  ])('names a bad row: %s', (reason, row) => {
    const { rows, bad } = plan(`channel,date,time,title,stage,owner\nPL,2026-12-02,10:00,good,,\n${row}`);
    expect(rows.map(({ line }) => line)).toEqual([2]);
    expect(bad).toEqual([{ line: 3, reason: expect.stringContaining(reason) }]);
  });
  it('names a text that is longer than is kept before anything is written', () =>
    expect(plan(`channel,title,caption\nGR,x,${'y'.repeat(100_001)}`).bad).toEqual([
      { line: 2, reason: expect.stringContaining('100,001 characters are more than Bimlo keeps') },
    ]));
  it('asks for the order of dates, and for channels it does not know', () => {
    const asked = plan('channel,date,title\nFace,03/04/2027,x\nGR,05/06/2027,y');
    expect(asked.asksDateOrder).toBe(true);
    expect(asked.unknownChannels).toEqual(['Face']);
    const told = plan('channel,date,title\nFace,03/04/2027,x\nGR,05/06/2027,y', {
      dateOrder: 'dmy',
      channels: { Face: 'pl' },
    });
    expect(told.rows.map(({ channelId, date }) => [channelId, date])).toEqual([
      ['pl', '2027-04-03'],
      ['gr', '2027-06-05'],
    ]);
    expect(plan('channel,title\nFace,x', { channels: { Face: null } })).toMatchObject({ rows: [], bad: [] });
  });
  it('says that a channel is needed at all', () =>
    expect(plan('title\nx').bad).toEqual([
      { line: 1, reason: expect.stringContaining('no column holds the channel') },
    ]));
  it('counts what lies in the past, but not what is published', () =>
    expect(plan('channel,date,title,stage\nGR,2026-11-01,a,\nGR,2026-11-02,b,posted\nGR,2026-11-23,c,').pastRows).toBe(
      1,
    ));
  it('gives rows that look alike keys of their own, and refuses an id twice', () => {
    expect(plan('channel,title\nGR,x\nGR,x').rows.map(({ key }) => key)).toEqual(['x · x · GR', 'x · x · GR · 2']);
    expect(plan('id,channel,title\n7,GR,x\n7,GR,y').bad[0]!.reason).toContain('twice');
  });
});

describe('a calendar file', () => {
  const SPAN = { from: '2026-11-01', to: '2027-02-28' };
  const file = (...lines: string[]) =>
    ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Moor//EN', ...lines, 'END:VCALENDAR', ''].join('\r\n');
  const event = (...lines: string[]) => ['BEGIN:VEVENT', 'UID:1', 'SUMMARY:Star night', ...lines, 'END:VEVENT'];
  const read = (text: string, zone = 'Europe/Lisbon') => {
    const result = readCalendarFile(text, SPAN, zone);
    if (!result.ok) throw new Error(result.refusal.message);
    return result.value;
  };
  const daysOf = (text: string) => read(text).dates.map(({ from, time }) => (time ? `${from} ${time}` : from));

  it('gives whole days, with the last one included', () =>
    expect(read(file(...event('DTSTART;VALUE=DATE:20261224', 'DTEND;VALUE=DATE:20261227'))).dates).toEqual([
      { title: 'Star night', from: '2026-12-24', to: '2026-12-26', time: null },
    ]));
  it('gives timed ones on the brand’s wall: UTC, named zones, floating', () => {
    expect(daysOf(file(...event('DTSTART:20261201T233000Z')))).toEqual(['2026-12-01 23:30']);
    expect(daysOf(file(...event('DTSTART;TZID=Europe/Berlin:20261201T003000')))).toEqual(['2026-11-30 23:30']);
    expect(daysOf(file(...event('DTSTART:20261201T183000')))).toEqual(['2026-12-01 18:30']);
  });
  it('takes a zone the file defines itself', () => {
    const zone = [
      'BEGIN:VTIMEZONE',
      'TZID:Moor time',
      'BEGIN:STANDARD',
      'DTSTART:19700101T000000',
      'TZOFFSETFROM:+0300',
      'TZOFFSETTO:+0300',
      'END:STANDARD',
      'END:VTIMEZONE',
    ];
    expect(daysOf(file(...zone, ...event('DTSTART;TZID=Moor time:20261201T020000')))).toEqual(['2026-11-30 23:00']);
  });
  it('repeats by rule, without the days excepted, up to the last day wanted', () => {
    expect(
      daysOf(file(...event('DTSTART;VALUE=DATE:20261103', 'RRULE:FREQ=WEEKLY;COUNT=4', 'EXDATE;VALUE=DATE:20261110'))),
    ).toEqual(['2026-11-03', '2026-11-17', '2026-11-24']);
    expect(daysOf(file(...event('DTSTART;VALUE=DATE:20261231', 'RRULE:FREQ=MONTHLY;BYMONTHDAY=-1')))).toEqual([
      '2026-12-31',
      '2027-01-31',
      '2027-02-28',
    ]);
  });
  it('follows a rule without an end that began long ago', () =>
    expect(daysOf(file(...event('DTSTART;VALUE=DATE:19800101', 'RRULE:FREQ=DAILY'))).length).toBe(120));
  it('folded lines are unfolded', () =>
    expect(
      read(file('BEGIN:VEVENT', 'SUMMARY:A very long', '  name', 'DTSTART;VALUE=DATE:20261201', 'END:VEVENT')).dates[0]!
        .title,
    ).toBe('A very long name'));

  it.each([
    ['repeats every second', event('DTSTART:20261201T183000', 'RRULE:FREQ=SECONDLY'), 'repeats secondly'],
    [
      'is in a zone nobody knows',
      event('DTSTART;TZID=Moor/Nowhere:20261201T183000'),
      'neither defined in the file nor known',
    ],
    ['has no day', event('SUMMARY:x'), 'DTSTART'],
    ['has a day that is none', event('DTSTART:2026xx'), 'invalid date-time'],
  ])('leaves out what %s, and names its line', (_name, lines, reason) => {
    const { dates, bad } = read(file(...event('DTSTART;VALUE=DATE:20261201'), ...lines));
    expect(dates).toHaveLength(1);
    expect(bad).toEqual([{ line: 9, reason: expect.stringContaining(reason) }]);
  });
  it.each([
    ['no calendar at all', 'hello world'],
    ['broken folding', file('BEGIN:VEVENT', 'SUMMARY:A very long', 'name', 'END:VEVENT')],
    ['an end that is missing', 'BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nSUMMARY:x'],
    ['nothing', ''],
  ])('refuses %s with the reason', (_name, text) => {
    const result = readCalendarFile(text, SPAN, 'Europe/Lisbon');
    expect(result.ok || result.refusal.code).toBe('badCalendar');
  });
  it('names the line of broken folding', () => {
    const result = readCalendarFile(file('BEGIN:VEVENT', 'SUMMARY:A', 'name', 'END:VEVENT'), SPAN, 'Europe/Lisbon');
    expect(result.ok || result.refusal.message).toContain('(line 6)');
  });
  it('gives up on rules that would have to be followed for too long, and names them', () => {
    const old = Array.from({ length: 5 }, () => event('DTSTART;VALUE=DATE:19700101', 'RRULE:FREQ=DAILY')).flat();
    const { bad, dates } = read(file(...old));
    expect(dates.length).toBeGreaterThan(0);
    expect(bad.length).toBeGreaterThan(0);
    expect(bad[0]!.reason).toContain('too often');
  });
  it('refuses more dates than it keeps', () => {
    const many = Array.from({ length: 50 }, () => event('DTSTART;VALUE=DATE:20261101', 'RRULE:FREQ=DAILY')).flat();
    const result = readCalendarFile(file(...many), SPAN, 'Europe/Lisbon');
    expect(result.ok || result.refusal.code).toBe(50 * 120 > DATES_LIMIT ? 'tooManyDates' : 'none');
  });
});

describe('rows that would vanish', () => {
  const linesOf = (text: string) => {
    const { rows, bad } = tableOf(text);
    return {
      rows: rows.map(({ line, cells }) => [line, ...cells]),
      bad: bad.map(({ line, reason }) => [line, reason]),
    };
  };
  it('with mixed line ends are all read', () =>
    expect(linesOf('a,b\r\n1,2\n3,4\r5,6').rows).toEqual([
      [2, '1', '2'],
      [3, '3', '4'],
      [4, '5', '6'],
    ]));
  it('with more cells than the header are named', () =>
    expect(linesOf('a,b\n1,2,3\n4,5,,\n')).toEqual({
      rows: [[3, '4', '5', '', '']],
      bad: [[2, expect.stringContaining('3 cells where the header names 2')]],
    }));
  it('behind a quote that never ends are named with it', () =>
    expect(linesOf('a,b\n1,"2\n3,4\n5,6')).toMatchObject({
      rows: [],
      bad: [[2, expect.stringContaining('lines 2 to 4 are lost in it')]],
    }));
  it('after a line that names the separator keep their lines', () =>
    expect(linesOf('sep=;\na;b\n1,5;2')).toEqual({ rows: [[3, '1,5', '2']], bad: [] }));
});

describe('a date with a time behind it', () => {
  const ZONE = 'Europe/Lisbon';
  it.each([
    ['2026-04-03', { date: '2026-04-03', time: null }],
    ['2026-04-03T09:00', { date: '2026-04-03', time: '09:00' }],
    ['2026-04-03 9:05:30', { date: '2026-04-03', time: '09:05' }],
    ['2026-04-03T23:30:00Z', { date: '2026-04-04', time: '00:30' }],
    ['2026-12-03T23:30:00.000Z', { date: '2026-12-03', time: '23:30' }],
    ['2026-04-03T09:00+05:30', { date: '2026-04-03', time: '04:30' }],
    ['2026-04-03T09:00-0300', { date: '2026-04-03', time: '13:00' }],
    ['2026-04-03T25:99', null],
    ['2026-04-03 in the evening', null],
  ] as const)('%s', (cell, expected) => expect(readMoment(cell, 'ymd', ZONE)).toEqual(expected));
  it('3.4.2026 14:30, day first', () =>
    expect(readMoment('3.4.2026 14:30', 'dmy', ZONE)).toEqual({ date: '2026-04-03', time: '14:30' }));
});
