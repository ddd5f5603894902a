import ICAL from 'ical.js';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { NO_FILTER } from '@/core/calendar/filter';
import { readCsv } from '@/core/exchange/csvText';
import type { ImportMapping } from '@/core/exchange/planImport';
import { oneBrand } from '@/data/brands/brands';
import { partsOfAllPosts } from '@/data/posts/postLines';
import { listDateFiles, listKnownDates } from '@/data/calendar/knownDates';
import { bringIn, type ImportExtent } from './importPosts';
import { previewImport } from './previewImport';
import { bringDates, removeDates, renameDates } from '../calendar/knownDates';
import { schedulePost, declareOut } from '../delivery/schedule';
import { postsAsCalendar, postsAsCsv } from './exportPosts';
import { codeOf, makeWorld, START, valueOf, type TestWorld } from '../testWorld';
import { latestReadings } from '@/data/results/readings';
import { readSource } from '@/core/reading/readSource';
import { maybePiece } from '@/data/pieces/pieces';
import { bringSource } from '../extracts/bringSource';
import { pieceAsMarkdown } from './exportPiece';
import { catchIdea, editPiece } from '../pieces/pieces';
import { editPost } from '../captions/editPost';

let world: TestWorld;
beforeEach(async () => void (world = await makeWorld()));
afterEach(() => world.close());

const tableOf = (text: string) => valueOf(readCsv(text));
const preview = async (text: string, tried: ImportMapping | null = null, name = 'plan.csv') =>
  valueOf(await previewImport(world.db, world.brandId, START, tableOf(text), name, tried));
async function bring(
  text: string,
  change: Partial<ImportMapping> = {},
  extent: ImportExtent = 'good',
  name = 'plan.csv',
) {
  const { mapping } = await preview(text, null, name);
  return bringIn(world.work, {
    brandId: world.brandId,
    table: tableOf(text),
    fileName: name,
    mapping: { ...mapping, ...change },
    extent,
  });
}
/** All that comes, part by part. */
async function all<T>(parts: AsyncIterable<T>): Promise<T[]> {
  const list: T[] = [];
  for await (const part of parts) list.push(part);
  return list;
}
const whole = async (texts: AsyncIterable<string>): Promise<string> => (await all(texts)).join('');
const posts = async () =>
  (
    await all(
      partsOfAllPosts(
        world.db,
        { brandIds: [world.brandId], filter: { ...NO_FILTER, stages: [] }, today: '2026-11-23' },
        1_000,
        2,
      ),
    )
  ).flat();

const FILE = `piece,title,channel,date,time,stage,caption
Rings,Rings one,PL,2026-12-01,10:00,draft,Words one
Rings,Rings two,GR,2026-12-02,,,
,Alone,pithline,,,done,Words three`;

