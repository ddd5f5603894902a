import type { Result } from '@/core/refusal';
import { localOf, type LocalDate } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import { listSettingVersions } from '@/data/brands/settingVersions';
import type { Queryable } from '@/data/database/db';
import { listKnownTitles, listNextDays, listRepeats, maybeRepeat, type Repeat } from '@/data/repeats/repeats';
import { mayRead } from '../rights/mustMay';
import { notFound, type Work } from '../useCase';

export type { Repeat } from '@/data/repeats/repeats';

/** A repeat with the version of its setting. */
type Versioned = Repeat & { version: number };

/** The repeats of a brand that have not ended, each with the day of its next post. */
export async function loadRepeats(
  db: Queryable,
  brandId: string,
  today: LocalDate,
): Promise<(Versioned & { next: LocalDate | null })[]> {
  const repeats = await listRepeats(db, brandId);
  const ids = repeats.map(({ id }) => id);
  const [versions, next] = await Promise.all([listSettingVersions(db, 'repeat', ids), listNextDays(db, ids, today)]);
  return repeats.map((one) => ({ ...one, version: versions.get(one.id) ?? 0, next: next.get(one.id) ?? null }));
}

/** One repeat that has not ended, to be changed. */
export async function readRepeatToChange(work: Work, id: string): Promise<Result<Versioned>> {
  const repeat = await maybeRepeat(work.db, id);
  if (!repeat || repeat.endedAt !== null) return { ok: false, refusal: notFound('repeat') };
  const allowed = await mayRead(work, 'runRepeats', repeat.brandId);
  if (!allowed.ok) return allowed;
  const version = (await listSettingVersions(work.db, 'repeat', [id])).get(id) ?? 0;
  return { ok: true, value: { ...repeat, version } };
}

/** Titles of the dates to plan around of a brand that are still to come. */
export async function readKnownTitles(work: Work, brandId: string): Promise<Result<string[]>> {
  const allowed = await mayRead(work, 'runRepeats', brandId);
  if (!allowed.ok) return allowed;
  const { zone } = await oneBrand(work.db, brandId);
  return { ok: true, value: await listKnownTitles(work.db, brandId, localOf(work.clock.now(), zone).date) };
}
