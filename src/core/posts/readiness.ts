import {
  allHashtags,
  composeField,
  surelyFewHashtags,
  surelyFitsComposed,
  typedText,
  type Words,
} from '../captions/compose';
import { unreadHashtags } from '../captions/hashtags';
import { countText } from '../captions/count';
import { lengthWords } from '../captions/spoken';
import { isVideo, videoFaults } from '../media/video';
import { outBytes, outMime, shapeFaults, type PictureMeasures } from '../media/fit';
import {
  FORMAT_LABELS,
  fieldsOf,
  formatRule,
  type Format,
  type FormatRule,
  type RuleSheet,
  type ShapeRange,
  type TextFieldName,
  type VideoRule,
} from '../rulesheets/types';
import { capital, withArticle } from '../words';
import { captionIsPart, partFaults, partName, partsOf, type PartFault } from './parts';

/** Something the network would refuse. Nobody can override it. */
export interface Block {
  code:
    | 'noText'
    | 'tooLong'
    | 'tooManyHashtags'
    | 'badHashtag'
    | 'badLink'
    | 'tooManyParts'
    | 'partNoPicture'
    | 'partNoText'
    | 'partTooLong'
    | 'format'
    | 'noPicture'
    | 'tooManyPictures'
    | 'pictureType'
    | 'pictureShape'
    | 'pictureSmall'
    | 'pictureSize'
    | 'noVideo'
    | 'tooManyVideos'
    | 'videoLength'
    | 'videoShape'
    | 'videoSize';
  /** The field of the sheet it leads to. */
  field: TextFieldName | 'hashtags' | 'link' | 'format' | 'pictures' | 'parts';
  /** Two or three words for a slip: “no picture”. */
  short: string;
  /** A sentence: “Pithline takes 320, this has 331.” */
  message: string;
}

/** A picture as far as the rules ask about it. */
export type PictureFacts = PictureMeasures & { id?: string };

/** A post as far as the rules ask about it. */
export interface PostContent extends Words {
  format: Format;
  pictures: readonly PictureFacts[];
}

const number = new Intl.NumberFormat('en-GB');
const clip = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
const megabytes = (bytes: number): string => `${number.format(Math.round(bytes / 100_000) / 10)} MB`;

/** What stands between a post and its departure on a network with these rules; empty when it is fit to go. */
export const blocksOf = (post: PostContent, sheet: RuleSheet): Block[] => [...eachBlock(post, sheet)];

/** The first of what stands between a post and its departure, without looking for the others: slips show no more. */
export const firstBlockOf = (post: PostContent, sheet: RuleSheet): Block | undefined =>
  eachBlock(post, sheet).next().value;

function* eachBlock(post: PostContent, sheet: RuleSheet): Generator<Block, undefined> {
  yield* textBlocks(post, sheet);
  yield* partBlocks(post, sheet);
  yield* mediaBlocksOf(post, sheet);
}

function* textBlocks(post: PostContent, sheet: RuleSheet): Generator<Block> {
  for (const rule of fieldsOf(sheet, post.format)) {
    const { name, label, limit, required } = rule;
    const called = label.toLowerCase();
    if (required && typedText(post, name).trim() === '')
      yield {
        code: 'noText',
        field: name,
        short: `no ${called}`,
        message: `${sheet.name} needs ${withArticle(called)}.`,
      };
    const count = surelyFitsComposed(post, rule) ? 0 : countText(composeField(post, rule, sheet.hashtagLimit), rule);
    if (count > limit)
      yield {
        code: 'tooLong',
        field: name,
        short: `${called} too long`,
        message: `${label}: ${sheet.name} takes ${number.format(limit)}, this has ${number.format(count)}.`,
      };
  }
  const { hashtagLimit } = sheet;
  if (hashtagLimit && !surelyFewHashtags(post, hashtagLimit)) {
    const tags = allHashtags(post).length;
    if (tags > hashtagLimit)
      yield {
        code: 'tooManyHashtags',
        field: 'hashtags',
        short: 'too many hashtags',
        message: `Hashtags: ${sheet.name} takes ${hashtagLimit}, this has ${tags}.`,
      };
  }
  const [unread, ...others] = hashtagLimit === 0 ? [] : unreadHashtags(post.hashtags);
  if (unread !== undefined)
    yield {
      code: 'badHashtag',
      field: 'hashtags',
      short: 'hashtag broken',
      message: `“${clip(unread)}”${others.length > 0 ? ` and ${others.length} more` : ''} cannot be a hashtag: letters, digits and _ only, and not digits alone.`,
    };
  if (post.link.trim() !== '' && !isWebLink(post.link))
    yield {
      code: 'badLink',
      field: 'link',
      short: 'link broken',
      message: 'The link must begin with http:// or https:// and name a host.',
    };
}