describe('bringing a file in', () => {
  it('makes posts, those of one piece together', async () => {
    const outcome = valueOf(await bring(FILE));
    expect(outcome).toMatchObject({ made: 3, changed: 0, same: 0, bad: [] });
    const made = await posts();
    expect(made.map(({ title, date, time, stage }) => [title, date, time, stage])).toEqual([
      ['Rings one', '2026-12-01', '10:00', 'drafting'],
      ['Rings two', '2026-12-02', null, 'drafting'],
      ['Alone', null, null, 'ready'],
    ]);
    expect(made[0]!.pieceId).toBe(made[1]!.pieceId);
    expect(made[2]!.pieceId).not.toBe(made[0]!.pieceId);
  });

  it('the same file again changes nothing and doubles nothing, also downloaded twice', async () => {
    valueOf(await bring(FILE));
    expect(await preview(FILE)).toMatchObject({ fresh: 0, changed: 0, same: 3 });
    expect(valueOf(await bring(FILE, {}, 'whole', 'plan (2).csv'))).toMatchObject({ made: 0, changed: 0, same: 3 });
    expect(await posts()).toHaveLength(3);
  });

  it('a changed row changes its post, and remembers how columns were meant', async () => {
    const odd = FILE.replace('channel', 'place');
    const { mapping } = await preview(odd);
    expect(mapping.columns.channel).toBe(2);
    const meant = { columns: { ...mapping.columns, caption: 6 } };
    valueOf(await bring(odd, meant));
    const changed = odd.replace('2026-12-01', '2026-12-03').replace('Words one', 'New words');
    expect(await preview(changed)).toMatchObject({ fresh: 0, changed: 1, same: 2 });
    expect(valueOf(await bring(changed))).toMatchObject({ made: 0, changed: 1, same: 2 });
    expect((await posts()).find(({ title }) => title === 'Rings one')).toMatchObject({
      date: '2026-12-03',
      time: '10:00',
      caption: 'New words',
    });
  });

  it('takes the good rows and names the bad, or nothing at all', async () => {
    const text = `${FILE}\nX,Bad date,PL,2026-02-31,,,\nX,No channel,QQ,,,,`;
    expect(codeOf(await bring(text, {}, 'whole'))).toBe('badRows');
    expect(await posts()).toHaveLength(0);
    const outcome = valueOf(await bring(text, {}, 'good'));
    expect(outcome.made).toBe(3);
    expect(outcome.bad.map(({ line }) => line)).toEqual([5, 6]);
  });

  it('asks about rows in the past, then takes them as published elsewhere or sets them aside', async () => {
    const text = 'title,channel,date,caption\nOld,PL,2026-11-01,words';
    expect(codeOf(await bring(text))).toBe('askPast');
    valueOf(await bring(text, { past: 'publishedElsewhere' }));
    expect((await posts())[0]).toMatchObject({ stage: 'published', date: '2026-11-01' });
    valueOf(await bring(text.replace('Old', 'Older'), { past: 'setAside' }));
    expect(await posts()).toHaveLength(1);
  });

  it('does not call ready what is not fit, and schedules nothing by itself', async () => {
    const outcome = valueOf(
      await bring('title,channel,date,time,stage,caption\nA,GR,2026-12-01,10:00,scheduled,words'),
    );
    expect((await posts())[0]!.stage).toBe('production');
    expect(outcome.notes.map(({ message }) => message).join(' ')).toContain('cannot be ready yet');
  });

  describe('of published posts', () => {
    const past = (row: string) => `title,channel,date,time,stage,caption,link,post url,reach,Reactions,saves\n${row}`;
    const OUT = 'Rings seen,PL,2026-10-05,18:30,posted,words,https://m.example/talk,https://p.example/1';

    it('brings their real time, address and numbers, and joins the piece of that link', async () => {
      const piece = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'A talk' }));
      await world.db.run('update pieces set link = $2 where id = $1', [piece.id, 'https://m.example/talk']);
      valueOf(await bring(past(`${OUT},"12,400",310,`)));
      const [post] = await posts();
      expect(post).toMatchObject({
        ...{ pieceId: piece.id, stage: 'published', publishedAt: '2026-10-05T17:30:00.000Z' },
        address: 'https://p.example/1',
      });
      const told = (await latestReadings(world.db, [post!.id])).get(post!.id);
      expect(told).toMatchObject({ reach: 12_400, likes: 310, saves: null, at: START });
    });

    it('adds later numbers to the post of that address, keeps those that are not told, and changes nothing of it', async () => {
      valueOf(await bring(past(`${OUT},12400,310,`)));
      const before = await posts();
      const later = past(`${OUT},,350,41`);
      expect(await preview(later, null, 'later.csv')).toMatchObject({ fresh: 0, changed: 1, same: 0 });
      world.goTo('2026-11-24T09:00:00.000Z');
      expect(valueOf(await bring(later, {}, 'whole', 'later.csv'))).toMatchObject({ made: 0, changed: 1 });
      expect(await posts()).toEqual(before);
      const told = (await latestReadings(world.db, [before[0]!.id])).get(before[0]!.id);
      expect(told).toMatchObject({ reach: 12_400, likes: 350, saves: 41 });
    });

    it('takes a file of numbers alone, by address or id, and lists what finds no post', async () => {
      valueOf(await bring(past(`${OUT},12400,310,`)));
      const [post] = await posts();
      const draft = await world.makePost('pithline');
      const rows = [
        'post url,views,Reactions',
        'https://p.example/1,"20,500",360',
        'https://p.example/2,90,4',
        'https://p.example/1,1,1',
        ',5,5',
        'https://p.example/3,,',
      ];
      const numbers = rows.join('\n');
      const bad = [
        { line: 3, reason: 'no one post was published at “https://p.example/2”' },
        { line: 4, reason: 'another row tells numbers of the same post' },
        { line: 5, reason: 'it has neither the id nor the address of a post' },
        { line: 6, reason: 'it tells no number' },
      ];
      expect(await preview(numbers, null, 'numbers.csv')).toMatchObject({ fresh: 0, changed: 1, same: 0, bad });
      world.goTo('2026-11-24T09:00:00.000Z');
      expect(valueOf(await bring(numbers, {}, 'good', 'numbers.csv'))).toMatchObject({ made: 0, changed: 1, bad });
      const told = (await latestReadings(world.db, [post!.id])).get(post!.id);
      expect(told).toMatchObject({ reach: 12_400, views: 20_500, likes: 360 });
      expect(await preview(numbers, null, 'numbers.csv')).toMatchObject({ fresh: 0, changed: 0, same: 1 });
      const byId = `id,reach\n${post!.id},13000\n${draft.id},7\n`;
      expect(valueOf(await bring(byId, {}, 'good', 'ids.csv'))).toMatchObject({
        ...{ made: 0, changed: 1 },
        bad: [{ line: 3, reason: '“Dome night” is not published, so nobody can have seen it' }],
      });
      expect(codeOf(await bring(byId, {}, 'whole', 'ids.csv'))).toBe('badRows');
      expect((await latestReadings(world.db, [post!.id])).get(post!.id)).toMatchObject({ reach: 13_000 });
    });

    it('says which post is meant by an address only where one alone has it', async () => {
      valueOf(await bring(past(`${OUT},1,1,\n${OUT.replace('PL', 'GR').replace('Rings seen', 'Moons')},2,2,`)));
      expect((await preview('post url,reach\nhttps://p.example/1,9', null, 'numbers.csv')).bad).toHaveLength(1);
      expect(await preview(past(`${OUT},9,,`), null, 'numbers.csv')).toMatchObject({ changed: 1, bad: [] });
    });

    it.each([
      ['a number that is none', `${OUT},many,310,`, 'not a number of reach'],
      ['an address that is none', OUT.replace('https://p.example/1', 'somewhere') + ',,,', 'is no address'],
    ])('names %s by its line', async (_what, row, reason) =>
      expect((await preview(past(row))).bad).toEqual([{ line: 2, reason: expect.stringContaining(reason) }]),
    );
  });

  it('refuses parts that are no list of texts', async () => {
    const { bad } = await preview('title,channel,parts\nA,PL,"[1, 2]"');
    expect(bad[0]!.reason).toContain('not a list of texts');
  });

  it('refuses to change what is published', async () => {
    const post = await world.makePost('pithline', { date: '2026-11-23', time: '10:00' });
    valueOf(await declareOut(world.work, post.id, post.version, 'https://pithline.example/1'));
    const outcome = valueOf(await bring(`id,title,channel,caption\n${post.id},${post.title},PL,Other words`));
    expect(outcome.bad[0]!.reason).toContain('published');
  });
});

