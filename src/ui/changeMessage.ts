import type { ChangeOutcome } from '@/core/calendar/changeOutcome';

/** Reasons named in one message; the rest is counted. */
const REASONS = 2;

/** One message: what was done and to how many, what was refused and why, what else happened. */
export function changeMessage({ label, refused, notes, postIds }: ChangeOutcome): string {
  const some = (list: { title: string; message: string }[]) => {
    const named = list.slice(0, REASONS).map(({ title, message }) => `“${title}”: ${message}`);
    return named.join(' ') + (list.length > REASONS ? ` And ${list.length - REASONS} more.` : '');
  };
  const parts = [`${label}.`];
  if (refused.length > 0) parts.push(`Not changed: ${refused.length}. ${some(refused)}`);
  if (notes.length > 0) parts.push(postIds.length === 1 ? notes.map(({ message }) => message).join(' ') : some(notes));
  return parts.join(' ');
}
