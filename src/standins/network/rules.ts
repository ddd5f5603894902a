import { countText } from '@/core/captions/count';
import type { Parcel } from '@/core/delivery/network';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { measuresOf } from '@/core/delivery/parcel';
import { isVideo, videoFaults } from '@/core/media/video';
import { captionIsPart, countPart, partName } from '@/core/posts/parts';
import { fieldsOf, formatRule } from '@/core/rulesheets/types';

/** Why a made-up network would not take a parcel, in its own words; null when it would. */
export function whyRefused(parcel: Omit<Parcel, 'words'>): string | null {
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
  const pictures = parcel.pictures.filter((picture) => !isVideo(picture));
  const videos = parcel.pictures.filter(isVideo);
  if (pictures.length < format.picturesMin) return 'picture missing';
  if (pictures.length > format.picturesMax) return 'too many pictures';
  if (videos.length !== (format.video ? 1 : 0)) return format.video ? 'one video needed' : 'video not taken';
  const [video] = videos;
  if (video && format.video && videoFaults(measuresOf(video), format.video).length > 0)
    return 'video not taken as it is';
  const { parts = [] } = parcel;
  if (format.parts && parts.length + captionIsPart(format.parts) > format.parts.most)
    return `too many ${format.parts.label}s: ${parts.length}`;
  for (const [index, { text }] of parts.entries())
    if (format.parts && countPart(text, sheet) > format.parts.limit) return `${partName(format.parts, index)} too long`;
  return null;
}
