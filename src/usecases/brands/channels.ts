import { DISTANCE_MINUTES, isDistance } from '@/core/rhythm/window';
import { readChannelColour } from '@/core/brands/colours';
import { quoted } from '@/core/calendar/change';
import { isLead, LEAD_MINUTES } from '@/core/notices/notice';
import { readTitle } from '@/core/pieces/piece';
import type { RulesOutcome } from '@/core/posts/outcome';
import type { Result } from '@/core/refusal';
import {
  archiveChannel,
  insertChannel,
  listChannels,
  listRuleSheets,
  maybeChannel,
  updateChannel,
} from '@/data/brands/channels';
import { databaseError, SQLSTATE } from '@/data/database/db';
import { listScheduledOfChannel } from '@/data/posts/posts';
import { mustMay } from '../rights/mustMay';
import { followRules } from '../delivery/rulesChanged';
import { undoably } from '../undo/undoably';
import { takeSetting } from './takeSetting';
import { attempt, doing, must, notFound, refused, type Work } from '../useCase';

/** What can be set of a channel. */
interface ChannelInput {
  name: string;
  callSign: string;
  color: string;
  account: string;
  aimDays: number;
  /** Absent: as it is, and at its time for a new one. */
  leadMinutes?: number;
  /** Absent: as it is. */
  distanceMinutes?: number;
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
    if (input.leadMinutes !== undefined && !isLead(input.leadMinutes))
      refused({
        code: 'badLead',
        field: 'leadMinutes',
        message: `People are told ${LEAD_MINUTES.least} to ${LEAD_MINUTES.most} minutes before.`,
      });
    if (input.distanceMinutes !== undefined && !isDistance(input.distanceMinutes))
      refused({
        code: 'badDistance',
        field: 'distanceMinutes',
        message: `Posts are kept ${DISTANCE_MINUTES.least} to ${DISTANCE_MINUTES.most} minutes apart.`,
      });
    const color = must(readChannelColour(input.color, others));
    const sheet = (await listRuleSheets(act.tx)).find((one) => one.id === input.ruleSheetId);
    if (!sheet) refused(notFound('rule sheet'));
    const fields = {
      name: must(readTitle(input.name, 'name')),
      callSign,
      color,
      account: input.account.trim().slice(0, 100),
      aimDays: input.aimDays,
      ...(input.leadMinutes !== undefined && { leadMinutes: input.leadMinutes }),
      ...(input.distanceMinutes !== undefined && { distanceMinutes: input.distanceMinutes }),
    };
    if (id === null) {
      const channel = { ...fields, id: act.ids(), brandId, ruleSheetSlug: sheet.slug, position: 1_000 };
      const watched = { brandId, label: `Made the channel ${quoted(fields.name)}`, things: thingsOf(channel.id) };
      const added = await attempt(() =>
        undoably(act, watched, () => tellTwins(callSign, () => insertChannel(act.tx, channel))),
      );
      must(added);
      await act.note({ brandId, subject: 'channel', subjectId: channel.id, deed: 'made' });
      return { id: channel.id };
    }
    await takeSetting(act, 'channel', id);
    const before = await maybeChannel(act.tx, id);
    const isOther = before?.ruleSheetId !== sheet.id || before.account !== fields.account;
    const label = `Changed the channel ${quoted(fields.name)}`;
    await undoably(act, { brandId, label, things: thingsOf(id), final: isOther ? OTHER_RULES : null }, async () => {
      if (!(await updateChannel(act.tx, brandId, id, { ...fields, ruleSheetId: sheet.id })))
        refused(notFound('channel'));
    });
    await act.note({ brandId, subject: 'channel', subjectId: id, deed: 'changed' });
    return { id, ...(isOther && (await followRules(act, [id]))) };
  });
}

const thingsOf = (id: string) => [{ name: 'channel' as const, id }];
/** Why a channel of another account or with other rules is not put back by a key. */
const OTHER_RULES =
  'Its account or rules changed, and its posts were held against them. It is changed back in Settings, Channels.';

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
    const label = `Archived the channel ${quoted(channel.name)}`;
    await undoably(act, { brandId, label, things: thingsOf(id) }, () => archiveChannel(act.tx, id, act.now));
    await act.note({ brandId, subject: 'channel', subjectId: id, deed: 'archived' });
    return true as const;
  });
}
