import { isVideo } from '@/core/media/video';
import { addDays, startOfWeek } from '@/core/time/days';
import { randomUUID } from 'node:crypto';
import type { Parcel } from '@/core/delivery/network';
import { makeParcel } from '@/core/delivery/parcel';
import { blocksOf } from '@/core/posts/readiness';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import type { Stage } from '@/core/stages/stages';
import { addMs, dueInstant, localOf, type Instant, type LocalDate } from '@/core/time/plan';
import { insertBrand } from '@/data/brands/brands';
import { insertChannel, insertRuleSheets, listChannels, type Channel } from '@/data/brands/channels';
import type { Db, Queryable } from '@/data/database/db';
import { insertDeliveries, type NewDelivery } from '@/data/delivery/deliveries';
import { setFact } from '@/data/folder/facts';
import { insertLibraryFiles } from '@/data/media/library';
import { insertPictures } from '@/data/media/media';
import { insertPieceMedium } from '@/data/media/pieceMedia';
import { updateWays } from '@/data/notices/ways';
import { insertPerson } from '@/data/people/people';
import { takeMedia, type MediaFile } from '@/data/media/mediaFiles';
import { updateCues, updateHowRead } from '@/data/extracts/extracts';
import { insertPieces, replaceSuggestions, updatePieceSetAside } from '@/data/pieces/pieces';
import { insertPosts } from '@/data/posts/posts';
import { replaceDaysOff, replaceRhythm } from '@/data/rhythm/rhythms';
import { saveCampaign, savePillar } from '@/data/brands/themes';
import { AS_IT_IS, isShapeIn, nearestShape, proposeCrop, shapeOf, type Crop } from '@/core/media/fit';
import { formatRule, type Format, type ShapeRange } from '@/core/rulesheets/types';
import { standinAddress } from '@/standins/network/client';
import { idOf, type NetworkStore } from '@/standins/network/store';
import { saveOwnFanOut } from '@/data/fanOut/fanOuts';
import { insertReadings } from '@/data/results/readings';
import { seedRepeats } from './repeats';
import { readingsOf, sayWhatLasts } from './readings';
import { seedShelf } from './shelf';
import { seedPrep } from './prep';
import type { Craft } from '@/core/prep/step';
import { readScenario, type PostRow, type Scenario } from './read';

/** The fact that tells for which day the demo was dated. */
export const DEMO_DAY = 'demo_day';

/** Deliveries of the demo leave this long after they were due. */
const SENT_AFTER_MS = 1_000;
const DAY_MS = 86_400_000;

/**
 * Fills an empty database with the demo scenario, dated around `now`: what lies in the past is published and stands in the
 * networks' store, what comes is as far as the files say.
 */
export async function seedDemo(db: Db, mediaFolder: string, networks: NetworkStore, now: Instant): Promise<void> {
  const scenario = readScenario();
  const pictures = await takePictures(scenario, mediaFolder, networks);
  const accepted: { network: string; key: string; acceptedAt: Instant; parcel: Omit<Parcel, 'words'> }[] = [];
  await db.transaction(async (tx) => {
    await insertRuleSheets(
      tx,
      SHIPPED_RULE_SHEETS.map((sheet) => ({ id: randomUUID(), sheet })),
    );
    const brandIds = new Map(scenario.brands.map((brand) => [brand.slug, randomUUID() as string]));
    for (const [position, { slug, name, zone, week_start, asks_sign_off }] of scenario.brands.entries())
      await insertBrand(tx, {
        id: brandIds.get(slug)!,
        slug,
        name,
        zone,
        weekStart: Number(week_start),
        asksSignOff: asks_sign_off === 'yes',
        delivers: 'networks',
        position,
      });
    const peopleIds = new Map<string, string>();
    for (const [position, { slug, name, role, brands, ...works }] of scenario.people.entries()) {
      const id = randomUUID();
      peopleIds.set(slug, id);
      await insertPerson(
        tx,
        {
          id,
          slug,
          name,
          role,
          position,
          zone: works.zone,
          crafts: works.crafts.split(' ').filter(Boolean) as Craft[],
          weekdays: works.weekdays.split(' ').map(Number),
          minutesPerDay: Number(works.hours) * 60,
          color: works.color,
        },
        brands.split(' ').map((brand) => brandIds.get(brand)!),
      );
      await updateWays(tx, id, { mailAddress: works.mail, quiet: null });
    }
    for (const [position, row] of scenario.channels.entries())
      await insertChannel(tx, {
        id: randomUUID(),
        brandId: brandIds.get(row.brand)!,
        name: row.name,
        callSign: row.call_sign,
        color: row.color,
        account: row.account,
        ruleSheetSlug: row.network,
        aimDays: Number(row.aim_days),
        leadMinutes: Number(row.lead_minutes),
        position,
      });
    for (const brand of scenario.brands)
      accepted.push(
        ...(await seedBrand(tx, scenario, { ...brand, id: brandIds.get(brand.slug)! }, peopleIds, pictures, now)),
      );
    await setFact(tx, DEMO_DAY, demoDay(now));
  });
  for (const post of accepted) await networks.accept(post);
}

