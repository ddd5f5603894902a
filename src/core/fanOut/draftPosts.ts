import {
  VARIANTS,
  type Draft,
  type DraftHelper,
  type DraftOrder,
  type DraftShelf,
  type DraftSource,
  type Variant,
} from '../drafts/draft';
import type { Format, RuleSheet } from '../rulesheets/types';
import type { DealtPost } from './fanOut';

/** Formats that are a caption and little else: these come in variants. */
const IN_VARIANTS: readonly Format[] = ['photo', 'text', 'boardPicture', 'shortVideo'];

/** Formats whose text is the post itself: a length for captions is not meant for it. */
const LONG_TEXTS: readonly Format[] = ['newsletter', 'article', 'thread'];

/** A post to be made with the drafts it may begin with, the first of them unless another is chosen. */
interface DraftedPost extends DealtPost {
  drafts: readonly Draft[];
}

/** What all drafts of one run share. */
type DraftRun = Pick<DraftOrder, 'under' | 'wordsPerMinute' | 'seed'> & { shelf: DraftShelf };

/**
 * Drafts the posts of a row on one channel. The variants of a caption take turns in opening, so that two posts of a row do not begin
 * alike; a variant the piece gives nothing for is left out, and a post without any draft comes without words.
 *
 * @param titlesTaken what other posts of the same channel are called; grows
 */
export function draftPosts(
  helper: DraftHelper,
  source: DraftSource,
  posts: readonly DealtPost[],
  { sheet, format }: { sheet: RuleSheet; format: Format },
  { shelf, under, ...run }: DraftRun,
  titlesTaken: string[],
): DraftedPost[] {
  return posts.map((post) => {
    const order = (variant: Variant | null): DraftOrder => ({
      sheet,
      format,
      variant,
      from: post.from,
      clip: post.clip,
      titlesTaken,
      under: LONG_TEXTS.includes(format) ? null : under,
      ...run,
    });
    const turned = VARIANTS.map((_variant, at) => VARIANTS[(at + 1 + post.number) % VARIANTS.length]!);
    const asked: (Variant | null)[] = IN_VARIANTS.includes(format) ? turned : [null];
    const all = asked.flatMap((variant) => helper(source, shelf, order(variant)) ?? []);
    // The title opens a caption only where nothing of the piece does.
    const opened = all.filter(
      ({ sentences }) => sentences.find(({ field }) => field === 'caption')?.origin !== 'title',
    );
    const drafts = opened.length > 0 ? opened : all.slice(0, 1);
    const title = drafts[0]?.words.headline;
    if (title) titlesTaken.push(title);
    return { ...post, drafts };
  });
}
