import { accept, refuse, type Result } from '../refusal';
import { FORMATS, NETWORK_KINDS, TEXT_FIELDS, type RuleSheet, type ShapeRange, type TextFieldRule } from './types';

const UNITS = ['grapheme', 'codePoint', 'utf16'];
const PARTS = ['text', 'link', 'hashtags'];
/** Units a text limit may have at most: what Bimlo keeps of a caption. */
const TEXT_LIMIT_MOST = 100_000;
const PICTURES_MOST = 50;
const BYTES_MOST = 100_000_000;
const PARTS_MOST = 100;
const SECONDS_MOST = 86_400;
const VIDEO_BYTES_MOST = 1_000_000_000;
/** Widths to heights of pictures. */
const SHAPE_LEAST = 0.1;
const SHAPE_MOST = 10;
const WIDTH_MOST = 20_000;

const isRange = ({ narrowest, widest }: ShapeRange): boolean =>
  narrowest >= SHAPE_LEAST && widest <= SHAPE_MOST && narrowest <= widest;

const isWhole = (value: unknown, least: number, most: number): value is number =>
  Number.isInteger(value) && (value as number) >= least && (value as number) <= most;

/** Checks a rule sheet that a person made or changed. The refusal names the field. */
export function readRuleSheet(sheet: RuleSheet): Result<RuleSheet> {
  const name = sheet.name.trim();
  if (name === '' || name.length > 60)
    return refuse('badName', 'Give the rule sheet a name of up to 60 letters.', 'name');
  if (!/^[a-z0-9]+(-[a-z0-9]+)*$/.test(sheet.slug) || sheet.slug.length > 60)
    return refuse('badSlug', 'Its short name has lower-case letters, digits and hyphens.', 'slug');
  if (!NETWORK_KINDS.includes(sheet.kind))
    return refuse('badKind', 'Say what kind of network it is: choose one of the list.', 'kind');
  if (!sheet.fields.some((field) => field.name === 'caption'))
    return refuse('noCaption', 'A rule sheet needs a main text.', 'fields');
  for (const field of sheet.fields) {
    const problem = problemOfField(field);
    if (problem) return refuse('badField', `${field.label || 'A text'}: ${problem}`, `fields.${field.name}`);
  }
  if (sheet.hashtagLimit !== null && !isWhole(sheet.hashtagLimit, 0, 1_000))
    return refuse('badHashtags', 'Hashtags: a whole number up to 1,000, or none for no limit.', 'hashtagLimit');
  if (sheet.formats.length === 0) return refuse('noFormat', 'Choose at least one format it takes.', 'formats');
  if (new Set(sheet.formats.map(({ format }) => format)).size < sheet.formats.length)
    return refuse('sameFormat', 'A format stands there twice.', 'formats');
  for (const rule of sheet.formats)
    if (
      !FORMATS.includes(rule.format) ||
      !isWhole(rule.picturesMin, 0, PICTURES_MOST) ||
      !isWhole(rule.picturesMax, rule.picturesMin, PICTURES_MOST)
    )
      return refuse(
        'badPictures',
        `Pictures of a format: from 0 to ${PICTURES_MOST}, the most not below the least.`,
        'formats',
      );
  for (const { shapes, minWidth, parts, video } of sheet.formats) {
    if (parts && !(isWhole(parts.most, 1, PARTS_MOST) && isWhole(parts.limit, 1, TEXT_LIMIT_MOST)))
      return refuse(
        'badParts',
        `Slides, frames and parts: 1 to ${PARTS_MOST}, with a text of 1 to 100,000.`,
        'formats',
      );
    if (
      video &&
      !(
        isWhole(video.secondsMin, 0, video.secondsMax) &&
        isWhole(video.secondsMax, 1, SECONDS_MOST) &&
        isWhole(video.maxBytes, 1, VIDEO_BYTES_MOST)
      )
    )
      return refuse(
        'badVideo',
        'A video runs up to a day, the least not above the most, and has up to 1 GB.',
        'formats',
      );
    if ([shapes, video?.shapes].some((range) => range && !isRange(range)))
      return refuse('badShapes', `Shapes lie between ${SHAPE_LEAST} and ${SHAPE_MOST}, narrow to wide.`, 'formats');
    if (minWidth != null && !isWhole(minWidth, 1, WIDTH_MOST))
      return refuse('badWidth', `The least width is 1 to ${WIDTH_MOST} pixels.`, 'formats');
  }
  if (!isWhole(sheet.pictureMaxBytes, 1, BYTES_MOST))
    return refuse('badBytes', 'The largest picture: up to 100 MB.', 'pictureMaxBytes');
  return accept({ ...sheet, name });
}

function problemOfField(field: TextFieldRule): string | null {
  if (!TEXT_FIELDS.includes(field.name)) return 'there is no such text.';
  if (field.label.trim() === '' || field.label.length > 40) return 'what does the network call it? Up to 40 letters.';
  if (!isWhole(field.limit, 1, TEXT_LIMIT_MOST)) return 'the limit is a whole number from 1 to 100,000.';
  if (!UNITS.includes(field.unit)) return 'counted in what?';
  if (field.wideWeight !== 1 && field.wideWeight !== 2) return 'wide characters count as 1 or 2.';
  if (field.linkLength !== null && !isWhole(field.linkLength, 1, 1_000))
    return 'a link counts as 1 to 1,000, or as its length.';
  if (field.fold?.units != null && !isWhole(field.fold.units, 1, TEXT_LIMIT_MOST)) return 'the fold is a whole number.';
  if (field.fold?.lines != null && !isWhole(field.fold.lines, 1, 1_000)) return 'the fold has a whole number of lines.';
  if (field.parts.length === 0 || !field.parts.every((part) => PARTS.includes(part))) return 'composed of what?';
  return null;
}