/** The day the demo is dated for at an instant: the first brand's. */
export const demoDay = (now: Instant): LocalDate => localOf(now, readScenario().brands[0]!.zone).date;

async function seedBrand(
  tx: Queryable,
  scenario: Scenario,
  brand: { id: string; slug: string; zone: string; week_start: string; asks_sign_off: string },
  people: ReadonlyMap<string, string>,
  pictures: ReadonlyMap<string, MediaFile>,
  now: Instant,
) {
  const channels = new Map((await listChannels(tx, brand.id)).map((channel) => [channel.callSign, channel]));
  const today = localOf(now, brand.zone).date;
  const monday = startOfWeek(today, Number(brand.week_start));
  const rows = scenario.posts(brand.slug);
  const themes = await seedThemes(tx, scenario, brand, monday);
  await seedRhythm(tx, scenario, brand, channels, themes.pillars, monday);
  const pieceIds = await seedPieces(tx, scenario, brand, rows, people, pictures, now, monday);
  await seedIdeas(tx, scenario, brand, channels, people, now);
  for (const fanOut of scenario.fanOuts(brand.slug)) await saveOwnFanOut(tx, brand.id, fanOut);
  const made = rows.map((row, index) =>
    makePost(row, {
      brand,
      channel: channels.get(row.channel)!,
      pieceId: pieceIds.get(row.piece)!,
      pillarId: themes.pillars.get(row.pillar) ?? null,
      campaignId: themes.campaigns.get(row.campaign) ?? null,
      ownerId: people.get(row.owner)!,
      signedBy: brand.asks_sign_off === 'yes' ? people.get(reviewerOf(scenario, brand.slug))! : null,
      date: dateOf(row, monday, today),
      pictures: [
        ...picturesIn(row).map(({ name, alt }) => ({ ...pictures.get(`${name}.jpg`)!, name, alt })),
        ...[videoOf(row, brand.slug)].flatMap((name) =>
          name === null ? [] : [{ ...pictures.get(name)!, name, alt: '' }],
        ),
      ],
      now,
      // Older rows first, so that the newest lie on top of the tray.
      createdAt: addMs(now, -14 * DAY_MS + index * 1000),
    }),
  );
  await insertPosts(
    tx,
    made.map(({ post }) => post),
  );
  await seedPrep(
    tx,
    brand,
    made.map(({ post }) => post),
    scenario
      .pieces(brand.slug)
      .map(({ title, kind, owner }) => ({ id: pieceIds.get(title)!, kind, ownerId: people.get(owner)! })),
    now,
  );
  await seedShelf(
    tx,
    scenario,
    brand,
    made.map(({ post }) => post),
    pictures,
    now,
  );
  await insertLibraryFiles(tx, [
    ...new Map(made.flatMap(({ pictures: own }) => own).map((file) => [file.sha256, file])).values(),
  ]);
  await insertPictures(
    tx,
    made.flatMap(({ pictures: own }) => own),
  );
  await insertReadings(
    tx,
    made.flatMap(({ post }) => readingsOf(post, now)),
  );
  await sayWhatLasts(
    tx,
    made.map(({ post }) => post),
  );
  await seedRepeats(
    tx,
    brand.id,
    made.map(({ post }) => post),
    (callSign) => channels.get(callSign)?.id,
  );
  await insertDeliveries(
    tx,
    made.flatMap(({ delivery }) => (delivery ? [delivery] : [])),
  );
  return made.flatMap(({ post, delivery }) => {
    if (!delivery || delivery.state !== 'sent' || delivery.mode === 'byHand') return [];
    const { words: _words, ...parcel } = delivery.parcel;
    return [{ network: parcel.network, key: delivery.idempotencyKey, acceptedAt: post.publishedAt!, parcel }];
  });
}

