import type { Slip } from '@/core/calendar/slip';
import { shortDate } from '@/ui/format';

type Planned = Pick<Slip, 'callSign' | 'date' | 'time'>;

const whenOf = ({ date, time }: Planned): string =>
  date ? [shortDate(date), time].filter(Boolean).join(' ') : 'without a date';

/** What was planned, in words: each date it was planned for, by channel where they differ. */
export function plannedWords(title: string, slips: readonly Planned[]): string {
  const whens = new Set(slips.map(whenOf));
  const [only] = whens;
  if (whens.size > 1)
    return `Planned “${title}”: ${slips.map((slip) => `${slip.callSign} ${whenOf(slip)}`).join(', ')}`;
  const signs = slips.map(({ callSign }) => callSign).join(', ');
  return `Planned “${title}” ${slips[0]?.date ? `for ${only}` : 'without a date'}: ${signs}`;
}
