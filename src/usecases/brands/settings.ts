import { WORDS_PER_MINUTE } from '@/core/captions/spoken';
import { readChannelColour, readHex } from '@/core/brands/colours';
import { readTitle } from '@/core/pieces/piece';
import type { DaySpan } from '@/core/rhythm/entry';
import { readRuleSheet } from '@/core/rulesheets/read';
import type { RuleSheet } from '@/core/rulesheets/types';
import type { RulesOutcome } from '@/core/posts/outcome';
import type { Result } from '@/core/refusal';
import { readDate, readZone, type LocalDate, type Zone } from '@/core/time/plan';
import { readWeekdays, USUAL_WEEKDAYS } from '@/core/prep/workdays';
import { existsBrandSlug, insertBrand, maybeBrandById, updateBrand, type Brand } from '@/data/brands/brands';
import {
  archiveChannel,
  channelsOfSheet,
  insertChannel,
  insertRuleSheets,
  listChannels,
  listRuleSheets,
  maybeChannel,
  updateChannel,
  updateRuleSheet,
} from '@/data/brands/channels';
import { databaseError, SQLSTATE } from '@/data/database/db';
import { addToBrand } from '@/data/people/people';
import { listScheduledOfChannel } from '@/data/posts/posts';
import { replaceDaysOff } from '@/data/rhythm/rhythms';
import { listHoldersWithOpenSteps } from '@/data/prep/steps';
import { archiveTheme, saveCampaign, savePillar } from '@/data/brands/themes';
import { recount } from '../prep/countPrep';
import { mustMay } from '../rights/mustMay';
import { readSpans } from '../rhythm/rhythms';
import { followRules } from '../delivery/rulesChanged';
import { freeSlug } from './freeSlug';
import { takeSetting } from './takeSetting';
import { moveScheduledToZone, type ScheduledKeeps } from './zoneChange';
import { attempt, doing, must, notFound, refused, type Doing, type Work } from '../useCase';

/** What can be set of a brand. */
export interface BrandInput {
  name: string;
  zone: Zone;
  weekStart: number;
  /** Weekdays on which work nobody is named for is counted; Monday to Friday where it is not said. */
  weekdays?: readonly number[];
  /** How fast its scripts are spoken; the usual where it is not given. */
  wordsPerMinute?: number;
  /** Whether its posts are signed off before they are ready; not, where it is not said. */
  asksSignOff?: boolean;
  daysOff: readonly (DaySpan & { name: string })[];
}

/** Makes a brand; whoever makes it works for it. */
export function makeBrand(work: Work, input: BrandInput): Promise<Result<Brand>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageHouse', null);
    const fields = checkBrand(input);
    const brand = { ...fields, id: act.ids(), slug: await freeSlug(fields.name, 'brand', isTaken(act)) };
    await insertBrand(act.tx, { ...brand, position: 1_000 });
    await addToBrand(act.tx, brand.id, act.actorId);
    await replaceDaysOff(act.tx, brand.id, input.daysOff);
    await act.note({ brandId: brand.id, subject: 'brand', subjectId: brand.id, deed: 'made' });
    return brand;
  });
}

/**
 * Changes a brand. Its address stays as it was. With another zone, what is scheduled needs a decision: refused with
 * `confirmZone` while there is none.
 */
export function editBrand(
  work: Work,
  id: string,
  input: BrandInput,
  scheduled: ScheduledKeeps | null = null,
): Promise<Result<true>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', id);
    const before = await maybeBrandById(act.tx, id);
    if (!before) refused(notFound('brand'));
    await takeSetting(act, 'brand', id);
    const fields = checkBrand(input);
    if (before.zone !== fields.zone) await moveScheduledToZone(act, id, fields.zone, scheduled);
    await updateBrand(act.tx, id, fields);
    await replaceDaysOff(act.tx, id, input.daysOff);
    const prepared = await listHoldersWithOpenSteps(act.tx, { brandId: id });
    await recount(
      act.tx,
      id,
      prepared.map((holder) => holder.id),
      act.now,
    );
    const detail = before.zone === fields.zone ? {} : { zoneFrom: before.zone, zoneTo: fields.zone };
    await act.note({ brandId: id, subject: 'brand', subjectId: id, deed: 'changed', detail });
    return true as const;
  });
}

