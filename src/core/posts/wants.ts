import { isVideo } from '../media/video';
import type { SignOffState } from './signOff';

/** Something the team asked for. A manager may waive it with a reason. */
export interface Want {
  /** What it is waived by: `alt`, `unread`, `signOff`, or `step:` and the step's id. */
  key: string;
  /** The part of the sheet it leads to. */
  field: 'pictures' | 'words' | 'prep' | 'signOff';
  /** Two or three words for a slip: “no alt text”. */
  short: string;
  /** A sentence: “Edit is not done.” */
  message: string;
  /** It is a step of the piece. */
  ofPiece?: boolean;
}

/** A want that a manager let go. */
export interface Waiver {
  key: string;
  reason: string;
  /** Who did. */
  by: string;
  /** The instant it was done. */
  at: string;
}

/** What wants depend on. */
interface WantFacts {
  pictures: readonly { alt: string; mime: string }[];
  /** Steps marked as needed, due before publishing, that are not done: its own, and those of its piece. */
  neededSteps: readonly { id: string; title: string; ofPiece?: boolean }[];
  signOff: SignOffState;
  /** Sentences of its draft that nobody has touched. */
  unread: number;
}

/** The steps marked as needed, due before publishing, that are not done. */
export const neededOf = <S extends { needed: boolean; lead: number; doneOn: string | null }>(
  steps: readonly S[],
): S[] => steps.filter(({ needed, lead, doneOn }) => needed && lead >= 0 && doneOn === null);

/** What the team still wants before a post is called ready; what was waived is left out. */
export function wantsOf(
  { pictures, neededSteps, signOff, unread }: WantFacts,
  waived: readonly { key: string }[],
): Want[] {
  const undescribed = pictures.filter((picture) => !isVideo(picture) && picture.alt.trim() === '').length;
  const wants: Want[] = [];
  if (undescribed > 0)
    wants.push({
      key: 'alt',
      field: 'pictures',
      short: 'no alt text',
      message: undescribed === 1 ? 'A picture has no alt text.' : `${undescribed} pictures have no alt text.`,
    });
  if (unread > 0)
    wants.push({
      key: 'unread',
      field: 'words',
      short: 'draft not checked',
      message: unread === 1 ? 'A drafted sentence is not read.' : `${unread} drafted sentences are not read.`,
    });
  for (const { id, title, ofPiece = false } of neededSteps)
    wants.push({
      key: `step:${id}`,
      field: 'prep',
      short: 'prep not done',
      message: ofPiece ? `“${title}” of its piece is not done.` : `“${title}” is not done.`,
      ...(ofPiece && { ofPiece }),
    });
  if (signOff === 'missing' || signOff === 'outdated')
    wants.push({
      key: 'signOff',
      field: 'signOff',
      short: 'no sign-off',
      message: signOff === 'missing' ? 'Nobody has signed it off.' : 'It changed since it was signed off.',
    });
  return wants.filter(({ key }) => !waived.some((one) => one.key === key));
}