const reviewerOf = (scenario: Scenario, brandSlug: string): string =>
  scenario.people.find(({ role, brands }) => role === 'reviewer' && brands.split(' ').includes(brandSlug))!.slug;

async function seedPieces(
  tx: Queryable,
  scenario: Scenario,
  brand: { id: string; slug: string },
  rows: readonly PostRow[],
  people: ReadonlyMap<string, string>,
  pictures: ReadonlyMap<string, MediaFile>,
  now: Instant,
  monday: LocalDate,
): Promise<Map<string, string>> {
  const files = new Map(scenario.pieces(brand.slug).map((file) => [file.title, file]));
  const firstRow = new Map<string, PostRow>();
  for (const row of rows) if (!firstRow.has(row.piece)) firstRow.set(row.piece, row);
  const ids = new Map<string, string>();
  for (const title of new Set([...firstRow.keys(), ...files.keys()])) {
    const id = randomUUID();
    ids.set(title, id);
    const row = firstRow.get(title);
    const file = files.get(title);
    const weeksAgo = row && row.week !== '' && row.week !== 'today' ? -Number(row.week) : 0;
    const made = weeksAgo > 0 ? `${addDays(monday, -7 * weeksAgo - 6)}T10:00:00.000Z` : addMs(now, -3 * DAY_MS);
    await insertPieces(tx, [
      {
        id,
        brandId: brand.id,
        title,
        note: file?.note ?? '',
        link: file?.link ?? row?.link ?? '',
        sourceText: file?.sourceText ?? '',
        ownerId: people.get(file?.owner ?? row!.owner)!,
        kind: file?.kind ?? 'message',
        createdAt: made,
      },
    ]);
    if (file && file.cues.length > 0) await updateCues(tx, id, file.cues, file.isWordTimed);
    if (file) await updateHowRead(tx, id, file.how);
    if (file?.recording)
      await insertPieceMedium(tx, {
        ...pictures.get(file.recording)!,
        ...{ id: randomUUID(), pieceId: id, brandId: brand.id, alt: '', addedAt: made },
      });
  }
  return ids;
}

/** Pillars and campaigns of a brand: ids by name. */
async function seedThemes(tx: Queryable, scenario: Scenario, brand: { id: string; slug: string }, monday: LocalDate) {
  const pillars = new Map<string, string>();
  const campaigns = new Map<string, string>();
  for (const { name, color } of scenario.pillars.filter((row) => row.brand === brand.slug)) {
    pillars.set(name, randomUUID());
    await savePillar(tx, { id: pillars.get(name)!, brandId: brand.id, name, color });
  }
  for (const row of scenario.campaigns.filter(({ brand: slug }) => slug === brand.slug)) {
    const { name, color } = row;
    campaigns.set(name, randomUUID());
    const from = addDays(monday, Number(row.from_week) * 7);
    const to = addDays(monday, Number(row.to_week) * 7 + 6);
    await saveCampaign(tx, { id: campaigns.get(name)!, brandId: brand.id, name, color, from, to });
  }
  const daysOff = scenario.daysOff
    .filter((row) => row.brand === brand.slug)
    .map(({ name, from_week, from_weekday, days }) => {
      const from = addDays(monday, Number(from_week) * 7 + Number(from_weekday) - 1);
      return { name, from, to: addDays(from, Number(days) - 1) };
    });
  await replaceDaysOff(tx, brand.id, daysOff);
  return { pillars, campaigns };
}

