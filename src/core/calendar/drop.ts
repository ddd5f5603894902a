import type { Stage } from '../stages/stages';
import type { LocalDate } from '../time/plan';

/** What is being dragged: an idea, or a post with its stage. */
export type Dragged = { kind: 'idea' } | { kind: 'post'; stage: Stage; leaving: boolean; date: LocalDate | null };

/** Where it would fall: a day, or the tray (no date). */
export type DropPlace = { kind: 'day'; date: LocalDate } | { kind: 'tray' };

/** Why a drop would be refused, in a few words to show while dragging; null when it may fall there. */
export function whyNoDrop(dragged: Dragged, place: DropPlace, today: LocalDate): string | null {
  if (dragged.kind === 'post' && dragged.stage === 'published') return 'published posts stay on their day';
  if (dragged.kind === 'post' && dragged.leaving) return 'it is leaving right now';
  if (place.kind === 'day' && place.date < today) return 'that day has passed';
  return null;
}
