import type { Result } from '@/core/refusal';
import { maybeLabelOfLast } from '@/data/calendar/calendarChanges';
import { ofBrand } from '../rights/readFor';
import type { Work } from '../useCase';

/** What this person would undo next of what they did for a brand, in words; null where there is nothing. */
export const nextUndo = (work: Work, brandId: string): Promise<Result<{ label: string | null }>> =>
  ofBrand(work, brandId, async () => ({ label: (await maybeLabelOfLast(work.db, brandId, work.actorId)) ?? null }));
