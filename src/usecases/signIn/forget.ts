import { FORGOTTEN_AFTER_MS } from '@/core/signIn/slowDown';
import { addMs } from '@/core/time/plan';
import { forgetAudit } from '@/data/signIn/audit';
import { forgetEntryLinks } from '@/data/signIn/entryLinks';
import { forgetSignIns } from '@/data/signIn/signIns';
import { forgetWrong } from '@/data/signIn/wrongPasswords';
import type { House } from './house';
import { holdsSince } from './signIn';

/** How long the audit list is kept, in milliseconds. */
const AUDIT_KEPT_MS = 400 * 24 * 60 * 60_000;

/** Forgets what holds no longer: sign-ins, links and counts of wrong passwords; and the audit list after some 13 months. */
export async function forgetOldSignIns({ db, clock }: Pick<House, 'db' | 'clock'>): Promise<number> {
  const now = clock.now();
  return (
    (await forgetSignIns(db, holdsSince(now))) +
    (await forgetEntryLinks(db, now)) +
    (await forgetWrong(db, addMs(now, -FORGOTTEN_AFTER_MS))) +
    (await forgetAudit(db, addMs(now, -AUDIT_KEPT_MS)))
  );
}
