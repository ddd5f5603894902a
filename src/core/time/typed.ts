import type { LocalTime } from './plan';

/**
 * Reads a time of day as people type it, with or without a separator; null for what is none.
 *
 * @example
 * readTypedTime('1430') // '14:30'
 * readTypedTime('9') // '09:00'
 * readTypedTime('2.15 pm') // '14:15'
 * readTypedTime('24:00') // null
 */
export function readTypedTime(typed: string): LocalTime | null {
  const parts = /^(\d{1,2})(?: ?[:.h]? ?(\d{2}))? ?(am|pm)?$/i.exec(typed.trim().replace(/\s+/g, ' '));
  if (!parts) return null;
  const half = parts[3]?.toLowerCase();
  const typedHour = Number(parts[1]);
  const minute = Number(parts[2] ?? 0);
  if (minute > 59 || typedHour > (half ? 12 : 23) || (half && typedHour === 0)) return null;
  const hour = half ? (typedHour % 12) + (half === 'pm' ? 12 : 0) : typedHour;
  return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
}
