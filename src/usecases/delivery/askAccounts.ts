import type { HeldAnswer, HeldPost } from '@/core/delivery/network';
import { listBrands } from '@/data/brands/brands';
import { listChannelsById, listChannelsOf, type Channel } from '@/data/brands/channels';
import { askAllAccounts, listAccountsToAsk, noteAccountTold } from '@/data/delivery/restores';
import { addMs, type Instant } from '@/core/time/plan';
import { acting } from '../useCase';
import type { DeliveryWork } from './deliver';
import { noteRestored } from './restores';
import { knowledgeOf, takeOver } from './takeOver';

/** Networks are asked from this long before the folder's last instant on: their clocks may differ from ours. */
const SLACK_MS = 24 * 60 * 60_000;

/**
 * Lets every account that is sent to by itself be asked what it holds of this house's posts, at each start: before it has told,
 * nothing leaves there.
 *
 * @param lastSeen the last instant that the folder knows of
 */
export async function letAccountsBeAsked({ db, clock }: DeliveryWork, lastSeen: Instant): Promise<void> {
  const brands = await listBrands(db);
  const channels = await listChannelsOf(
    db,
    brands.map(({ id }) => id),
  );
  const automatic = channels.filter(({ sheet }) => sheet.automatic).map(({ id }) => id);
  const now = clock.now();
  await askAllAccounts(db, automatic, addMs(lastSeen < now ? lastSeen : now, -SLACK_MS));
}

/**
 * Asks the accounts that have not told yet what they hold. Something that the folder never sent says that it is older than what ran
 * last on it: then all that waits is kept back for a manager. What they hold is taken over as published.
 *
 * @param restoredTo how far the folder reaches, said where it turns out to be restored
 * @returns how many are still to tell
 * @throws AggregateError once all were asked, with what went wrong at some: those are still to be asked, and hold up no other
 */
export async function askAccounts(work: DeliveryWork, restoredTo: Instant | null): Promise<number> {
  const toAsk = await listAccountsToAsk(work.db);
  if (toAsk.length === 0) return 0;
  const channels = new Map(
    (
      await listChannelsById(
        work.db,
        toAsk.map(({ channelId }) => channelId),
      )
    ).map((channel) => [channel.id, channel]),
  );
  const answers = await Promise.all(
    toAsk.map(async ({ channelId, since }) => {
      const channel = channels.get(channelId)!;
      const account = { network: channel.sheet.slug, account: channel.account };
      return { channel, answer: onlyKnowable(await work.network.heldSince(account, since)) };
    }),
  );
  const told = answers.filter(({ answer }) => answer.kind !== 'unknown');
  if (await isOld(work, told)) await noteRestored(work, ['networks'], restoredTo);
  const wrong: unknown[] = [];
  for (const { channel, answer } of told)
    try {
      if (answer.kind === 'told') await takeAllOver(work, channel, answer.posts);
      await noteAccountTold(work.db, channel.id);
    } catch (error) {
      wrong.push(error);
    }
  if (wrong.length > 0) throw new AggregateError(wrong, `${wrong.length} accounts could not be taken over from`);
  return toAsk.length - told.length;
}

async function takeAllOver(work: DeliveryWork, channel: Channel, posts: readonly HeldPost[]): Promise<void> {
  for (const held of posts) {
    for (const picture of held.parcel.pictures) await work.keepPicture(held.parcel.network, picture);
    await work.db.transaction((tx) => takeOver(acting(tx, work, null), channel, held));
  }
}

/** The identifiers that Bimlo gives its posts. */
const POST_ID = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/** An answer without what carries no identifier of a post: nothing could be taken over by it, and it shall hold up nothing else. */
const onlyKnowable = (answer: HeldAnswer): HeldAnswer =>
  answer.kind === 'told' ? { ...answer, posts: answer.posts.filter(({ postId }) => POST_ID.test(postId)) } : answer;

async function isOld({ db }: DeliveryWork, told: readonly { answer: HeldAnswer }[]): Promise<boolean> {
  for (const { answer } of told)
    for (const held of answer.kind === 'told' ? answer.posts : [])
      if ((await knowledgeOf(db, held)) === 'old') return true;
  return false;
}
