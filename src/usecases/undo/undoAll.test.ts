import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BLANK_STEP } from '@/core/prep/step';
import { SHIPPED_FAN_OUTS } from '@/core/fanOut/shipped';
import { SHIPPED_PREP } from '@/core/prep/shipped';
import { fanOutKey, listSettingVersions, prepSheetKey, type Setting } from '@/data/brands/settingVersions';
import { addMs } from '@/core/time/plan';
import { listStepsOf } from '@/data/prep/steps';
import { writePieceFile } from '@/core/pieces/pieceFile';
import { plainlyKept, readSource } from '@/core/reading/readSource';
import { listExtracts, maybeSource } from '@/data/extracts/extracts';
import { insertPostExtracts, listExtractsOfPosts } from '@/data/fanOut/postExtracts';
import { maybePiece } from '@/data/pieces/pieces';
import { bringSource } from '../extracts/bringSource';
import { keepExtract } from '../extracts/extracts';
import { archiveChannelOf, saveChannel } from '../brands/channels';
import { archiveThemeOf, keepCampaign, keepPillar } from '../brands/themes';
import { declareOut, publishNow, schedulePost } from '../delivery/schedule';
import { forgetFanOut, setFanOut } from '../fanOut/fanOuts';
import { bringPieceBack, catchIdea, deletePiece, editPiece, setPieceAside } from '../pieces/pieces';
import { movePost, planPiece } from '../posts/planPosts';
import { deletePost, putAtStage, setPostAside } from '../posts/stages';
import { waiveWants } from '../posts/waiveWants';
import { listBatchSteps, maybeBatchDay } from '@/data/prep/batchDays';
import { readCsv, writeCsvRows } from '@/core/exchange/csvText';
import { bringIn } from '../exchange/importPosts';
import { previewImport } from '../exchange/previewImport';
import { changeBatchDay, dropBatchDay, makeBatchDay } from '../prep/batchDays';
import { addStep, forgetPrepSheet, removeStep, setPrepSheet, tickStep } from '../prep/prep';
import { setRhythm } from '../rhythm/rhythms';
import type { RepeatSaid } from '@/core/repeats/repeat';
import { changeRepeat, endRepeat, startRepeat } from '../repeats/repeats';
import { editBrand } from '../brands/brands';
import { bringDates, removeDates, renameDates } from '../calendar/knownDates';
import { removeView, saveView } from '../calendar/savedViews';
import { signPostOff } from '../posts/signOff';
import { attachFromLibrary, dropFromLibrary, keepInLibrary } from '../media/library';
import { attachPicture, removePicture, setRecipe, type StoredPicture } from '../media/pictures';
import { addPieceMedium, removePieceMedium } from '../pieces/pieceMedia';
import { dropAsset, dropName, dropShelfItem, keepAsset, keepName, keepShelfItem, loadShelf } from '../shelf/shelf';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';
import { nextUndo } from './next';
import { redoChange, undoChange } from './undoChange';

let world: TestWorld;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

const SERIES: RepeatSaid = {
  ...{
    kind: 'series',
    name: 'Series',
    format: 'text',
    time: '08:00',
    from: '2026-11-24',
    to: null,
    times: null,
    ahead: 2,
  },
  ...{ daysBefore: 0, workDays: null, rule: { kind: 'weekly', weekday: 3, every: 1 } },
};

const undo = () => undoChange(world.work, world.brandId, null);
const redo = () => redoChange(world.work, world.brandId);
const fresh = () => world.db.run('delete from changes', []);
const idOf = async (table: string, where: string) =>
  (
    await world.db.rows<{ id: string }>(
      `select id from ${table} where brand_id = $1 and ${where} order by id limit 1`,
      [world.brandId],
    )
  )[0]?.id;
/** Makes a piece and a post of it at once, as the calendar does. */
async function makeInPlace(title: string) {
  const piece = valueOf(await catchIdea(world.work, { brandId: world.brandId, title }));
  const plan = { date: '2026-12-05', time: '11:00' };
  const planned = await planPiece(world.work, piece.id, [world.channels.pithline], plan, { isMadeForIt: true });
  return { piece, planned };
}
/** The work with the version that a setting has. */
async function seeing(setting: Setting, key: string) {
  return { ...world.work, seen: (await listSettingVersions(world.db, setting, [key])).get(key) ?? 0 };
}
const rhythm = (time: string) => ({
  ...{ recurrence: { every: 1, unit: 'week', weekdays: [2], from: '2026-11-23' }, time },
});