function checkBrand(input: BrandInput) {
  const { name, zone, weekStart, daysOff, weekdays = USUAL_WEEKDAYS, wordsPerMinute = WORDS_PER_MINUTE.usual } = input;
  if (
    !Number.isInteger(wordsPerMinute) ||
    !(wordsPerMinute >= WORDS_PER_MINUTE.least && wordsPerMinute <= WORDS_PER_MINUTE.most)
  )
    refused({
      code: 'badWordsPerMinute',
      field: 'wordsPerMinute',
      message: `A script is spoken at ${WORDS_PER_MINUTE.least} to ${WORDS_PER_MINUTE.most} words a minute.`,
    });
  if (!Number.isInteger(weekStart) || weekStart < 1 || weekStart > 7)
    refused({ code: 'badWeekStart', field: 'weekStart', message: 'A week starts on one of seven days.' });
  must(readSpans(daysOff, 'daysOff'));
  return {
    name: must(readTitle(name, 'name')),
    zone: must(readZone(zone)),
    weekStart,
    weekdays: must(readWeekdays(weekdays)),
    wordsPerMinute,
    asksSignOff: input.asksSignOff ?? false,
  };
}

/** Addresses that are not a brand's. */
const RESERVED_SLUGS = ['api', 'standins', 'bench', 'settings'];

const isTaken =
  (act: Doing) =>
  async (slug: string): Promise<boolean> =>
    RESERVED_SLUGS.includes(slug) || existsBrandSlug(act.tx, slug);

/** What can be set of a channel. */
export interface ChannelInput {
  name: string;
  callSign: string;
  color: string;
  account: string;
  aimDays: number;
  ruleSheetId: string;
}

/** Makes a channel, or changes one: with an id. */
export function saveChannel(
  work: Work,
  brandId: string,
  id: string | null,
  input: ChannelInput,
): Promise<Result<{ id: string } & Partial<RulesOutcome>>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    const others = (await listChannels(act.tx, brandId)).filter((channel) => channel.id !== id);
    const callSign = input.callSign.trim().toUpperCase();
    if (!/^[A-Z]{2}$/.test(callSign))
      refused({ code: 'badCallSign', field: 'callSign', message: 'A call sign is two letters from A to Z.' });
    const twin = others.find((channel) => channel.callSign === callSign);
    if (twin)
      refused({
        code: 'sameCallSign',
        field: 'callSign',
        message: `${twin.name} has the call sign ${callSign} already.`,
      });
    if (!Number.isInteger(input.aimDays) || input.aimDays < 1 || input.aimDays > 90)
      refused({ code: 'badAim', field: 'aimDays', message: 'A channel is filled 1 to 90 days ahead.' });
    const color = must(readChannelColour(input.color, others));
    const sheet = (await listRuleSheets(act.tx)).find((one) => one.id === input.ruleSheetId);
    if (!sheet) refused(notFound('rule sheet'));
    const fields = {
      name: must(readTitle(input.name, 'name')),
      callSign,
      color,
      account: input.account.trim().slice(0, 100),
      aimDays: input.aimDays,
    };
    if (id === null) {
      const channel = { ...fields, id: act.ids(), brandId, ruleSheetSlug: sheet.slug, position: 1_000 };
      const added = await attempt(() => tellTwins(callSign, () => insertChannel(act.tx, channel)));
      must(added);
      await act.note({ brandId, subject: 'channel', subjectId: channel.id, deed: 'made' });
      return { id: channel.id };
    }
    await takeSetting(act, 'channel', id);
    const before = await maybeChannel(act.tx, id);
    if (!(await updateChannel(act.tx, brandId, id, { ...fields, ruleSheetId: sheet.id }))) refused(notFound('channel'));
    await act.note({ brandId, subject: 'channel', subjectId: id, deed: 'changed' });
    const isOther = before?.ruleSheetId !== sheet.id || before.account !== fields.account;
    return { id, ...(isOther && (await followRules(act, [id]))) };
  });
}

/** An archived channel keeps its call sign; that is told as a refusal. */
async function tellTwins<T>(callSign: string, write: () => Promise<T>): Promise<T> {
  try {
    return await write();
  } catch (error) {
    if (databaseError(error)?.code !== SQLSTATE.uniqueViolation) throw error;
    return refused({
      code: 'sameCallSign',
      field: 'callSign',
      message: `An archived channel has the call sign ${callSign}. Take another.`,
    });
  }
}

/**
 * Archives a channel: it is offered no more, its posts stay. Refused while posts of it are scheduled: they are named and
 * have to be moved or set aside first.
 */
