import { isDeepStrictEqual } from 'node:util';
import { quoted } from '@/core/calendar/change';
import {
  BRAND_FILE,
  type BrandFile,
  type BrandFilePart,
  type FilePrepLine,
  type FileRhythmEntry,
} from '@/core/exchange/brandFile';
import { readFanOut } from '@/core/fanOut/fanOut';
import { titleFrom } from '@/core/pieces/piece';
import { readPrep } from '@/core/prep/step';
import { SUBJECT_LABELS } from '@/core/prep/subject';
import type { Refusal, Result } from '@/core/refusal';
import { readRhythm } from '@/core/rhythm/entry';
import { readRuleSheet } from '@/core/rulesheets/read';
import { readName, readShelfWords, SHELF_LABELS } from '@/core/shelf/shelf';
import { listChannels, listRuleSheets } from '@/data/brands/channels';
import { fanOutKey, listSettingVersions, prepSheetKey, type Setting } from '@/data/brands/settingVersions';
import { listPillars } from '@/data/brands/themes';
import { listOwnFanOuts } from '@/data/fanOut/fanOuts';
import { listPeopleOfBrand } from '@/data/people/people';
import { listPrepSheets } from '@/data/prep/prepSheets';
import { listPauses, listRhythms } from '@/data/rhythm/rhythms';
import { listNames, listShelf } from '@/data/shelf/shelf';
import { saveRuleSheet } from '../brands/ruleSheets';
import { isShipped, setFanOut } from '../fanOut/fanOuts';
import { setPrepSheet } from '../prep/prep';
import { setRhythm } from '../rhythm/rhythms';
import { ofBrand } from '../rights/readFor';
import { keepName, keepShelfItem } from '../shelf/shelf';
import type { Db, Work } from '../useCase';

/** The settings of a brand as they stand, for somebody who may manage it. */
export const readBrandFile = (work: Work, brandId: string): Promise<Result<BrandFile>> =>
  ofBrand(work, brandId, async () => fileOf(await readGround(work.db, brandId)), 'manageBrand');

/** What a brand has, by which the parts of a file are known. */
async function readGround(db: Db, brandId: string) {
  const channels = await listChannels(db, brandId);
  const pauses = new Map<string, Awaited<ReturnType<typeof listPauses>>>();
  for (const { id } of channels) pauses.set(id, await listPauses(db, id));
  const used = new Set(channels.map(({ sheet }) => sheet.slug));
  const sheets = await listRuleSheets(db);
  return {
    channels,
    pauses,
    sheets,
    usedSheets: sheets.filter(({ slug }) => used.has(slug)),
    rhythms: new Map((await listRhythms(db, [brandId])).map(({ channelId, entries }) => [channelId, entries])),
    shelf: await listShelf(db, brandId),
    names: await listNames(db, brandId),
    people: await listPeopleOfBrand(db, brandId),
    pillars: await listPillars(db, [brandId], { archived: true }),
    prepSheets: await listPrepSheets(db, brandId),
    fanOuts: await listOwnFanOuts(db, brandId),
  };
}
type Ground = Awaited<ReturnType<typeof readGround>>;

function fileOf(ground: Ground): BrandFile {
  const { channels, usedSheets, rhythms, pauses, shelf, names, prepSheets, fanOuts } = ground;
  return {
    ...BRAND_FILE,
    shelf: shelf.map(({ kind, title, text, source, fits }) => ({ kind, title, text, source, fits })),
    names: names.map(({ kind, name, handles }) => ({ kind, name, handles })),
    rhythms: channels.flatMap(({ id, callSign }) => {
      const own = { entries: rhythms.get(id) ?? [], pauses: pauses.get(id)! };
      if (own.entries.length + own.pauses.length === 0) return [];
      return [
        {
          channel: callSign,
          entries: own.entries.map(({ id: _id, pillarId, ...entry }) => ({
            ...entry,
            pillar: nameIn(ground.pillars, pillarId),
          })),
          pauses: own.pauses.map(({ name, from, to }) => ({ name, from, to })),
        },
      ];
    }),
    ruleSheets: usedSheets.map(({ rules }) => rules),
    prepSheets: prepSheets.map(({ subject, lines }) => ({
      subject,
      lines: lines.map(({ ownerId, ...line }) => ({ ...line, who: nameIn(ground.people, ownerId) })),
    })),
    fanOuts: fanOuts.map(({ slug, name, for: kind, rows, isStanding }) => ({
      slug,
      name,
      for: kind,
      rows,
      isStanding,
    })),
  };
}