describe('taking out', () => {
  beforeEach(async () => {
    const odd = await world.makePost(
      'pithline',
      { date: '2026-11-26', time: '14:30' },
      '=SUM(A1), "quoted"\nsecond; line',
    );
    valueOf(await editPost(world.work, odd.id, odd.version, { title: '+1 for the dome', hashtags: '@x #y' }));
    const scheduled = await world.makePost('pithline', { date: '2026-11-27', time: '09:00' }, "'-quiet");
    valueOf(await schedulePost(world.work, scheduled.id, scheduled.version));
    await world.makePost('corkwall', { date: null, time: null });
    await world.makePost('glassrow', { date: '2026-11-28', time: null });
  });
  const brand = () => oneBrand(world.db, world.brandId);

  it('as CSV, and in again, changes nothing', async () => {
    const csv = await whole(postsAsCsv(world.db, await brand(), NO_FILTER, START));
    expect(csv.split('\r\n')[0]).toBe(
      'id,piece,title,channel,format,date,time,zone,stage,headline,preheader,caption,keywords,firstComment,hashtags,link,script,' +
        'coverIdeas,agenda,parts,media,steps,extracts,owner,pillar,campaign,address,reason,reach,views,likes,comments,shares,saves,clicks,follows,watchSeconds',
    );
    expect(csv).toContain("'=SUM(A1)");
    const before = await posts();
    expect(await preview(csv)).toMatchObject({ fresh: 0, changed: 0, same: 4, bad: [] });
    expect(valueOf(await bring(csv, {}, 'whole'))).toMatchObject({ made: 0, changed: 0, same: 4 });
    expect(await posts()).toEqual(before);
  });

  it('as CSV by filter', async () => {
    const csv = await whole(postsAsCsv(world.db, await brand(), { ...NO_FILTER, stages: ['scheduled'] }, START));
    expect(tableOf(csv).rows).toHaveLength(1);
    const found = await whole(postsAsCsv(world.db, await brand(), { ...NO_FILTER, words: 'quoted sec' }, START));
    expect(tableOf(found).rows).toHaveLength(1);
  });

  it('as iCalendar has the same UIDs, times and summaries for another parser', async () => {
    const text = await whole(postsAsCalendar(world.db, await brand(), NO_FILTER, START));
    const events = new ICAL.Component(ICAL.parse(text) as [string, [], []])
      .getAllSubcomponents('vevent')
      .map((component) => new ICAL.Event(component));
    const dated = (await posts()).filter(({ date }) => date !== null);
    expect(events.map(({ uid, summary, startDate }) => [uid, summary, startDate.toString().slice(0, 16)])).toEqual(
      dated.map(({ id, title, date, time, channelId }) => [
        `${id}@bimlo`,
        `${channelId === world.channels.pithline ? 'PL' : 'GR'} · ${title}`,
        time ? `${date}T${time}` : date,
      ]),
    );
  });
});

