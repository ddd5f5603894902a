import { mixed } from 'yup';
import type { Part } from '@/core/captions/compose';

const UUID = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;
const isUuid = (value: unknown): boolean => typeof value === 'string' && UUID.test(value);

const isPart = (value: unknown): value is Part => {
  if (typeof value !== 'object' || value === null) return false;
  const { id, text, pictureId } = value as Record<string, unknown>;
  return (
    Object.keys(value).length === 3 &&
    isUuid(id) &&
    typeof text === 'string' &&
    (pictureId === null || isUuid(pictureId))
  );
};

/** All parts of a post, in their order; absent to leave them. */
export const parts = mixed<Part[]>()
  .test(
    'parts',
    'Parts have an identifier, a text, and a picture or none.',
    (value) => value === undefined || (Array.isArray(value) && value.every(isPart)),
  )
  .optional();

/** Texts of single parts by their id; absent to leave them. */
export const partTexts = mixed<Record<string, string>>()
  .test(
    'texts',
    'The texts of parts have to be texts by their identifiers.',
    (value) =>
      value === undefined ||
      (typeof value === 'object' && value !== null && Object.values(value).every((text) => typeof text === 'string')),
  )
  .optional();
