import { allHashtags, composeTexts, type Words } from '../captions/compose';
import type { Format, RuleSheet } from '../rulesheets/types';
import { AS_IT_IS, type PictureMeasures, type Recipe } from '../media/fit';
import type { Parcel, ParcelPicture } from './network';

/** A post as far as its parcel is made from it. */
export interface ParcelSource extends Words {
  format: Format;
  pictures: readonly (PictureMeasures & Pick<ParcelPicture, 'sha256' | 'alt' | 'fileName'>)[];
}

/** Copies what would leave now: composed texts, link, hashtags and pictures, and the words they were composed from. */
export function makeParcel(post: ParcelSource, channel: { account: string; sheet: RuleSheet }): Parcel {
  const { headline, caption, hashtags, link } = post;
  return {
    network: channel.sheet.slug,
    account: channel.account,
    format: post.format,
    texts: composeTexts(post, channel.sheet),
    link: link.trim(),
    hashtags: channel.sheet.hashtagLimit === 0 ? [] : allHashtags(post),
    pictures: post.pictures.map(({ sha256, mime, alt, fileName, bytes, width, height, crop, toMime, toBytes }) => ({
      sha256,
      mime,
      alt,
      fileName,
      bytes,
      width,
      height,
      recipe: { crop, toMime, toBytes },
    })),
    words: { headline, caption, hashtags, link },
  };
}

/** Whether a post would leave differently if it were scheduled anew: then what leaves is not what the sheet shows. */
export function differsFromParcel(post: ParcelSource, parcel: Parcel): boolean {
  const { words } = parcel;
  return (
    post.headline !== words.headline ||
    post.caption !== words.caption ||
    post.hashtags !== words.hashtags ||
    post.link !== words.link ||
    post.format !== parcel.format ||
    picturesKey(post.pictures.map((picture) => ({ ...picture, recipe: recipeOf(picture) }))) !==
      picturesKey(parcel.pictures)
  );
}

/** A picture of a parcel as the rules see it; one whose size was not kept has the size 0. */
export function measuresOf({ mime, bytes, width = 0, height = 0, recipe = AS_IT_IS }: ParcelPicture): PictureMeasures {
  return { mime, bytes, width, height, ...recipe };
}

const recipeOf = ({ crop, toMime, toBytes }: Recipe): Recipe => ({ crop, toMime, toBytes });

const picturesKey = (pictures: readonly Pick<ParcelPicture, 'sha256' | 'alt' | 'recipe'>[]): string =>
  JSON.stringify(
    pictures.map(({ sha256, alt, recipe = AS_IT_IS }) => {
      const { crop, toMime, toBytes } = recipe;
      return [sha256, alt, crop && [crop.x, crop.y, crop.width, crop.height], toMime, toBytes];
    }),
  );
