import type { Refusal } from '@/core/refusal';

/** Why something is not put back. */
export const CHANGED_SINCE: Refusal = { code: 'stale', message: 'It was changed since, so it stays as it is.' };

/** The fields in which two states of a thing differ. */
export const changedFields = <S extends object>(before: S, after: S): (keyof S)[] =>
  (Object.keys(before) as (keyof S)[]).filter((field) => !isSame([field], before, after));

/** Whether two states are the same in some fields. */
export const isSame = <S extends object>(fields: readonly (keyof S)[], one: S, other: S): boolean =>
  fields.every((field) => JSON.stringify(one[field]) === JSON.stringify(other[field]));