async function seedRhythm(
  tx: Queryable,
  scenario: Scenario,
  brand: { id: string; slug: string },
  channels: ReadonlyMap<string, Channel>,
  pillars: ReadonlyMap<string, string>,
  monday: LocalDate,
): Promise<void> {
  const rows = scenario.rhythm(brand.slug);
  for (const [callSign, channel] of channels) {
    const entries = rows
      .filter((row) => row.channel === callSign)
      .map((row) => ({
        id: randomUUID(),
        recurrence:
          row.kind === 'weekly'
            ? { kind: row.kind, weekday: Number(row.weekday), every: Number(row.every) }
            : { kind: row.kind, weekday: Number(row.weekday), nth: Number(row.nth) as 1 },
        time: row.time,
        format: (row.format || null) as Format | null,
        theme: row.theme,
        pillarId: pillars.get(row.pillar) ?? null,
        from: row.from_week === '' ? null : addDays(monday, Number(row.from_week) * 7),
        to: null,
      }));
    await replaceRhythm(tx, { id: channel.id, brandId: brand.id }, entries);
  }
}

async function seedIdeas(
  tx: Queryable,
  scenario: Scenario,
  brand: { id: string; slug: string },
  channels: ReadonlyMap<string, Channel>,
  people: ReadonlyMap<string, string>,
  now: Instant,
): Promise<void> {
  for (const idea of scenario.ideas(brand.slug)) {
    const id = randomUUID();
    const { title, note, link } = idea;
    const createdAt = addMs(now, -Number(idea.days_ago) * DAY_MS);
    await insertPieces(tx, [
      {
        id,
        brandId: brand.id,
        title,
        note,
        link,
        sourceText: '',
        ownerId: people.get(idea.owner)!,
        createdAt,
      },
    ]);
    const suggested = idea.channels
      .split(' ')
      .filter(Boolean)
      .map((sign) => channels.get(sign)!.id);
    await replaceSuggestions(tx, { id, brandId: brand.id }, suggested);
    if (idea.set_aside) await updatePieceSetAside(tx, id, addMs(createdAt, DAY_MS), idea.set_aside);
  }
}

/** `week` counts from this week and `weekday` from Monday; `today` is today; empty is undated. */
function dateOf(row: PostRow, monday: LocalDate, today: LocalDate): LocalDate | null {
  if (row.week === '') return null;
  return row.week === 'today' ? today : addDays(monday, Number(row.week) * 7 + Number(row.weekday) - 1);
}

interface Making {
  brand: { id: string; zone: string };
  channel: Channel;
  pieceId: string;
  pillarId: string | null;
  campaignId: string | null;
  ownerId: string;
  /** Who signed it off, if it is far enough; null where its brand does not ask for that. */
  signedBy: string | null;
  date: LocalDate | null;
  pictures: (MediaFile & { name: string; alt: string })[];
  now: Instant;
  createdAt: Instant;
}