const bytesOf = (text: string) => new TextEncoder().encode(text);

describe('dates to plan around', () => {
  const ics = (title: string) =>
    `BEGIN:VCALENDAR\r\nX-WR-CALNAME:Holidays\r\nBEGIN:VEVENT\r\nSUMMARY:${title}\r\nDTSTART;VALUE=DATE:20261208\r\nRRULE:FREQ=YEARLY\r\nEND:VEVENT\r\nEND:VCALENDAR`;
  const files = () => listDateFiles(world.db, world.brandId);
  it('come in under the file’s name, are replaced whole, and taken out', async () => {
    expect(valueOf(await bringDates(world.work, world.brandId, bytesOf(ics('Feast')), 'h.ics', ''))).toMatchObject({
      name: 'Holidays',
      count: 3,
      bad: [],
    });
    valueOf(await bringDates(world.work, world.brandId, bytesOf(ics('Festival')), 'h2.ics', 'Holidays'));
    const shown = await listKnownDates(world.db, [world.brandId], '2026-12-01', '2026-12-31');
    expect(shown).toEqual([{ title: 'Festival', from: '2026-12-08', to: '2026-12-08', time: null }]);
    const [file] = await files();
    expect(await files()).toHaveLength(1);
    valueOf(await renameDates(world.work, world.brandId, file!.id, ' Public  holidays '));
    expect((await files())[0]!.name).toBe('Public holidays');
    valueOf(await removeDates(world.work, world.brandId, file!.id));
    expect(await files()).toEqual([]);
    expect(await listKnownDates(world.db, [world.brandId], '2026-12-01', '2026-12-31')).toEqual([]);
  });
  it('keep their names apart', async () => {
    for (const name of ['One', 'Two'])
      valueOf(await bringDates(world.work, world.brandId, bytesOf(ics('Feast')), 'h.ics', name));
    const two = (await files()).find(({ name }) => name === 'Two')!;
    expect(codeOf(await renameDates(world.work, world.brandId, two.id, 'One'))).toBe('nameTaken');
    expect(codeOf(await renameDates(world.work, world.brandId, two.id, ' '))).toBe('emptyTitle');
    expect(codeOf(await renameDates(world.work, world.otherBrandId, two.id, 'Three'))).toBe('notFound');
  });
  it('are refused where the file holds none', async () =>
    expect(
      codeOf(await bringDates(world.work, world.brandId, bytesOf('BEGIN:VCALENDAR\r\nEND:VCALENDAR'), 'x.ics', '')),
    ).toBe('noDates'));
});

describe('a piece as Markdown', () => {
  const VTT =
    'WEBVTT\n\n00:01.000 --> 00:03.000\nThe rings are young.\n\n00:03.000 --> 00:05.000\nNobody saw them form.\n';
  it.each([
    ['a text', 'rings.md', '---\ntitle: other\n---\n# Rings\n\nThey **vanish**.'],
    ['subtitles', 'rings.vtt', VTT],
  ])('comes into an empty folder as it was: %s', async (_name, fileName, source) => {
    const out = async (of: TestWorld, id: string) => valueOf(await pieceAsMarkdown(of.work, id)).text;
    const bringInto = async (of: TestWorld, id: string, text: string, name: string) =>
      valueOf(await bringSource(of.work, id, (await maybePiece(of.db, id))!.version, valueOf(readSource(text, name))));
    const about = {
      title: 'Rings: why',
      note: 'Ask “Mara”\n- twice',
      link: 'https://a.example/x?y=1',
      kind: 'talk' as const,
    };
    const made = valueOf(await catchIdea(world.work, { brandId: world.brandId, ...about }));
    await bringInto(world, made.id, source, fileName);
    const file = await out(world, made.id);
    const empty = await makeWorld();
    try {
      const fresh = valueOf(await catchIdea(empty.work, { brandId: empty.brandId, title: 'rings', kind: 'article' }));
      const piece = await bringInto(empty, fresh.id, file, 'rings.md');
      expect(piece).toMatchObject(about);
      expect(await out(empty, fresh.id)).toBe(file);
      // What stands about a piece that has its text already is somebody's, and stays.
      valueOf(await editPiece(empty.work, fresh.id, piece.version, { title: 'Mine' }));
      expect((await bringInto(empty, fresh.id, file, 'rings.md')).title).toBe('Mine');
    } finally {
      await empty.close();
    }
  });
});