let minutes = 0;
/** What can be done here; each leaves things alone where it finds nothing to do it to. */
const DEEDS: Record<string, (n: number) => Promise<unknown>> = {
  'make a post in place': async (n) => (await makeInPlace(`Post ${n}`)).planned,
  'catch an idea': (n) => catchIdea(world.work, { brandId: world.brandId, title: `Idea ${n}` }),
  'rename a piece': async (n) => {
    const id = await idOf('pieces', 'deleted_at is null');
    const piece = id ? await maybePiece(world.db, id) : undefined;
    return piece && editPiece(world.work, piece.id, piece.version, { title: `Renamed ${n}` });
  },
  'give a piece another kind': async (n) => {
    const id = await idOf('pieces', 'deleted_at is null');
    const piece = id ? await maybePiece(world.db, id) : undefined;
    return piece && editPiece(world.work, piece.id, piece.version, { kind: n % 2 ? 'talk' : 'article' });
  },
  'bring in a text': async (n) => {
    const id = await idOf('pieces', 'deleted_at is null');
    return id && bringText(id, `The ferry of round ${n} turns below the bridge at noon.\n\nTwo bells ring for it.\n`);
  },
  'accept an extract': async (n) => {
    const id = await idOf('pieces', "deleted_at is null and source_text <> ''");
    const verdict = { kind: 'quote' as const, state: 'accepted' as const, start: n % 9, end: 20 + (n % 9), reason: '' };
    return id && keepExtract(world.work, id, verdict);
  },
  'set a piece aside': async () => {
    const id = await idOf('pieces', 'deleted_at is null and set_aside_at is null');
    return id && setPieceAside(world.work, id, 'later');
  },
  'bring a piece back': async () => {
    const id = await idOf('pieces', 'deleted_at is null and set_aside_at is not null');
    return id && bringPieceBack(world.work, id);
  },
  'delete a piece': async () => {
    const id = await idOf(
      'pieces',
      'deleted_at is null and not exists (select 1 from posts p where p.piece_id = pieces.id)',
    );
    return id && deletePiece(world.work, id);
  },
  'plan a piece': async () => {
    const id = await idOf('pieces', 'deleted_at is null');
    return id && planPiece(world.work, id, [world.channels.pithline], { date: '2026-12-04', time: '10:00' });
  },
  'move a post': async (n) => {
    const id = await idOf('posts', "deleted_at is null and stage = 'drafting'");
    return id && movePost(world.work, id, (await world.post(id)).version, { date: `2026-12-${10 + (n % 18)}` });
  },
  'put a post at a stage': async () => {
    const id = await idOf('posts', "deleted_at is null and stage = 'drafting'");
    return id && putAtStage(world.work, id, (await world.post(id)).version, 'production');
  },
  'set a post aside': async () => {
    const id = await idOf('posts', "deleted_at is null and stage not in ('setAside', 'published')");
    return id && setPostAside(world.work, id, (await world.post(id)).version, 'not now');
  },
  'delete a post': async () => {
    const id = await idOf('posts', "deleted_at is null and stage <> 'published'");
    return id && deletePost(world.work, id, (await world.post(id)).version);
  },
  'add a step': async () => {
    const postId = await idOf('posts', "deleted_at is null and stage <> 'published'");
    return postId && addStep(world.work, { postId }, { ...BLANK_STEP, title: 'Ask the warden', work: 'words' });
  },
  'tick a step': async () => {
    const id = await idOf('steps', 'done_at is null');
    return id && tickStep(world.work, id, true);
  },
  'remove a step': async () => {
    const postId = await idOf('posts', 'deleted_at is null');
    const [step] = postId ? await listStepsOf(world.db, [postId]) : [];
    return step && removeStep(world.work, step.id);
  },
  'make a batch day': async () => {
    const steps = await world.db.rows<{ id: string; work: string }>(
      'select s.id, s.work from steps s join posts p on p.id = s.post_id where s.brand_id = $1 and s.done_at is null and p.deleted_at is null order by s.id limit 2',
      [world.brandId],
    );
    if (steps.length === 0) return;
    const stepIds = steps.filter(({ work }) => work === steps[0]!.work).map(({ id }) => id);
    const day = { name: 'Writing day', day: '2026-12-02', startsAt: '09:00', stepIds };
    return makeBatchDay(world.work, world.brandId, { ...day, work: steps[0]!.work as 'words' });
  },
  'move a batch day': async (n) => {
    const id = await idOf('batch_days', 'true');
    const batch = id ? await maybeBatchDay(world.db, id) : undefined;
    return batch && changeBatchDay(world.work, batch.id, batch.version, { day: `2026-12-0${3 + (n % 6)}` });
  },
  'call a batch day off': async () => {
    const id = await idOf('batch_days', 'true');
    return id && dropBatchDay(world.work, id);
  },
  'put on the shelf': (n) =>
    keepShelfItem(world.work, world.brandId, null, {
      kind: 'quote',
      title: `Quote ${n}`,
      text: 'Look up.',
      source: '',
    }),
  'take from the shelf': async () => {
    const id = await idOf('shelf_items', 'deleted_at is null');
    return id && dropShelfItem(world.work, world.brandId, id, true);
  },
  'add a name': (n) => keepName(world.work, world.brandId, null, { kind: 'person', name: `Name ${n}`, handles: {} }),
  'take a name away': async () => {
    const id = await idOf('names', 'deleted_at is null');
    return id && dropName(world.work, world.brandId, id, true);
  },
  'make a pillar': (n) => keepPillar(world.work, world.brandId, null, { name: `Pillar ${n}`, color: '#123456' }),
  'change a pillar': async (n) => {
    const id = await idOf('pillars', 'archived_at is null');
    return id && keepPillar(await seeing('pillar', id), world.brandId, id, { name: `Other ${n}`, color: '#654321' });
  },
  'archive a pillar': async () => {
    const id = await idOf('pillars', 'archived_at is null');
    return id && archiveThemeOf(world.work, world.brandId, 'pillars', id);
  },
  'make a campaign': (n) =>
    keepCampaign(world.work, world.brandId, null, {
      name: `Campaign ${n}`,
      color: '#123456',
      from: '2026-12-01',
      to: null,
    }),
  'archive a campaign': async () => {
    const id = await idOf('campaigns', 'archived_at is null');
    return id && archiveThemeOf(world.work, world.brandId, 'campaigns', id);
  },
  'set a rhythm': async (n) => {
    const id = world.channels.glassrow;
    const entries = [{ ...rhythm(`1${n % 10}:30`), format: null, theme: '', pillarId: null, from: null, to: null }];
    return setRhythm(await seeing('rhythm', id), id, entries as never, [
      { from: '2026-12-24', to: '2026-12-26', name: 'Rest' },
    ]);
  },
  'end a series': async () => {
    const id = await idOf('repeats', 'ended_at is null');
    return id && endRepeat(world.work, id);
  },
  'set a fan-out': async (n) => {
    const [shipped] = SHIPPED_FAN_OUTS;
    const key = fanOutKey(world.brandId, shipped!.slug);
    return setFanOut(await seeing('fan-out', key), world.brandId, shipped!.slug, {
      ...shipped!,
      name: `Mine ${n}`,
      isStanding: false,
    });
  },
  'forget a fan-out': async () => {
    const { slug } = SHIPPED_FAN_OUTS[0]!;
    return forgetFanOut(await seeing('fan-out', fanOutKey(world.brandId, slug)), world.brandId, slug);
  },
  'set a prep sheet': async (n) => {
    const lines = SHIPPED_PREP.text.slice(0, 1 + (n % 2));
    return setPrepSheet(await seeing('prep sheet', prepSheetKey(world.brandId, 'text')), world.brandId, 'text', lines);
  },
  'forget a prep sheet': async () =>
    forgetPrepSheet(await seeing('prep sheet', prepSheetKey(world.brandId, 'text')), world.brandId, 'text'),
  'add a picture': async (n) => {
    const id = await idOf('posts', "deleted_at is null and stage not in ('published', 'setAside')");
    return id && attachPicture(world.work, id, fileOf(n), `Picture ${n}`);
  },
  'crop a picture': async (n) => {
    const [picture] = await pictures();
    const crop = { x: 0, y: 0, width: 0.5, height: (1 + (n % 9)) / 10 };
    return picture && setRecipe(world.work, picture.postId, picture.id, { crop, toMime: null, toBytes: null });
  },
  'remove a picture': async () => {
    const [picture] = await pictures();
    return picture && removePicture(world.work, picture.postId, picture.id);
  },
  'add to the library': (n) => {
    // Files added in a row are one change.
    minutes += 2;
    world.goTo(addMs('2026-11-23T09:00:00.000Z', minutes * 60_000));
    return keepInLibrary(world.work, world.brandId, { ...fileOf(n), sha256: 'abcdef'[n % 6]!.repeat(64) });
  },
  'remove from the library': async () => {
    const [file] = await world.db.rows<{ sha256: string }>(
      `select sha256 from library_files where sha256 >= 'a' order by 1`,
      [],
    );
    return file && dropFromLibrary(world.work, world.brandId, file.sha256);
  },
  'add a picture to a piece': async (n) => {
    const id = await idOf('pieces', 'deleted_at is null');
    return id && addPieceMedium(world.work, id, fileOf(n));
  },
  'remove a picture of a piece': async () => {
    const [medium] = await world.db.rows<{ id: string; pieceId: string }>(
      'select id, piece_id as "pieceId" from piece_media order by 1',
      [],
    );
    return medium && removePieceMedium(world.work, medium.pieceId, medium.id);
  },
  'add a colour': (n) =>
    keepAsset(world.work, world.brandId, { kind: 'colour', name: `Colour ${n}`, value: '#123456' }, null),
  'take a colour away': async () => {
    const id = await idOf('brand_assets', 'true');
    return id && dropAsset(world.work, world.brandId, id);
  },
  'keep a view': (n) =>
    saveView(world.work, { brandId: world.brandId, name: `View ${n % 3}`, shared: n % 2 === 0, address: `?n=${n}` }),
  'forget a view': async () => {
    const id = await idOf('saved_views', 'true');
    return id && removeView(world.work, id);
  },
  'bring dates in': (n) =>
    bringDates(
      world.work,
      world.brandId,
      new TextEncoder().encode(`title,date\nMoon ${n},2026-12-0${1 + (n % 9)}\nRings,2026-12-20\n`),
      'dates.csv',
      `Dates ${n % 2}`,
    ),
  'rename dates': async (n) => {
    const id = await idOf('date_files', 'true');
    return id && renameDates(world.work, world.brandId, id, `Renamed ${n}`);
  },
  'remove dates': async () => {
    const id = await idOf('date_files', 'true');
    return id && removeDates(world.work, world.brandId, id);
  },
  'change the brand': async (n) =>
    editBrand(await seeing('brand', world.brandId), world.brandId, {
      ...{ name: `Moor ${n}`, zone: 'Europe/Lisbon', weekStart: 1, weekdays: [1, 2, 3] },
      daysOff: [{ from: '2026-12-24', to: '2026-12-26', name: 'Rest' }],
    }),
  'change a channel': async (n) => {
    const id = world.channels.corkwall;
    const [{ ruleSheetId }] = (await world.db.rows<{ ruleSheetId: string }>(
      'select rule_sheet_id as "ruleSheetId" from channels where id = $1',
      [id],
    )) as [{ ruleSheetId: string }];
    const fields = { name: `Cork ${n}`, callSign: 'CW', color: '#123456', account: '@moor', aimDays: 1 + n };
    return saveChannel(await seeing('channel', id), world.brandId, id, { ...fields, ruleSheetId });
  },
  'make a channel': async (n) => {
    const [{ id: ruleSheetId }] = (await world.db.rows<{ id: string }>('select id from rule_sheets limit 1', [])) as [
      { id: string },
    ];
    const callSign = `Z${String.fromCharCode(65 + n)}`;
    return saveChannel(world.work, world.brandId, null, {
      ...{ name: `Made ${n}`, callSign, color: '#123456', account: '', aimDays: 14, ruleSheetId },
    });
  },
  'start a series': (n) =>
    startRepeat(world.work, world.brandId, {
      ...{ ...SERIES, name: `Series ${n}`, channelId: world.channels.pithline },
      ...{ postId: null, pieceId: null, firstNumber: 1 },
    }),
  'repeat a post every year': async (n) => {
    const id = await idOf('posts', 'repeat_id is null and deleted_at is null and plan_date is not null');
    return (
      id &&
      startRepeat(world.work, world.brandId, {
        ...{ ...SERIES, kind: 'seasonal', name: `Season ${n}`, ahead: 1, daysBefore: 2, workDays: 40 },
        ...{ rule: { kind: 'yearlyDate', month: 12, day: 24 }, channelId: world.channels.pithline },
        ...{ postId: id, pieceId: null, firstNumber: 1 },
      })
    );
  },
  'change a series': async (n) => {
    const id = await idOf('repeats', "ended_at is null and kind = 'series'");
    return (
      id &&
      changeRepeat(
        await seeing('repeat', id),
        id,
        {
          ...{ ...SERIES, name: `Other ${n}`, time: `0${n % 10}:15`, ahead: 2 + (n % 3) },
          rule: { kind: 'weekly', weekday: 1 + (n % 7), every: 1 },
        },
        { fromNumber: null, writtenToo: n % 2 === 0 },
      )
    );
  },
  'import changes of a post and a new one': async (n) => {
    const id = await idOf('posts', "deleted_at is null and stage = 'drafting'");
    const [file] = await world.db.rows<{ sha256: string; file: string }>(
      'select sha256, file_name as file from library_files order by 1 limit 1',
      [],
    );
    const post = id ? await world.post(id) : undefined;
    const media = JSON.stringify(file ? [{ ...file, alt: `Seen ${n}` }] : []);
    const steps = JSON.stringify([
      { title: `Ask ${n}`, who: 'Mana', lead: n % 4 },
      { title: 'Write', doneAt: '2026-11-20T10:00:00.000Z' },
    ]);
    const rows = [
      ['id', 'title', 'channel', 'date', 'caption', 'parts', 'media', 'steps'],
      ...(post
        ? [
            [
              post.id,
              post.title,
              channelName(post.channelId),
              '2026-12-09',
              `Words ${n}`,
              `["Part ${n}"]`,
              media,
              steps,
            ],
          ]
        : []),
      ['', `Brought ${n}`, 'pithline', '2026-12-10', '', '', media, steps],
    ];
    return importOf(writeCsvRows(rows));
  },
  'import numbers': (n) => importOf(`address,likes\n${OUT_AT},${n}\n`),
  'archive a channel': async () => {
    const id = await idOf('channels', "archived_at is null and call_sign = 'HS'");
    return id && archiveChannelOf(world.work, world.brandId, id);
  },
};

