import { countText } from '@/core/captions/count';
import type { Parcel } from '@/core/delivery/network';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import type { PictureMeasures } from '@/core/media/fit';
import { mediaBlocksOf } from '@/core/posts/readiness';
import { captionIsPart, countPart, partName } from '@/core/posts/parts';
import { fieldsOf, formatRule } from '@/core/rulesheets/types';

/**
 * Why a made-up network would not take a parcel, in its own words; null when it would.
 *
 * @param pictures what its pictures and videos really are
 */
export function whyRefused(parcel: Omit<Parcel, 'words'>, pictures: readonly PictureMeasures[]): string | null {
  const sheet = SHIPPED_RULE_SHEETS.find((shipped) => shipped.slug === parcel.network);
  if (!sheet) return `no such network: ${parcel.network}`;
  if (!sheet.automatic) return `${sheet.name} takes posts from people only`;
  for (const rule of fieldsOf(sheet, parcel.format)) {
    const text = parcel.texts.find((field) => field.name === rule.name)?.text ?? '';
    if (rule.required && text.trim() === '') return `${rule.label} missing`;
    const count = countText(text, rule);
    if (count > rule.limit) return `${rule.label} too long: ${count} of ${rule.limit}`;
  }
  if (sheet.hashtagLimit !== null && parcel.hashtags.length > sheet.hashtagLimit)
    return `too many hashtags: ${parcel.hashtags.length} of ${sheet.hashtagLimit}`;
  const format = formatRule(sheet, parcel.format);
  if (!format) return `format not taken: ${parcel.format}`;
  const [fault] = mediaBlocksOf({ format: parcel.format, pictures }, sheet);
  if (fault) return fault.short;
  const { parts = [] } = parcel;
  if (format.parts && parts.length + captionIsPart(format.parts) > format.parts.most)
    return `too many ${format.parts.label}s: ${parts.length}`;
  for (const [index, { text }] of parts.entries())
    if (format.parts && countPart(text, sheet) > format.parts.limit) return `${partName(format.parts, index)} too long`;
  return null;
}