function makePost(row: PostRow, making: Making) {
  const { brand, channel, date, now } = making;
  const id = randomUUID();
  const { headline, caption, hashtags, link } = row;
  const time = date === null || row.time === '' ? null : row.time;
  const placed = date && time ? dueInstant(date, time, brand.zone) : null;
  const dueAt = placed?.ok ? placed.value : null;
  const rule = formatRule(channel.sheet, row.format);
  const pictures = making.pictures.map((picture) => ({
    ...picture,
    ...AS_IT_IS,
    crop: rule?.shapes && !isVideo(picture) ? cropInto(picture, rule.shapes) : null,
    id: randomUUID(),
  }));
  const { pictures: _names, parts: told = [], ...texts } = row.more ?? {};
  const parts = told.map(({ text, picture }) => ({
    id: randomUUID(),
    text,
    pictureId: pictures.find(({ name }) => name === picture)?.id ?? null,
  }));
  const content = { ...texts, headline, caption, hashtags, link, parts, format: row.format, pictures };
  const isFit = blocksOf(content, channel.sheet).length === 0;
  const isFailed = row.stage === 'failed';
  const byHand = !channel.sheet.automatic;
  // A hand-over of today waits to be confirmed; older ones were.
  const isOut = !isFailed && !(byHand && date === localOf(now, brand.zone).date);
  const isPast = dueAt !== null && dueAt <= now && isFit && isOut;
  // What was planned for a time that has passed and was not fit to go lies undated in the tray.
  const isMissed = dueAt !== null && dueAt <= now && !isFit;
  const asWritten = row.stage === 'failed' ? 'scheduled' : row.stage;
  const stage: Stage = isPast
    ? 'published'
    : !isFit && ['ready', 'scheduled'].includes(asWritten)
      ? 'production'
      : asWritten;
  const key = randomUUID();
  const parcel = makeParcel(content, channel);
  const isPassed = stage === 'ready' || stage === 'scheduled' || stage === 'published';
  const delivery: NewDelivery | null =
    stage === 'published' || stage === 'scheduled'
      ? {
          id: randomUUID(),
          brandId: brand.id,
          postId: id,
          channelId: channel.id,
          mode: byHand ? 'byHand' : 'automatic',
          state: isFailed ? 'failed' : stage === 'published' ? 'sent' : 'waiting',
          idempotencyKey: key,
          parcel,
          dueAt: dueAt!,
          nextTryAt: dueAt!,
          attempts: stage === 'published' && !byHand ? 1 : 0,
          words: isFailed ? 'this account may not post that' : '',
          createdAt: making.createdAt,
        }
      : null;
  const address = byHand
    ? `https://${channel.sheet.slug}.example/${key.slice(0, 8)}`
    : standinAddress(channel.sheet.slug, idOf(channel.sheet.slug, key));
  return {
    post: {
      id,
      brandId: brand.id,
      pieceId: making.pieceId,
      pillarId: making.pillarId,
      campaignId: making.campaignId,
      channelId: channel.id,
      title: row.title,
      ...texts,
      headline,
      caption,
      hashtags,
      link,
      parts,
      format: row.format,
      date: isMissed ? null : date,
      time: isMissed ? null : time,
      stage,
      ownerId: making.ownerId,
      publishedAt: stage === 'published' ? addMs(dueAt!, SENT_AFTER_MS) : null,
      address: stage === 'published' ? address : '',
      signOff: isPassed && making.signedBy ? { by: making.signedBy, at: making.createdAt, copy: parcel } : null,
      createdAt: making.createdAt,
    },
    pictures: pictures.map(({ name: _name, ...picture }, index) => ({
      ...picture,
      postId: id,
      position: index + 1,
      brandId: brand.id,
      addedAt: making.createdAt,
    })),
    delivery,
  };
}

/** The videos of the demo. */
const VIDEOS = ['dome-tall.mp4', 'talk-wide.mp4', 'ferry-tall.webm'];

/** The video of a post of a video format that is past its making; the others wait for theirs. */
function videoOf(row: PostRow, brandSlug: string): string | null {
  if (['drafting', 'production'].includes(row.stage)) return null;
  if (row.format === 'longVideo') return 'talk-wide.mp4';
  return row.format === 'shortVideo' ? (brandSlug === 'tidewrack' ? 'ferry-tall.webm' : 'dome-tall.mp4') : null;
}

/** The pictures of a post by name: the one of its row, or those its file tells of. */
const picturesIn = (row: PostRow): { name: string; alt: string }[] =>
  row.more?.pictures ?? (row.picture === '' ? [] : [{ name: row.picture, alt: row.alt }]);

/** The crop of a picture that brings it into a range of shapes; null when it lies in it. */
function cropInto(picture: MediaFile, range: ShapeRange): Crop | null {
  const shape = shapeOf(picture);
  return isShapeIn(shape, range) ? null : proposeCrop(picture, nearestShape(shape, range));
}

async function takePictures(
  scenario: Scenario,
  folder: string,
  networks: NetworkStore,
): Promise<Map<string, MediaFile>> {
  const files = new Set([
    ...VIDEOS,
    ...scenario.brands.flatMap(({ slug }) => scenario.pieces(slug).flatMap(({ recording }) => recording ?? [])),
    ...scenario.brandSheets.map(({ file }) => file).filter(Boolean),
    ...scenario.brands.flatMap((brand) =>
      scenario.posts(brand.slug).flatMap((row) => picturesIn(row).map(({ name }) => `${name}.jpg`)),
    ),
  ]);
  const taken = new Map<string, MediaFile>();
  for (const name of files) {
    const bytes = scenario.picture(name);
    const picture = await takeMedia(folder, bytes, name);
    if (!picture.ok) throw new Error(picture.refusal.message);
    await networks.putPicture(picture.value.sha256, bytes);
    taken.set(name, picture.value);
  }
  return taken;
}
