import { allHashtags, composeField, type Words } from '../captions/compose';
import { countText, surelyFits } from '../captions/count';
import { outBytes, outMime, shapeFaults, type PictureMeasures } from '../media/fit';
import { FORMAT_LABELS, formatRule, type Format, type RuleSheet, type ShapeRange } from '../rulesheets/types';

/** Something the network would refuse. Nobody can override it. */
export interface Block {
  code:
    | 'noText'
    | 'tooLong'
    | 'tooManyHashtags'
    | 'badLink'
    | 'format'
    | 'noPicture'
    | 'tooManyPictures'
    | 'pictureType'
    | 'pictureShape'
    | 'pictureSmall'
    | 'pictureSize';
  /** The field of the sheet it leads to. */
  field: 'headline' | 'caption' | 'hashtags' | 'link' | 'format' | 'pictures';
  /** Two or three words for a slip: “no picture”. */
  short: string;
  /** A sentence: “Pithline takes 320, this has 331.” */
  message: string;
}

/** A picture as far as the rules ask about it. */
export type PictureFacts = PictureMeasures;

/** A post as far as the rules ask about it. */
export interface PostContent extends Words {
  format: Format;
  pictures: readonly PictureFacts[];
}

const number = new Intl.NumberFormat('en-GB');
const megabytes = (bytes: number): string => `${number.format(Math.round(bytes / 100_000) / 10)} MB`;

/** What stands between a post and its departure on a network with these rules; empty when it is fit to go. */
export function blocksOf(post: PostContent, sheet: RuleSheet): Block[] {
  return [...textBlocks(post, sheet), ...pictureBlocks(post, sheet)];
}

function textBlocks(post: PostContent, sheet: RuleSheet): Block[] {
  const blocks: Block[] = [];
  for (const rule of sheet.fields) {
    const { name, label, limit, required } = rule;
    const text = composeField(post, rule, sheet.hashtagLimit);
    const count = surelyFits(text, rule) ? 0 : countText(text, rule);
    const typed = name === 'headline' ? post.headline : post.caption;
    const called = label.toLowerCase();
    if (required && typed.trim() === '')
      blocks.push({ code: 'noText', field: name, short: `no ${called}`, message: `${sheet.name} needs a ${called}.` });
    if (count > limit)
      blocks.push({
        code: 'tooLong',
        field: name,
        short: `${called} too long`,
        message: `${label}: ${sheet.name} takes ${number.format(limit)}, this has ${number.format(count)}.`,
      });
  }
  const tags = allHashtags(post).length;
  if (sheet.hashtagLimit !== null && sheet.hashtagLimit > 0 && tags > sheet.hashtagLimit)
    blocks.push({
      code: 'tooManyHashtags',
      field: 'hashtags',
      short: 'too many hashtags',
      message: `Hashtags: ${sheet.name} takes ${sheet.hashtagLimit}, this has ${tags}.`,
    });
  if (post.link.trim() !== '' && !isWebLink(post.link))
    blocks.push({
      code: 'badLink',
      field: 'link',
      short: 'link broken',
      message: 'The link must begin with http:// or https:// and name a host.',
    });
  return blocks;
}

function pictureBlocks(post: PostContent, sheet: RuleSheet): Block[] {
  const rule = formatRule(sheet, post.format);
  if (!rule)
    return [
      {
        code: 'format',
        field: 'format',
        short: 'wrong format',
        message: `${sheet.name} takes no ${FORMAT_LABELS[post.format]}. It takes ${sheet.formats.map((taken) => FORMAT_LABELS[taken.format]).join(', ')}.`,
      },
    ];
  const blocks: Block[] = [];
  const has = post.pictures.length;
  if (has < rule.picturesMin)
    blocks.push({
      code: 'noPicture',
      field: 'pictures',
      short: has === 0 ? 'no picture' : 'too few pictures',
      message: `A ${FORMAT_LABELS[post.format]} on ${sheet.name} needs ${rule.picturesMin === 1 ? 'a picture' : `${rule.picturesMin} pictures`}, this has ${has === 0 ? 'none' : has}.`,
    });
  if (has > rule.picturesMax)
    blocks.push({
      code: 'tooManyPictures',
      field: 'pictures',
      short: 'too many pictures',
      message: `A ${FORMAT_LABELS[post.format]} on ${sheet.name} takes ${rule.picturesMax === 0 ? 'no picture' : rule.picturesMax}, this has ${has}.`,
    });
  const faults = post.pictures.flatMap((picture) => shapeFaults(picture, rule));
  if (rule.shapes && faults.some(({ kind }) => kind === 'shape'))
    blocks.push({
      code: 'pictureShape',
      field: 'pictures',
      short: 'picture shape',
      message: `A ${FORMAT_LABELS[post.format]} on ${sheet.name} takes pictures of ${shapeWords(rule.shapes)}. Crop it.`,
    });
  const small = faults.find((fault) => fault.kind === 'small');
  if (small)
    blocks.push({
      code: 'pictureSmall',
      field: 'pictures',
      short: 'picture too small',
      message: `A ${FORMAT_LABELS[post.format]} on ${sheet.name} needs pictures ${number.format(small.needs)} pixels wide, this has ${number.format(small.has)}.`,
    });
  const wrongType = post.pictures.find((picture) => !sheet.pictureTypes.includes(outMime(picture)));
  if (wrongType)
    blocks.push({
      code: 'pictureType',
      field: 'pictures',
      short: 'picture type',
      message: `${sheet.name} takes no ${typeName(outMime(wrongType))}. It takes ${sheet.pictureTypes.map(typeName).join(', ')}.`,
    });
  const heaviest = Math.max(0, ...post.pictures.map(outBytes));
  if (heaviest > sheet.pictureMaxBytes)
    blocks.push({
      code: 'pictureSize',
      field: 'pictures',
      short: 'picture too big',
      message: `${sheet.name} takes pictures of ${megabytes(sheet.pictureMaxBytes)} at most, this one has ${megabytes(heaviest)}.`,
    });
  return blocks;
}

/** A range of shapes in words: “3:4 to 8:5”. */
export const shapeWords = ({ narrowest, widest }: ShapeRange): string =>
  `${ratioWords(narrowest)} to ${ratioWords(widest)} (width to height)`;

/** A shape as a ratio of small whole numbers: the first within a hundredth of it. */
function ratioWords(shape: number): string {
  for (let height = 1; height <= 20; height++) {
    const width = Math.round(shape * height);
    if (width > 0 && Math.abs(width / height - shape) < shape / 100) return `${width}:${height}`;
  }
  return shape.toFixed(2);
}

const typeName = (mime: string): string => mime.replace('image/', '').toUpperCase();

/** Whether a text is one whole web address. */
export function isWebLink(text: string): boolean {
  const trimmed = text.trim();
  if (!/^https?:\/\//i.test(trimmed) || /\s/.test(trimmed)) return false;
  return URL.canParse(trimmed);
}