/** A name of the file in a message, which may be of any length. */
const named = (name: string): string => quoted(titleFrom(name));

const sentenceCase = (words: string): string => `${words[0]!.toUpperCase()}${words.slice(1)}`;

interface Named {
  id: string;
  name: string;
}
const nameIn = (list: readonly Named[], id: string | null): string => list.find((one) => one.id === id)?.name ?? '';

/** A part of a file with what bringing it in does. */
interface Planned extends BrandFilePart {
  apply: () => Promise<Result<unknown>>;
}

/** Shows what a file of settings would bring in. */
export const previewBrandFile = (work: Work, brandId: string, file: BrandFile): Promise<Result<BrandFilePart[]>> =>
  ofBrand(
    work,
    brandId,
    async () => (await plan(work, brandId, file)).map(({ what, becomes, reason }) => ({ what, becomes, reason })),
    'manageBrand',
  );

/**
 * Brings a file of settings in, part by part: each is set as if somebody had set it, so that each is undone for itself, and one
 * that may not be is named and left out. The same file again changes nothing.
 */
export const bringBrandFile = (work: Work, brandId: string, file: BrandFile): Promise<Result<BrandFilePart[]>> =>
  ofBrand(
    work,
    brandId,
    async () => {
      const told: BrandFilePart[] = [];
      for (const { apply, ...part } of await plan(work, brandId, file)) {
        const isLeft = part.becomes === 'same' || part.becomes === 'leftOut';
        const result = isLeft ? null : await apply();
        told.push(result === null || result.ok ? part : leftOut(part.what, result.refusal));
      }
      return told;
    },
    'manageBrand',
  );

const leftOut = (what: string, { message }: Pick<Refusal, 'message'>): BrandFilePart => ({
  ...{ what, becomes: 'leftOut', reason: message },
});

