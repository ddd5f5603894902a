import type { Part } from '../captions/compose';
import { countText } from '../captions/count';
import { fieldRule, formatRule, type Format, type PartsRule, type RuleSheet } from '../rulesheets/types';

/** A post as far as its parts go. */
interface PartsSource {
  format: Format;
  parts?: readonly Part[];
  pictures: readonly { id?: string }[];
}

/** The rule for the parts of a format; null where it has none. */
export const partsRule = (sheet: RuleSheet, format: Format): PartsRule | null =>
  formatRule(sheet, format)?.parts ?? null;

/**
 * The parts of a post as they stand: the ones that were written, in their order, each without a picture that was taken
 * away; and, where a part is its picture, a part for each picture that none holds, named as the picture is. Empty for a
 * format without parts.
 */
export function partsOf({ format, parts = [], pictures }: PartsSource, sheet: RuleSheet): Part[] {
  const rule = partsRule(sheet, format);
  if (!rule) return [];
  const kept = partsWith(parts, pictures);
  if (rule.needs !== 'picture') return kept;
  return [...kept, ...loosePictures(kept, pictures).map((id) => ({ id, text: '', pictureId: id }))];
}

/** The pictures that no part holds: those of a thread belong to its first part. */
export function loosePictures(parts: readonly Part[], pictures: readonly { id?: string }[]): string[] {
  const held = new Set(parts.map(({ pictureId }) => pictureId));
  return pictures.flatMap(({ id }) => (id === undefined || held.has(id) ? [] : [id]));
}

/** Parts as they can stand beside the pictures a post has now: without those that were taken away. */
export function partsWith(parts: readonly Part[], pictures: readonly { id?: string }[]): Part[] {
  const present = new Set(pictures.map(({ id }) => id));
  return parts.map((part) =>
    part.pictureId !== null && !present.has(part.pictureId) ? { ...part, pictureId: null } : part,
  );
}

/** A part moved to another place among its siblings; places count from 0. */
export function movePart(parts: readonly Part[], id: string, to: number): Part[] {
  const part = parts.find((candidate) => candidate.id === id);
  if (!part) return [...parts];
  const others = parts.filter((candidate) => candidate !== part);
  return others.toSpliced(Math.max(0, Math.min(others.length, to)), 0, part);
}

/** Units of a part's text, counted as the captions of that network are, or by graphemes where it has none. */
export const countPart = (text: string, sheet: RuleSheet): number =>
  countText(text, fieldRule(sheet, 'caption') ?? { unit: 'grapheme', wideWeight: 1, linkLength: null });

/** A part by its name and number: “slide 3”. The first part of a thread is its caption, so those that follow begin at 2. */
export const partName = (rule: PartsRule, index: number): string => `${rule.label} ${index + 1 + captionIsPart(rule)}`;

/** 1 where the caption itself is the first part. */
export const captionIsPart = (rule: PartsRule): 0 | 1 => (rule.needs === 'text' ? 1 : 0);

/** What was wrong with a part: its place among the parts, and what the network would say. */
export interface PartFault {
  index: number;
  code: 'noPicture' | 'noText' | 'tooLong';
  has: number;
}

/** What the network would refuse of each part. */
export function partFaults(parts: readonly Part[], rule: PartsRule, sheet: RuleSheet): PartFault[] {
  return parts.flatMap(({ text, pictureId }, index) => {
    const has = countPart(text, sheet);
    const faults: PartFault[] = [];
    if (rule.needs === 'picture' && pictureId === null) faults.push({ index, code: 'noPicture', has: 0 });
    if (rule.needs === 'text' && text.trim() === '') faults.push({ index, code: 'noText', has: 0 });
    if (has > rule.limit) faults.push({ index, code: 'tooLong', has });
    return faults;
  });
}
