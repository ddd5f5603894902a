import { refuse, type Result } from '@/core/refusal';
import { readPassword } from '@/core/signIn/password';
import { addMs, type Instant } from '@/core/time/plan';
import { writeAudit } from '@/data/signIn/audit';
import { maybePasswordHash, savePasswordHash } from '@/data/signIn/credentials';
import {
  deleteEntryLink,
  deleteEntryLinksOf,
  maybeEntryLink,
  saveEntryLink,
  type LinkPurpose,
} from '@/data/signIn/entryLinks';
import { hashOfKey, newKey } from '@/data/signIn/keys';
import { hashPassword } from '@/data/signIn/passwords';
import { deleteSignInsOf } from '@/data/signIn/signIns';
import { mustMay } from '../rights/mustMay';
import { mustBeOfMine } from '../people/mustBeOfMine';
import { attempt, doing, refused, type Db, type Work } from '../useCase';
import type { From, House } from './house';
import { beginSignIn, type SignedIn } from './signIn';

const DAY_MS = 24 * 60 * 60_000;

/** How long a link holds, in milliseconds. */
const LINK_HOLDS_MS: Record<LinkPurpose, number> = { invitation: 7 * DAY_MS, password: DAY_MS };

/** A link as it was made: its key is told this once and not kept. */
interface MadeLink {
  key: string;
  purpose: LinkPurpose;
  expiresAt: Instant;
}

/**
 * Makes a link by which somebody sets their password: an invitation, or where they have one a link for another. The link before
 * it holds no longer.
 */
export function makeEntryLink({ request: _kept, ...work }: Work, personId: string): Promise<Result<MadeLink>> {
  // What a write was answered is kept for a while, and this answer is nobody's to read: it is made anew when asked for twice.
  return doing(work, async (act) => {
    await mustMay(act, 'manageHouse', null);
    await mustBeOfMine(act, personId);
    if ((await maybePasswordHash(act.tx, act.actorId)) === null)
      refused({
        code: 'ownPasswordFirst',
        message: 'Set a password for yourself first: from the first invitation on, whoever comes has to sign in.',
      });
    const hasPassword = (await maybePasswordHash(act.tx, personId)) !== null;
    const purpose: LinkPurpose = hasPassword ? 'password' : 'invitation';
    const key = newKey();
    const expiresAt = addMs(act.now, LINK_HOLDS_MS[purpose]);
    await saveEntryLink(act.tx, {
      ...{ id: act.ids(), keyHash: hashOfKey(key), personId, purpose },
      ...{ madeBy: act.actorId, madeAt: act.now, expiresAt },
    });
    const kind = hasPassword ? 'passwordLinkMade' : 'invited';
    await writeAudit(act.tx, { at: act.now, kind, actorId: act.actorId, personId });
    return { key, purpose, expiresAt };
  });
}

/** Takes back the link that was made for somebody. */
export function takeBackEntryLink(work: Work, personId: string): Promise<Result<object>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageHouse', null);
    await mustBeOfMine(act, personId);
    await deleteEntryLinksOf(act.tx, personId);
    await writeAudit(act.tx, { at: act.now, kind: 'linkTakenBack', actorId: act.actorId, personId });
    return {};
  });
}

/** Whom a link lets in, and what for; undefined where it was used, holds no longer or never was. */
export const lookAtEntryLink = (db: Db, key: string, now: Instant) => maybeEntryLink(db, hashOfKey(key), now);

/**
 * Lets somebody in by a link: sets their password, uses the link up, and signs them in. Where they forgot a password, they are
 * signed out everywhere else.
 */
export async function enter(
  { db, clock, ids }: House,
  { key, password }: { key: string; password: string },
  from: From,
): Promise<Result<SignedIn>> {
  const link = await lookAtEntryLink(db, key, clock.now());
  if (!link) return refuse('linkOver', OVER);
  const read = readPassword(password, [link.name, link.slug]);
  if (!read.ok) return read;
  const hash = await hashPassword(read.value);
  return attempt(() =>
    db.transaction(async (tx) => {
      if (!(await deleteEntryLink(tx, link.id))) refused({ code: 'linkOver', message: OVER });
      await savePasswordHash(tx, link.personId, hash, clock.now());
      await deleteSignInsOf(tx, link.personId);
      if (link.purpose === 'password') {
        const { personId } = link;
        await writeAudit(tx, { at: clock.now(), kind: 'passwordChanged', actorId: personId, personId });
      }
      const kind = link.purpose === 'invitation' ? 'joined' : 'signedIn';
      return beginSignIn(tx, { clock, ids }, link.personId, from, kind);
    }),
  );
}

const OVER = 'This link was used already, or holds no longer. Ask a manager for another.';