const bringText = async (id: string, text: string) =>
  bringSource(world.work, id, (await maybePiece(world.db, id))!.version, valueOf(readSource(text, 'ferry.md')));

/** Where a post is out, of which numbers are told. */
const OUT_AT = 'https://pithline.example/told';
const channelName = (id: string) => Object.entries(world.channels).find(([, own]) => own === id)![0];

async function importOf(text: string) {
  // Numbers that are told at the same instant are told once.
  minutes += 1;
  world.goTo(addMs('2026-11-23T09:00:00.000Z', minutes * 60_000));
  const table = valueOf(readCsv(text));
  const now = world.work.clock.now();
  const { mapping } = valueOf(await previewImport(world.db, world.brandId, now, table, 'ferry.csv', null));
  return bringIn(world.work, { brandId: world.brandId, table, fileName: 'ferry.csv', mapping, extent: 'good' });
}

/** A stored file that is nobody's yet. */
const fileOf = (n: number): StoredPicture => ({
  ...{ sha256: (n % 10).toString().repeat(64), mime: 'image/png', width: 900, height: 900, bytes: 10 },
  ...{ fileName: `file-${n}.png`, durationMs: null },
});
const pictures = () =>
  world.db.rows<{ id: string; postId: string }>(
    `select m.id, m.post_id as "postId" from media m join posts p on p.id = m.post_id
     where p.deleted_at is null and p.stage not in ('published', 'setAside') order by m.id`,
    [],
  );

