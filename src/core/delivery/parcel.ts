import { allHashtags, composeTexts, type Words } from '../captions/compose';
import type { Format, RuleSheet } from '../rulesheets/types';
import type { Parcel, ParcelPicture } from './network';

/** A post as far as its parcel is made from it. */
export interface ParcelSource extends Words {
  format: Format;
  pictures: readonly ParcelPicture[];
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
    pictures: post.pictures.map(({ sha256, mime, alt, fileName, bytes }) => ({ sha256, mime, alt, fileName, bytes })),
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
    picturesKey(post.pictures) !== picturesKey(parcel.pictures)
  );
}

const picturesKey = (pictures: readonly ParcelPicture[]): string =>
  JSON.stringify(pictures.map((picture) => [picture.sha256, picture.alt]));