async function plan(work: Work, brandId: string, file: BrandFile): Promise<Planned[]> {
  const ground = await readGround(work.db, brandId);
  const has = fileOf(ground);
  const seeing = async (setting: Setting, key: string): Promise<Work> => ({
    ...work,
    seen: (await listSettingVersions(work.db, setting, [key])).get(key) ?? 0,
  });
  /**
   * @param asked as it would be kept
   * @param read what is read of it when it is set: what that refuses is left out
   */
  const part = <T>(
    what: string,
    present: T | undefined,
    asked: T,
    read: Result<unknown>,
    apply: Planned['apply'],
  ): Planned => {
    const isSame = present !== undefined && isDeepStrictEqual(plain(present), plain(asked));
    if (!isSame && !read.ok) return refusedPart(what, read.refusal.message);
    return { what, becomes: present === undefined ? 'new' : isSame ? 'same' : 'changed', reason: '', apply };
  };
  const refusedPart = (what: string, message: string): Planned => ({
    ...leftOut(what, { message }),
    apply: () => Promise.resolve({ ok: true, value: null }),
  });

  const shelf = file.shelf.map((typed) => {
    const read = readShelfWords(typed);
    const words = keptAs(read, typed);
    const known = ground.shelf.find(({ kind, title }) => kind === words.kind && title === words.title);
    const present = has.shelf.find(({ kind, title }) => kind === words.kind && title === words.title);
    return part(`${sentenceCase(SHELF_LABELS[words.kind].one)} ${named(words.title)}`, present, words, read, () =>
      keepShelfItem(work, brandId, known ? { id: known.id, version: known.version } : null, words),
    );
  });
  const names = file.names.map((typed) => {
    const read = readName(typed);
    const asked = keptAs(read, typed);
    const known = ground.names.find(({ kind, name }) => kind === asked.kind && name === asked.name);
    const present = has.names.find(({ kind, name }) => kind === asked.kind && name === asked.name);
    return part(`Name ${named(asked.name)}`, present, asked, read, () =>
      keepName(work, brandId, known ? { id: known.id, version: known.version } : null, asked),
    );
  });
  const ruleSheets = file.ruleSheets.map((typed) => {
    const read = readRuleSheet(typed);
    const asked = keptAs(read, typed);
    const known = ground.sheets.find(({ slug }) => slug === asked.slug);
    return part(`Rule sheet ${named(asked.name)}`, known?.rules, asked, read, async () =>
      saveRuleSheet(known ? await seeing('rule sheet', known.id) : work, known?.id ?? null, asked),
    );
  });
  const rhythms = file.rhythms.map((asked) => {
    const what = `Rhythm of ${titleFrom(asked.channel)}`;
    const channel = ground.channels.find(({ callSign }) => callSign === asked.channel);
    if (!channel) return refusedPart(what, `No channel has the call sign ${titleFrom(asked.channel)}. Make it first.`);
    const unknown = asked.entries.find(({ pillar }) => pillar !== '' && !idIn(ground.pillars, pillar));
    if (unknown) return refusedPart(what, `There is no pillar ${named(unknown.pillar)}. Make it first.`);
    const present = has.rhythms.find((one) => one.channel === asked.channel);
    const entries = asked.entries.map(({ pillar, ...entry }: FileRhythmEntry) => ({
      ...entry,
      pillarId: idIn(ground.pillars, pillar),
    }));
    const read = readRhythm(entries.map((entry) => ({ ...entry, id: '' })));
    return part(what, present, asked, read, async () =>
      setRhythm(await seeing('rhythm', channel.id), channel.id, entries, asked.pauses),
    );
  });
  const prepSheets = file.prepSheets.map((asked) => {
    const what = `Prep sheet: ${SUBJECT_LABELS[asked.subject]}`;
    const unknown = asked.lines.find(({ who }) => who !== '' && !idIn(ground.people, who));
    if (unknown) return refusedPart(what, `Nobody of this brand is called ${named(unknown.who)}. Invite them first.`);
    const present = has.prepSheets.find(({ subject }) => subject === asked.subject);
    const lines = asked.lines.map(({ who, ...line }: FilePrepLine) => ({ ...line, ownerId: idIn(ground.people, who) }));
    const read = readPrep(lines);
    const kept = keptAs(read, lines).map(({ ownerId, ...line }) => ({ ...line, who: nameIn(ground.people, ownerId) }));
    return part(what, present, { ...asked, lines: kept }, read, async () =>
      setPrepSheet(await seeing('prep sheet', prepSheetKey(brandId, asked.subject)), brandId, asked.subject, lines),
    );
  });
  const fanOuts = file.fanOuts.map(({ slug, ...typed }) => {
    const read = readFanOut(typed);
    const asked = keptAs(read, typed);
    // A fan-out of another folder is known by its name here; one that ships has its slug everywhere.
    const present = has.fanOuts.find((one) => (isShipped(slug) ? one.slug === slug : one.name === asked.name));
    const known = present?.slug ?? (isShipped(slug) ? slug : null);
    return part(`Fan-out ${named(asked.name)}`, present && { ...present, slug }, { ...asked, slug }, read, async () =>
      setFanOut(
        known ? await seeing('fan-out', fanOutKey(brandId, known)) : { ...work, seen: 0 },
        brandId,
        known,
        asked,
      ),
    );
  });
  const seen = new Set<string>();
  return [...ruleSheets, ...shelf, ...names, ...rhythms, ...prepSheets, ...fanOuts].map((one) => {
    const isTwice = one.becomes !== 'same' && seen.has(one.what);
    seen.add(one.what);
    return isTwice ? refusedPart(one.what, 'It stands in the file twice.') : one;
  });
}

/** How something would be kept; as it was typed where it is refused. */
const keptAs = <T>(read: Result<T>, typed: T): T => (read.ok ? read.value : typed);

const idIn = (list: readonly Named[], name: string): string | null => list.find((one) => one.name === name)?.id ?? null;

/** As it comes out of JSON: what is absent and what is undefined are the same. */
const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value));
