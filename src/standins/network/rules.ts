import { countText } from '@/core/captions/count';
import type { Parcel } from '@/core/delivery/network';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { formatRule } from '@/core/rulesheets/types';

/** Why a made-up network would not take a parcel, in its own words; null when it would. */
export function whyRefused(parcel: Omit<Parcel, 'words'>): string | null {
  const sheet = SHIPPED_RULE_SHEETS.find((shipped) => shipped.slug === parcel.network);
  if (!sheet) return `no such network: ${parcel.network}`;
  if (!sheet.automatic) return `${sheet.name} takes posts from people only`;
  for (const rule of sheet.fields) {
    const text = parcel.texts.find((field) => field.name === rule.name)?.text ?? '';
    if (rule.required && text.trim() === '') return `${rule.label} missing`;
    const count = countText(text, rule);
    if (count > rule.limit) return `${rule.label} too long: ${count} of ${rule.limit}`;
  }
  if (sheet.hashtagLimit !== null && parcel.hashtags.length > sheet.hashtagLimit)
    return `too many hashtags: ${parcel.hashtags.length} of ${sheet.hashtagLimit}`;
  const format = formatRule(sheet, parcel.format);
  if (!format) return `format not taken: ${parcel.format}`;
  if (parcel.pictures.length < format.picturesMin) return 'picture missing';
  if (parcel.pictures.length > format.picturesMax) return 'too many pictures';
  return null;
}