/** All of the brand that can be seen, without what only counts changes. */
async function seen(): Promise<unknown> {
  const { items, names } = await loadShelf(world.db, world.brandId);
  const without = (rows: readonly object[]) => rows.map((row) => ({ ...row, version: 0 }));
  const rows = (sql: string) => world.db.rows<Record<string, unknown>>(sql, [world.brandId]);
  return {
    shelf: without(items),
    names: without(names),
    pieces: await rows(
      'select id, title, note, link, source_text, cues, kind, set_aside_at, set_aside_reason from pieces where brand_id = $1 and deleted_at is null order by id',
    ),
    extracts: await rows(
      'select e.id, e.kind, e.state, e.start_offset, e.end_offset, x.post_id from extracts e left join post_extracts x on x.extract_id = e.id join pieces p on p.id = e.piece_id where e.brand_id = $1 and p.deleted_at is null order by 1, 6',
    ),
    posts: await rows(
      'select id, plan_date, plan_time, stage, stage_before, set_aside_reason, title, channel_id, caption, parts from posts where brand_id = $1 and deleted_at is null order by id',
    ),
    steps: await rows(
      'select id, title, done_at, done_by, position, day, pinned, batch_id, rank() over (partition by batch_id order by batch_position) as place from steps where brand_id = $1 and (post_id is null or post_id in (select id from posts where deleted_at is null)) order by id',
    ),
    batches: await rows('select id, name, day, starts_at, needs from batch_days where brand_id = $1 order by id'),
    pillars: await rows('select id, name, color from pillars where brand_id = $1 and archived_at is null order by id'),
    campaigns: await rows(
      'select id, name, from_date from campaigns where brand_id = $1 and archived_at is null order by id',
    ),
    channels: await rows('select id, archived_at is null as here from channels where brand_id = $1 order by id'),
    rhythms: await rows(
      'select channel_id, position, at_time from rhythm_entries where brand_id = $1 order by channel_id, position',
    ),
    pauses: await rows('select channel_id, name, from_date from rhythm_pauses where brand_id = $1 order by 1, 2'),
    repeats: await rows(
      'select id, name, at_time, ahead, next_number from repeats where brand_id = $1 and ended_at is null order by id',
    ),
    fanOuts: await rows('select slug, name from fan_outs where brand_id = $1 order by slug'),
    prep: await rows('select subject, position, title from prep_lines where brand_id = $1 order by 1, 2'),
    pictures: await rows(
      'select m.post_id, m.position, m.sha256, m.crop, m.alt from media m join posts p on p.id = m.post_id where m.brand_id = $1 and p.deleted_at is null order by 1, 2',
    ),
    numbers: await rows(
      'select r.post_id, r.read_at, r.likes from readings r join posts p on p.id = r.post_id where p.brand_id = $1 order by 1, 2',
    ),
    engagement: await rows('select piece_id, engagement from piece_uses where brand_id = $1 and is_shown order by 1'),
    // What is added to a post or piece stays in the library.
    library: await rows("select sha256, file_name from library_files where brand_id = $1 and sha256 >= 'a' order by 1"),
    media: await rows(
      'select piece_id, position, sha256 from piece_media where brand_id = $1 and piece_id in (select id from pieces where deleted_at is null) order by 1, 2',
    ),
    assets: await rows('select id, name, value from brand_assets where brand_id = $1 order by 1'),
    views: await rows('select id, name, shared, address from saved_views where brand_id = $1 order by 1'),
    dates: await rows(
      'select f.name as file, d.title, d.from_date from known_dates d join date_files f on f.id = d.file_id where d.brand_id = $1 order by 1, 2, 3',
    ),
    brand: await rows('select name, weekdays from brands where id = $1'),
    daysOff: await rows('select name, from_date from brand_days_off where brand_id = $1'),
    named: await rows('select name, aim_days from channels where brand_id = $1 order by id'),
    suggested: await rows(
      'select s.piece_id, s.channel_id from piece_suggestions s join pieces p on p.id = s.piece_id where s.brand_id = $1 and p.deleted_at is null order by 1, 2',
    ),
  };
}