function partBlocks(post: PostContent, sheet: RuleSheet): Block[] {
  const rule = formatRule(sheet, post.format)?.parts;
  if (!rule) return [];
  const parts = partsOf(post, sheet);
  const blocks: Block[] = [];
  const has = parts.length + captionIsPart(rule);
  if (has > rule.most)
    blocks.push({
      code: 'tooManyParts',
      field: 'parts',
      short: `too many ${rule.label}s`,
      message: `${capital(withArticle(FORMAT_LABELS[post.format]))} on ${sheet.name} takes ${rule.most} ${rule.label}s, this has ${has}.`,
    });
  const said = new Set<string>();
  for (const fault of partFaults(parts, rule, sheet)) {
    if (said.has(fault.code)) continue;
    said.add(fault.code);
    const name = partName(rule, fault.index);
    blocks.push({ field: 'parts', ...PART_BLOCKS[fault.code](name, fault, rule.limit, sheet.name) });
  }
  return blocks;
}

const PART_BLOCKS: Record<
  PartFault['code'],
  (name: string, fault: PartFault, limit: number, network: string) => Omit<Block, 'field'>
> = {
  noPicture: (name) => ({
    code: 'partNoPicture',
    short: `${name}: no picture`,
    message: `${capital(name)} has no picture.`,
  }),
  noText: (name) => ({ code: 'partNoText', short: `${name} is empty`, message: `${capital(name)} says nothing.` }),
  tooLong: (name, { has }, limit, network) => ({
    code: 'partTooLong',
    short: `${name} too long`,
    message: `${capital(name)}: ${network} takes ${number.format(limit)}, this has ${number.format(has)}.`,
  }),
};

/** What a network would refuse of the pictures and videos of a post. */
export function mediaBlocksOf(post: Pick<PostContent, 'format' | 'pictures'>, sheet: RuleSheet): Block[] {
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
  return [
    ...videoBlocks(post.pictures.filter(isVideo), post.format, rule.video ?? null, sheet),
    ...pictureBlocks({ ...post, pictures: post.pictures.filter((picture) => !isVideo(picture)) }, rule, sheet),
  ];
}

function videoBlocks(
  videos: readonly PictureFacts[],
  format: Format,
  rule: VideoRule | null,
  sheet: RuleSheet,
): Block[] {
  const on = `${capital(withArticle(FORMAT_LABELS[format]))} on ${sheet.name}`;
  const block = (code: Block['code'], short: string, message: string): Block => ({
    code,
    field: 'pictures',
    short,
    message,
  });
  if (!rule)
    return videos.length > 0 ? [block('tooManyVideos', 'video not taken', `${on} takes no video. Remove it.`)] : [];
  if (videos.length === 0) return [block('noVideo', 'no video', `${on} needs a video, this has none.`)];
  if (videos.length > 1)
    return [block('tooManyVideos', 'two videos', `${on} takes one video, this has ${videos.length}.`)];
  return videoFaults(videos[0]!, rule).map((fault) => {
    switch (fault.kind) {
      case 'short':
      case 'long':
        return block(
          'videoLength',
          `video too ${fault.kind}`,
          `${on} runs ${lengthWords(rule.secondsMin)} to ${lengthWords(rule.secondsMax)}, this runs ${lengthWords(fault.hasSeconds)}.`,
        );
      case 'shape':
        return block('videoShape', 'video shape', `${on} takes videos of ${shapeWords(rule.shapes!)}.`);
      case 'big':
        return block(
          'videoSize',
          'video too big',
          `${on} takes videos of ${megabytes(rule.maxBytes)} at most, this one has ${megabytes(fault.hasBytes)}.`,
        );
    }
  });
}

function pictureBlocks(post: Pick<PostContent, 'format' | 'pictures'>, rule: FormatRule, sheet: RuleSheet): Block[] {
  const blocks: Block[] = [];
  const has = post.pictures.length;
  if (has < rule.picturesMin)
    blocks.push({
      code: 'noPicture',
      field: 'pictures',
      short: has === 0 ? 'no picture' : 'too few pictures',
      message: `${capital(withArticle(FORMAT_LABELS[post.format]))} on ${sheet.name} needs ${rule.picturesMin === 1 ? 'a picture' : `${rule.picturesMin} pictures`}, this has ${has === 0 ? 'none' : has}.`,
    });
  if (has > rule.picturesMax)
    blocks.push({
      code: 'tooManyPictures',
      field: 'pictures',
      short: 'too many pictures',
      message: `${capital(withArticle(FORMAT_LABELS[post.format]))} on ${sheet.name} takes ${rule.picturesMax === 0 ? 'no picture' : rule.picturesMax}, this has ${has}.`,
    });
  const faults = post.pictures.flatMap((picture) => shapeFaults(picture, rule));
  if (rule.shapes && faults.some(({ kind }) => kind === 'shape'))
    blocks.push({
      code: 'pictureShape',
      field: 'pictures',
      short: 'picture shape',
      message: `${capital(withArticle(FORMAT_LABELS[post.format]))} on ${sheet.name} takes pictures of ${shapeWords(rule.shapes)}. Crop it.`,
    });
  const small = faults.find((fault) => fault.kind === 'small');
  if (small)
    blocks.push({
      code: 'pictureSmall',
      field: 'pictures',
      short: 'picture too small',
      message: `${capital(withArticle(FORMAT_LABELS[post.format]))} on ${sheet.name} needs pictures ${number.format(small.needs)} pixels wide, this has ${number.format(small.has)}.`,
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
