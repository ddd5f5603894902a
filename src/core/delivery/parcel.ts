import { allHashtags, composeTexts, type Part, type Words } from '../captions/compose';
import type { Format, RuleSheet } from '../rulesheets/types';
import { AS_IT_IS, type PictureMeasures, type Recipe } from '../media/fit';
import { SENT_WORDS } from '../posts/texts';
import { differingFields, writtenOf } from '../posts/written';
import { partsOf, partsRule } from '../posts/parts';
import type { Parcel, ParcelPicture } from './network';

/** A post as far as its parcel is made from it. */
export interface ParcelSource extends Words {
  format: Format;
  pictures: readonly (PictureMeasures & Pick<ParcelPicture, 'id' | 'sha256' | 'alt' | 'fileName'>)[];
}

/**
 * Copies what would leave now: composed texts, link, hashtags, pictures and parts, and the words they were composed from.
 * The pictures of slides and frames come in the order of their parts.
 */
export function makeParcel(post: ParcelSource, channel: { account: string; sheet: RuleSheet }): Parcel {
  const { sheet } = channel;
  const parts = partsOf(post, sheet);
  const pictures = inOrderOfParts(post.pictures, parts);
  return {
    network: sheet.slug,
    account: channel.account,
    format: post.format,
    texts: composeTexts(post, sheet, post.format),
    link: post.link.trim(),
    hashtags: sheet.hashtagLimit === 0 ? [] : allHashtags(post),
    pictures: pictures.map(
      ({ id, sha256, mime, alt, fileName, bytes, width, height, durationMs, crop, toMime, toBytes, rendered }) => ({
        id,
        sha256,
        mime,
        alt,
        fileName,
        bytes,
        width,
        height,
        durationMs,
        recipe: { crop, toMime, toBytes },
        ...(rendered && { rendered }),
      }),
    ),
    ...(partsRule(sheet, post.format) && {
      parts: parts.map(({ text, pictureId }) => ({
        text,
        picture: pictureId === null ? null : pictures.findIndex(({ id }) => id === pictureId),
      })),
    }),
    words: sentWordsOf(post),
  };
}

function inOrderOfParts<P extends { id?: string }>(pictures: readonly P[], parts: readonly Part[]): P[] {
  const held = parts.flatMap(({ pictureId }) => pictures.filter(({ id }) => id === pictureId));
  return [...held, ...pictures.filter((picture) => !held.includes(picture))];
}

/** What is typed of a post and sent. */
export function sentWordsOf(post: Words): Words {
  const texts = Object.fromEntries(SENT_WORDS.map((name) => [name, post[name] ?? '']));
  return { ...(texts as Record<(typeof SENT_WORDS)[number], string>), parts: post.parts ?? [] };
}

/** A post as far as it is told from a parcel. */
export type Compared = Omit<ParcelSource, 'pictures'> & {
  pictures: readonly (Recipe & Pick<ParcelPicture, 'sha256' | 'alt'> & { id?: string })[];
};

/** Whether a post would leave differently if it were scheduled anew: then what leaves is not what the sheet shows. */
export function differsFromParcel(post: Compared, parcel: Parcel): boolean {
  return (
    differingFields(writtenOf(sentWordsOf(post)), writtenOf(parcel.words)).length > 0 ||
    post.format !== parcel.format ||
    picturesKey(
      inOrderOfParts(post.pictures, post.parts ?? []).map((picture) => ({ ...picture, recipe: recipeOf(picture) })),
    ) !== picturesKey(parcel.pictures)
  );
}

/** A picture of a parcel as the rules see it; one whose size was not kept has the size 0. */
export function measuresOf(picture: ParcelPicture): PictureMeasures & { id?: string } {
  const { id, mime, bytes, width = 0, height = 0, durationMs, recipe = AS_IT_IS, rendered } = picture;
  return { id, mime, bytes, width, height, durationMs, ...recipe, rendered };
}

const recipeOf = ({ crop, toMime, toBytes }: Recipe): Recipe => ({ crop, toMime, toBytes });

const picturesKey = (pictures: readonly Pick<ParcelPicture, 'sha256' | 'alt' | 'recipe'>[]): string =>
  JSON.stringify(
    pictures.map(({ sha256, alt, recipe = AS_IT_IS }) => {
      const { crop, toMime, toBytes } = recipe;
      return [sha256, alt, crop && [crop.x, crop.y, crop.width, crop.height], toMime, toBytes];
    }),
  );