export function archiveChannelOf(work: Work, brandId: string, id: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    const channel = await maybeChannel(act.tx, id);
    if (!channel || channel.brandId !== brandId) refused(notFound('channel'));
    const scheduled = await listScheduledOfChannel(act.tx, id, 6);
    if (scheduled.length > 0) {
      const names = scheduled
        .slice(0, 5)
        .map((post) => `“${post.title}” (${post.date})`)
        .join(', ');
      refused({
        code: 'scheduled',
        message: `Still scheduled on ${channel.name}: ${names}${scheduled.length > 5 ? ' and more' : ''}. Move them to another channel or set them aside first.`,
      });
    }
    await archiveChannel(act.tx, id, act.now);
    await act.note({ brandId, subject: 'channel', subjectId: id, deed: 'archived' });
    return true as const;
  });
}

/** Makes a rule sheet (a copy of another, as a rule), or changes one: with an id. Channels that use it go by it at once. */
export function saveRuleSheet(
  work: Work,
  id: string | null,
  sheet: RuleSheet,
): Promise<Result<{ id: string } & Partial<RulesOutcome>>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageHouse', null);
    const all = await listRuleSheets(act.tx);
    const read = must(readRuleSheet(sheet));
    const twin = all.find((other) => other.slug === read.slug && other.id !== id);
    if (twin) refused({ code: 'sameSlug', field: 'slug', message: `${twin.name} has that short name already.` });
    if (id === null) {
      const made = { id: act.ids(), sheet: read };
      await insertRuleSheets(act.tx, [made]);
      return { id: made.id };
    }
    const before = all.find((other) => other.id === id);
    if (!before) refused(notFound('rule sheet'));
    await takeSetting(act, 'rule sheet', id);
    if (before.slug !== read.slug)
      refused({ code: 'fixedSlug', field: 'slug', message: 'The short name stands in addresses and stays as it is.' });
    await updateRuleSheet(act.tx, id, read);
    const channels = await channelsOfSheet(act.tx, id);
    await act.note(
      ...[...new Set(channels.map(({ brandId }) => brandId))].map((brandId) => ({
        brandId,
        subject: 'rule sheet' as const,
        subjectId: id,
        deed: 'changed',
      })),
    );
    // Rules are everybody's: they are held against the posts of all brands that go by them.
    const asBimlo = { ...act, actorId: null };
    return {
      id,
      ...(await followRules(
        asBimlo,
        channels.map((channel) => channel.id),
      )),
    };
  });
}

/** Makes or changes a pillar. */
export function keepPillar(
  work: Work,
  brandId: string,
  id: string | null,
  input: { name: string; color: string },
): Promise<Result<{ id: string }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    const pillar = {
      id: id ?? act.ids(),
      brandId,
      name: must(readTitle(input.name, 'name')),
      color: must(readHex(input.color)),
    };
    if (id !== null) await takeSetting(act, 'pillar', id);
    must(await attempt(() => tellSameName(pillar.name, () => savePillar(act.tx, pillar))));
    return { id: pillar.id };
  });
}

/** Makes or changes a campaign. */
export function keepCampaign(
  work: Work,
  brandId: string,
  id: string | null,
  input: { name: string; color: string; from: LocalDate | null; to: LocalDate | null },
): Promise<Result<{ id: string }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    for (const [field, date] of [
      ['from', input.from],
      ['to', input.to],
    ] as const)
      if (date !== null) must(readDate(date, field));
    if (input.from && input.to && input.to < input.from)
      refused({ code: 'backwards', field: 'to', message: 'The campaign ends before it begins.' });
    const { from, to } = input;
    const campaign = {
      id: id ?? act.ids(),
      brandId,
      name: must(readTitle(input.name, 'name')),
      color: must(readHex(input.color)),
      from,
      to,
    };
    if (id !== null) await takeSetting(act, 'campaign', id);
    must(await attempt(() => tellSameName(campaign.name, () => saveCampaign(act.tx, campaign))));
    return { id: campaign.id };
  });
}

async function tellSameName<T>(name: string, write: () => Promise<T>): Promise<T> {
  try {
    return await write();
  } catch (error) {
    if (databaseError(error)?.code !== SQLSTATE.uniqueViolation) throw error;
    return refused({ code: 'sameName', field: 'name', message: `“${name}” is there already. Take another name.` });
  }
}

/** Archives a pillar or campaign: posts keep it, it is offered no more. */
export function archiveThemeOf(
  work: Work,
  brandId: string,
  table: 'pillars' | 'campaigns',
  id: string,
): Promise<Result<true>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    if (!(await archiveTheme(act.tx, table, brandId, id, act.now)))
      refused(notFound(table === 'pillars' ? 'pillar' : 'campaign'));
    return true as const;
  });
}
