import { counted } from '../words';

/** Days for which a deleted post is offered to be brought back. */
export const DELETED_DAYS = 30;

/** What people read when a post is deleted: what went with it, and for how long it can be brought back. */
export function deletedWords({
  title,
  caption,
  pictures,
}: {
  title: string;
  caption: string;
  pictures: number;
}): string {
  const letters = [...caption.trim()].length;
  const lost = [
    ...(letters > 0 ? [`its caption of ${counted(letters, 'character')}`] : []),
    ...(pictures > 0 ? [counted(pictures, 'picture')] : []),
  ];
  const what = lost.length > 0 ? `, with ${lost.join(' and ')}` : '';
  return `Deleted “${title}”${what}. It can be brought back for ${DELETED_DAYS} days, under Settings.`;
}
