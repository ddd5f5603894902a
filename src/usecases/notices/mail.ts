import { MAIL_WORTH_MS, mailOfNotice, mailWaitMs, type Mail } from '@/core/notices/mail';
import { addMs } from '@/core/time/plan';
import { endMail, listToMail, putMailOff } from '@/data/notices/notices';
import type { Work } from '../useCase';

/** Carries a mail away. @throws where it is not taken, with a reason a person can read */
export type Mailer = (mail: Mail) => Promise<void>;

/** Mails that are handed over in one go, at most. */
const MOST_AT_ONCE = 50;

/**
 * Hands the mails over that are due, one after the other. One that is not taken is tried again, later each time; what was dealt with
 * meanwhile, or is a day old, is not mailed.
 *
 * @param base the address that Bimlo is opened at
 * @returns how many were handed over
 */
export async function sendMails(
  { db, clock }: Pick<Work, 'db' | 'clock'>,
  mailer: Mailer,
  base: string,
): Promise<number> {
  let sent = 0;
  for (const { mailAddress, tries, ...notice } of await listToMail(db, clock.now(), MOST_AT_ONCE)) {
    const now = clock.now();
    if (notice.isSettled || mailAddress === '' || addMs(notice.madeAt, MAIL_WORTH_MS) < now) {
      await endMail(db, notice.id, null);
      continue;
    }
    try {
      await mailer(mailOfNotice(notice, mailAddress, base));
      await endMail(db, notice.id, clock.now());
      sent++;
    } catch (error) {
      const problem = error instanceof Error ? error.message : String(error);
      await putMailOff(db, notice.id, addMs(clock.now(), mailWaitMs(tries + 1)), problem.slice(0, 500));
    }
  }
  return sent;
}
