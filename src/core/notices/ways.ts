import { addDays } from '../time/days';
import { accept, refuse, type Result } from '../refusal';
import { dueInstant, localOf, type Instant, type LocalTime, type Zone } from '../time/plan';

/** How somebody is told beside on the page. */
export interface Ways {
  /** Empty: not by mail. */
  mailAddress: string;
  /** From when to when no mail comes, on their own clock; null: at any hour. */
  quiet: { from: LocalTime; to: LocalTime } | null;
}

/** Characters of a mail address, at most (RFC 5321, 4.5.3.1.3). */
const MOST = 254;
/** One address by itself, without a name, several, or what would begin another line. */
const ADDRESS = /^[^\s@,;:<>()"\\]+@[^\s@,;:<>()"\\]+\.[^\s@,;:<>()"\\.]+$/u;

/** An address that mail goes to; empty for none. */
export function readMailAddress(text: string): Result<string> {
  const address = text.trim();
  return address === '' || (address.length <= MOST && ADDRESS.test(address))
    ? accept(address)
    : refuse('badMailAddress', 'This is no mail address.', 'mailAddress');
}

/** When mail may go out: at once, or where it is quiet when that ends. */
export function afterQuiet(now: Instant, zone: Zone, quiet: Ways['quiet']): Instant {
  if (quiet === null || quiet.from === quiet.to) return now;
  const { date, time } = localOf(now, zone);
  const isOverNight = quiet.from > quiet.to;
  const isQuiet = isOverNight ? time >= quiet.from || time < quiet.to : time >= quiet.from && time < quiet.to;
  if (!isQuiet) return now;
  const ends = dueInstant(isOverNight && time >= quiet.from ? addDays(date, 1) : date, quiet.to, zone);
  return ends.ok && ends.value > now ? ends.value : now;
}
