import type { Result } from '@/core/refusal';
import { nextLabels, type Direction } from '@/data/undo/changes';
import { ofBrand } from '../rights/readFor';
import type { Work } from '../useCase';

/** What this person would undo and do again next of what they did for a brand, in words; null where there is nothing. */
export const nextUndo = (work: Work, brandId: string): Promise<Result<Record<Direction, string | null>>> =>
  ofBrand(work, brandId, () => nextLabels(work.db, brandId, work.actorId));