describe('undoing', () => {
  it('takes everything back, step by step, and does all of it again', async () => {
    const name = fc.constantFrom(...Object.keys(DEEDS));
    // What an import brings with pictures finds them.
    valueOf(await keepInLibrary(world.work, world.brandId, fileOf(0)));
    valueOf(
      await startRepeat(world.work, world.brandId, {
        ...{ ...SERIES, name: 'Sky notes', channelId: world.channels.pithline },
        ...{ postId: null, pieceId: null, firstNumber: 1 },
      }),
    );
    const out = await importOf(`title,channel,date,stage,address\nOut,pithline,2026-11-02,published,${OUT_AT}\n`);
    expect(valueOf(out).made).toBe(1);
    const tried = new Set<string>();
    await fc.assert(
      fc.asyncProperty(fc.array(name, { minLength: 3, maxLength: 12 }), async (names) => {
        await fresh();
        const states = [await seen()];
        let count = 0;
        for (const [at, deed] of names.entries()) {
          const result = (await DEEDS[deed]!(at)) as { ok: boolean } | undefined;
          const [{ number }] = (await world.db.rows<{ number: number }>(
            'select count(*)::int as number from changes',
          )) as [{ number: number }];
          if (!result || number === count) {
            // What was refused or changed nothing is nothing to undo.
            expect(await seen()).toEqual(states.at(-1));
            continue;
          }
          tried.add(deed);
          count = number;
          states.push(await seen());
        }
        for (let round = 0; round < 2; round++) {
          for (let at = states.length - 2; at >= 0; at--) {
            expect(valueOf(await undo()).refused).toEqual([]);
            expect(await seen()).toEqual(states[at]);
          }
          expect(codeOf(await undo())).toBe('nothingToUndo');
          for (let at = 1; at < states.length; at++) {
            expect(valueOf(await redo()).refused).toEqual([]);
            expect(await seen()).toEqual(states[at]);
          }
          expect(codeOf(await redo())).toBe('nothingToRedo');
        }
      }),
      { numRuns: 12 },
    );
    expect(tried.size).toBeGreaterThan(10);
    await world.db.run('update channels set archived_at = null', []);
    world.goTo('2026-11-23T09:00:00.000Z');
  }, 300_000);

  it('is forgotten to be done again once something else was done', async () => {
    await fresh();
    valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'One' }));
    valueOf(await undo());
    expect(valueOf(await nextUndo(world.work, world.brandId))).toEqual({ undo: null, redo: 'Caught “One”' });
    valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Two' }));
    expect(codeOf(await redo())).toBe('nothingToRedo');
  });

  it('leaves what somebody else changed since, and names it', async () => {
    await fresh();
    const piece = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Ferry lights' }));
    valueOf(await editPiece(world.work, piece.id, piece.version, { title: 'Ferry lights at night' }));
    const now = (await maybePiece(world.db, piece.id))!;
    valueOf(await editPiece(world.otherWork, piece.id, now.version, { title: 'Harbour lights' }));
    expect(valueOf(await undo())).toMatchObject({
      label: 'Nothing undone',
      refused: [{ title: 'Ferry lights at night' }],
    });
    expect((await maybePiece(world.db, piece.id))!.title).toBe('Harbour lights');
  });

  it('puts back the field it changed, whatever others were changed since', async () => {
    await fresh();
    const piece = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Star party' }));
    valueOf(await editPiece(world.work, piece.id, piece.version, { title: 'Star supper' }));
    const now = (await maybePiece(world.db, piece.id))!;
    valueOf(await editPiece(world.otherWork, piece.id, now.version, { note: 'Ask the cook' }));
    valueOf(await undo());
    expect(await maybePiece(world.db, piece.id)).toMatchObject({ title: 'Star party', note: 'Ask the cook' });
  });

  it('asks for the right of what it puts back, and goes on past what is theirs no longer', async () => {
    await fresh();
    valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Slit lamps' }));
    valueOf(await keepPillar(world.work, world.brandId, null, { name: 'Night', color: '#123456' }));
    await world.db.run("update people set role = 'maker' where id = $1", [world.work.actorId]);
    expect(valueOf(await undo()).label).toBe(
      'Not undone: made the pillar “Night”. Only a manager changes settings. Undo again for what you did before it',
    );
    expect(valueOf(await undo()).label).toBe('Undone: caught “Slit lamps”');
    await world.db.run("update people set role = 'manager' where id = $1", [world.work.actorId]);
    expect(await idOf('pillars', "name = 'Night'")).toBeDefined();
  });

  it('undoes a verdict by whoever may give one, and what of a settings form has other consequences not at all', async () => {
    const { id } = await world.makePost('pithline');
    await world.db.run('update brands set asks_sign_off = true where id = $1', [world.brandId]);
    await fresh();
    await world.db.run("update people set role = 'reviewer' where id = $1", [world.work.actorId]);
    valueOf(await signPostOff(world.work, id, (await world.post(id)).version));
    expect(valueOf(await undo()).refused).toEqual([]);
    expect((await world.post(id)).signOff).toBeNull();
    valueOf(await redo());
    expect((await world.post(id)).signOff).toMatchObject({ by: world.work.actorId });
    await world.db.run("update people set role = 'manager' where id = $1", [world.work.actorId]);
    const days = { weekStart: 1, daysOff: [] };
    const work = await seeing('brand', world.brandId);
    valueOf(await editBrand(work, world.brandId, { name: 'Moor', zone: 'Europe/Berlin', ...days }));
    expect(valueOf(await undo()).label).toMatch(/^Not undone: changed the brand\. Its time zone or who posts changed/);
    await world.db.run("update brands set asks_sign_off = false, zone = 'Europe/Lisbon' where id = $1", [
      world.brandId,
    ]);
  });

  it('takes back an import of words and pictures, and then the import that made their post', async () => {
    await fresh();
    valueOf(await keepInLibrary(world.work, world.brandId, fileOf(1)));
    const media = (alt: string) => JSON.stringify([{ sha256: fileOf(1).sha256, file: 'file-1.png', alt }]);
    const row = (id: string, caption: string, alt: string) =>
      importOf(
        writeCsvRows([
          ['id', 'title', 'channel', 'date', 'caption', 'media'],
          [id, 'Mast at dusk', 'pithline', '2026-12-10', caption, media(alt)],
        ]),
      );
    valueOf(await row('', 'A mast', 'A mast'));
    const id = (await idOf('posts', "title = 'Mast at dusk' and deleted_at is null"))!;
    valueOf(await row(id, 'A mast at dusk', 'A mast, the sky red'));
    for (let round = 0; round < 2; round++) {
      expect(valueOf(await undo()).refused).toEqual([]);
      expect((await world.post(id)).caption).toBe('A mast');
      expect(valueOf(await undo())).toMatchObject({ postIds: [id], refused: [] });
      expect(await idOf('posts', "title = 'Mast at dusk' and deleted_at is null")).toBeUndefined();
      expect(valueOf(await redo()).refused).toEqual([]);
      expect(valueOf(await redo()).refused).toEqual([]);
      expect((await world.post(id)).caption).toBe('A mast at dusk');
    }
  });

  it('takes back the import that is meant, whatever was done since', async () => {
    await fresh();
    const { changeId } = valueOf(await importOf('title,channel,date\nMast at noon,pithline,2026-12-11\n'));
    const { id } = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Kettle at noon' }));
    expect(valueOf(await undoChange(world.work, world.brandId, changeId!))).toMatchObject({ changeId, refused: [] });
    expect(await idOf('posts', "title = 'Mast at noon' and deleted_at is null")).toBeUndefined();
    expect(await maybePiece(world.db, id)).toMatchObject({ title: 'Kettle at noon' });
  });

  it('gives a piece the text back that another took the place of, with its extracts and the posts made from them', async () => {
    const { id } = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Kettle at noon' }));
    const state = async () => [
      await maybeSource(world.db, id),
      await listExtracts(world.db, id),
      await listExtractsOfPosts(world.db, [postId]),
      (await listStepsOf(world.db, [id])).map(({ title, doneOn }) => [title, doneOn]),
    ];
    valueOf(await bringText(id, 'The kettle sings at noon. Nobody hears it.\n'));
    const said = { kind: 'quote' as const, state: 'accepted' as const, reason: '' };
    const gone = valueOf(await keepExtract(world.work, id, { ...said, start: 0, end: 25 }));
    valueOf(await keepExtract(world.work, id, { ...said, start: 26, end: 42 }));
    const [postId] = valueOf(
      await planPiece(world.work, id, [world.channels.pithline], { date: '2026-12-04', time: '10:00' }),
    ).postIds as [string];
    await insertPostExtracts(world.db, [{ postId, extractId: gone.id }]);
    const before = await state();
    await fresh();
    valueOf(await bringText(id, 'Nobody hears it.\n'));
    const after = await state();
    expect(after[1]).toMatchObject([{ start: 0, end: 16 }]);
    // The same once more changes nothing, so there is nothing of it to undo.
    valueOf(await bringText(id, 'Nobody hears it.\n'));
    for (let round = 0; round < 2; round++) {
      expect(valueOf(await undo())).toMatchObject({
        label: 'Undone: replaced the text of “Kettle at noon”',
        refused: [],
      });
      expect(await state()).toEqual(before);
      expect(valueOf(await redo()).refused).toEqual([]);
      expect(await state()).toEqual(after);
    }
    const piece = (await maybePiece(world.db, id))!;
    valueOf(await editPiece(world.work, id, piece.version, { sourceText: 'Nobody hears it here.\n' }));
    const corrected = await state();
    expect(valueOf(await undo()).refused).toMatchObject([{ title: 'the text of “Kettle at noon”' }]);
    expect(await state()).toEqual(corrected);
  });

  it('takes all of it back that a file says of a piece without a text', async () => {
    const { id } = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Kettle at noon' }));
    const state = async () => {
      const piece = (await maybePiece(world.db, id))!;
      return [
        { ...piece, version: 0 },
        (await listStepsOf(world.db, [id])).map(({ title, doneOn }) => [title, doneOn]),
      ];
    };
    const before = await state();
    await fresh();
    const said = { note: '', link: '', ...plainlyKept(''), sourceText: 'The mast stands.\n' };
    valueOf(await bringText(id, writePieceFile({ ...said, title: 'Mast at dusk', kind: 'article' })));
    expect(await state()).toMatchObject([{ title: 'Mast at dusk', kind: 'article' }, {}]);
    expect(valueOf(await undo()).refused).toEqual([]);
    expect(await state()).toEqual(before);
    valueOf(await redo());
    expect(await state()).toMatchObject([{ title: 'Mast at dusk', kind: 'article' }, {}]);
    await world.db.run("update pieces set title = 'Kettle at dusk' where id = $1", [id]);
  });

  it('takes files that were added in a row back as one', async () => {
    await fresh();
    const add = (n: number) => keepInLibrary(world.work, world.brandId, { ...fileOf(n), sha256: `d${n}`.repeat(32) });
    const count = async () => (await world.db.rows("select 1 from library_files where sha256 like 'd%'", [])).length;
    await world.db.run("delete from library_files where sha256 like 'd%'", []);
    for (const n of [1, 2, 3]) valueOf(await add(n));
    expect(await count()).toBe(3);
    expect(valueOf(await undo())).toMatchObject({ label: 'Undone: added files to the library', refused: [] });
    expect([await count(), codeOf(await undo())]).toEqual([0, 'nothingToUndo']);
    valueOf(await redo());
    expect(await count()).toBe(3);
    world.goTo('2026-11-23T10:30:00.000Z');
    valueOf(await add(4));
    valueOf(await undo());
    expect(await count()).toBe(3);
    world.goTo('2026-11-23T09:00:00.000Z');
  });

  it('takes a file from the library only while nothing uses it', async () => {
    const { id } = await world.makePost('pithline');
    await fresh();
    const stored = { ...fileOf(1), sha256: 'c0'.repeat(32) };
    valueOf(await keepInLibrary(world.work, world.brandId, stored));
    valueOf(await attachFromLibrary(world.work, id, world.brandId, stored.sha256));
    await world.db.run("delete from changes where label like 'Added%to “Dome%'", []);
    expect(valueOf(await undo()).refused).toMatchObject([
      { message: expect.stringContaining('A post uses this file') },
    ]);
  });

  it('never reaches past what cannot be undone without saying so', async () => {
    const { id } = await world.makePost('pithline');
    await fresh();
    valueOf(await putAtStage(world.work, id, (await world.post(id)).version, 'ready'));
    valueOf(await publishNow(world.work, id, (await world.post(id)).version));
    expect(valueOf(await undo()).label).toBe(
      'Not undone: published “Dome night” now. It is on its way to its network. Undo again for what you did before it',
    );
    expect((await world.post(id)).stage).toBe('scheduled');
    expect(codeOf(await redo())).toBe('nothingToRedo');
  });

  it('takes a person’s word back that a post is out, and never a network’s', async () => {
    const { id } = await world.makePost('pithline');
    await fresh();
    valueOf(await declareOut(world.work, id, (await world.post(id)).version, 'https://pithline.example/1'));
    expect(valueOf(await undo()).label).toBe('Undone: marked “Dome night” as published');
    expect(await world.post(id)).toMatchObject({ stage: 'drafting', publishedAt: null, address: '' });
    valueOf(await redo());
    expect(await world.post(id)).toMatchObject({ stage: 'published', address: 'https://pithline.example/1' });
    await world.db.run(
      `insert into deliveries (id, brand_id, post_id, channel_id, mode, state, idempotency_key, parcel, due_at, next_try_at, late_from, created_at, took_at)
       select gen_random_uuid(), brand_id, id, channel_id, 'automatic', 'sent', 'k', '{}', now(), now(), now(), now(), now() from posts where id = $1`,
      [id],
    );
    expect(valueOf(await undo()).refused).toHaveLength(1);
    expect((await world.post(id)).stage).toBe('published');
  });

  it('schedules a post again that was said to be out while it waited for its minute', async () => {
    const { id } = await world.makePost('homestoop', { date: '2026-12-03', time: '10:00' });
    valueOf(await putAtStage(world.work, id, (await world.post(id)).version, 'ready'));
    await fresh();
    valueOf(await schedulePost(world.work, id, (await world.post(id)).version));
    valueOf(await declareOut(world.work, id, (await world.post(id)).version, 'https://homestoop.example/1'));
    expect((await world.post(id)).stage).toBe('published');
    valueOf(await undo());
    expect((await world.post(id)).stage).toBe('scheduled');
    valueOf(await undo());
    expect((await world.post(id)).stage).toBe('ready');
  });

  it('gives a batch day the steps back that another took from it', async () => {
    const { id } = await world.makePost('pithline');
    const [step] = await listStepsOf(world.db, [id]);
    const made = (name: string, day: string) =>
      makeBatchDay(world.work, world.brandId, { name, day, startsAt: '09:00', work: step!.work, stepIds: [step!.id] });
    await fresh();
    const first = valueOf(await made('First', '2026-12-02')).id;
    const second = valueOf(await made('Second', '2026-12-03')).id;
    const holds = async () =>
      (await Promise.all([first, second].map((one) => listBatchSteps(world.db, one)))).map(({ length }) => length);
    expect(await holds()).toEqual([0, 1]);
    for (let round = 0; round < 2; round++) {
      expect(valueOf(await undo()).refused).toEqual([]);
      expect(await holds()).toEqual([1, 0]);
      expect(valueOf(await redo()).refused).toEqual([]);
      expect(await holds()).toEqual([0, 1]);
    }
  });

  it('gives a step its place in a batch day back that was called off and put back without it', async () => {
    const ids = await Promise.all([0, 1, 2].map(async () => (await world.makePost('pithline')).id));
    const steps = (await listStepsOf(world.db, ids)).filter((one, at, all) => one.work === all[0]!.work).slice(0, 3);
    const stepIds = steps.map(({ id }) => id);
    const day = { name: 'Third', day: '2026-12-04', startsAt: '09:00', work: steps[0]!.work };
    const { id } = valueOf(await makeBatchDay(world.work, world.brandId, { ...day, stepIds }));
    const placed = async () =>
      (await world.db.rows('select id, batch_position as place from steps where batch_id = $1 order by 2, 1', [
        id,
      ])) as unknown;
    const all = await placed();
    expect(all).toMatchObject([{ place: 1 }, { place: 2 }, { place: 3 }]);
    await fresh();
    valueOf(await removeStep(world.work, stepIds[0]!));
    const two = await placed();
    valueOf(await dropBatchDay(world.work, id));
    for (let round = 0; round < 2; round++) {
      valueOf(await undo());
      expect(await placed()).toEqual(two);
      valueOf(await undo());
      expect(await placed()).toEqual(all);
      valueOf(await redo());
      expect(await placed()).toEqual(two);
      valueOf(await redo());
      expect(await placed()).toEqual([]);
    }
  });

  it('takes an import back as one, what came in as published too, and brings it in again', async () => {
    const text = `title,channel,date,time,stage,address\nFerry one,pithline,2026-12-08,10:00,drafting,\nFerry two,pithline,2026-11-02,10:00,published,https://pithline.example/2\n`;
    await fresh();
    expect(valueOf(await importOf(text)).made).toBe(2);
    const live = async () =>
      (await world.db.rows("select id from posts where title like 'Ferry %' and deleted_at is null")).length;
    const pieces = async () =>
      (await world.db.rows("select id from pieces where title like 'Ferry %' and deleted_at is null")).length;
    expect([await live(), await pieces()]).toEqual([2, 2]);
    expect(valueOf(await undo())).toMatchObject({ label: 'Undone: imported “ferry.csv”', refused: [] });
    expect([await live(), await pieces()]).toEqual([0, 0]);
    expect(valueOf(await redo()).refused).toEqual([]);
    expect([await live(), await pieces()]).toEqual([2, 2]);
  });

  it('keeps pillars apart that were archived under one name on one day, and gives each its name back', async () => {
    await fresh();
    const names = () =>
      world.db.rows<{ name: string }>("select name from pillars where name like 'Twin%' order by name", []);
    for (let n = 0; n < 2; n++) {
      const { id } = valueOf(await keepPillar(world.work, world.brandId, null, { name: 'Twin', color: '#123456' }));
      valueOf(await archiveThemeOf(world.work, world.brandId, 'pillars', id));
    }
    expect((await names()).map(({ name }) => name)).toEqual([
      'Twin (archived 2026-11-23)',
      'Twin (archived 2026-11-23) 2',
    ]);
    valueOf(await undo());
    expect((await names()).map(({ name }) => name)).toEqual(['Twin', 'Twin (archived 2026-11-23)']);
  });

  it('takes a post that was made in place back with its piece, unless something else was done between the two', async () => {
    await fresh();
    const { piece, planned } = await makeInPlace('Night swim');
    const { postIds } = valueOf(planned);
    const areGone = async () => [
      (await maybePiece(world.db, piece.id))!.deletedAt !== null,
      (await world.post(postIds[0]!)).deletedAt !== null,
    ];
    expect(valueOf(await undo()).label).toBe('Undone: planned “Night swim”');
    expect(await areGone()).toEqual([true, true]);
    valueOf(await redo());
    expect(await areGone()).toEqual([false, false]);

    await fresh();
    const other = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Tide table' }));
    valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Between' }));
    const plan = { date: '2026-12-05', time: '11:00' };
    valueOf(await planPiece(world.work, other.id, [world.channels.pithline], plan, { isMadeForIt: true }));
    valueOf(await undo());
    expect((await maybePiece(world.db, other.id))!.deletedAt).toBeNull();
  });

  it('takes a waiver back', async () => {
    const { id } = await world.makePost('pithline');
    await world.db.run('update brands set asks_sign_off = true where id = $1', [world.brandId]);
    await fresh();
    valueOf(await waiveWants(world.work, id, (await world.post(id)).version, 'The chair said yes by telephone'));
    expect((await world.post(id)).waived).not.toEqual([]);
    valueOf(await undo());
    expect((await world.post(id)).waived).toEqual([]);
    await world.db.run('update brands set asks_sign_off = false where id = $1', [world.brandId]);
  });
});
