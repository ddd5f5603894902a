import { ofEachText } from '../posts/texts';
import { ofEachPieceText, pieceText } from './texts';
import { accept, refuse, type Result } from '../refusal';
import { cleanText } from '../text/clean';
import type { LocalDate } from '../time/plan';

/** Characters (UTF-16 units) that Bimlo keeps of each text of a piece or post. */
export const TEXT_LIMITS = {
  ...ofEachPieceText((name) => pieceText(name).keeps),
  ...ofEachText(({ keeps }) => keeps),
  part: 20_000,
  alt: 2_000,
  reason: 500,
} as const;

/** A title: what is left without the white space around it, 1 to 200 characters on one line. Or a name, for any other field. */
export function readTitle(typed: string, field = 'title'): Result<string> {
  const title = cleanText(typed).replace(/\s+/gu, ' ').trim();
  const isTitle = field === 'title';
  if (title === '')
    return refuse('emptyTitle', isTitle ? 'Give it a title: a few words are enough.' : 'Type a name.', field);
  if (title.length > TEXT_LIMITS.title) {
    const told = `The ${isTitle ? 'title' : 'name'} has ${title.length} characters; 200 are kept.`;
    return refuse('longTitle', isTitle ? `${told} Put the rest into the note.` : told, field);
  }
  return accept(title);
}

/** Characters of a title that is made of a text. */
const MADE_TITLE = 80;

/** A title made of a text: its first line, cut after a word where it is long; empty where nothing is written. */
export function titleFrom(text: string): string {
  const [line = ''] = cleanText(text).trim().split('\n');
  const title = line.replace(/\s+/gu, ' ').trim();
  if (title.length <= MADE_TITLE) return title;
  const cut = title.slice(0, MADE_TITLE);
  const end = cut.lastIndexOf(' ');
  return `${(end > 0 ? cut.slice(0, end) : cut).replace(/[\uD800-\uDBFF]$/, '')} …`;
}

/** The day of the earliest of a piece's posts; null where none has one. */
export const earliestDay = (days: readonly (LocalDate | null)[]): LocalDate | null =>
  days.filter((day) => day !== null).sort()[0] ?? null;
