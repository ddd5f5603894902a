import { composeField } from '../captions/compose';
import { countText } from '../captions/count';
import { oneOf } from '../drafts/chance';
import type { Draft } from '../drafts/draft';
import type { PieceKind } from '../pieces/kinds';
import { fieldRule, type Format, type RuleSheet } from '../rulesheets/types';
import { holdsFor, type Fits } from '../shelf/fits';
import { insertedText, type ShelfItem } from '../shelf/shelf';
import type { LocalDate } from '../time/plan';
import type { FanOutPost } from './ground';

/** What may end a draft: a call to action of the shelf, a testimonial or a link, with for what it holds. */
export interface Call {
  text: string;
  fits: Fits;
  /** It is an address to be followed. */
  isLink?: boolean;
}

/**
 * What of the shelf may end drafts: calls to action, which hold for any post unless they say for what; of quotations and links only those
 * that say for what, since the others are put in by hand.
 */
export const callsOn = (shelf: readonly Pick<ShelfItem, 'kind' | 'title' | 'text' | 'source' | 'fits'>[]): Call[] =>
  shelf.flatMap((item): Call[] => {
    const { kind, title, fits } = item;
    const isChosen = kind === 'callToAction' || ((kind === 'quote' || kind === 'link') && Object.keys(fits).length > 0);
    if (!isChosen) return [];
    const text = insertedText(item);
    return [kind === 'link' ? { text: `${title}: ${text}`, fits, isLink: true } : { text, fits }];
  });

/** Formats whose caption may end with a call. */
const CALLING: readonly Format[] = ['text', 'photo', 'carousel', 'boardPicture', 'shortVideo', 'longVideo'];
/** Of so many posts of a piece, at most one has a call. */
const ONE_OF = 3;

/** What calls depend on beside the posts. */
export interface CallGround {
  kind: PieceKind;
  title: string;
  calls: readonly Call[];
  sheets: ReadonlyMap<string, RuleSheet>;
  /** Units that captions stay under; null for none. */
  under: number | null;
  seed: number;
}

/**
 * Ends at most every third post of a piece, in the order of their dates, with a call to action that holds for it, where it fits; no
 * call where none holds. Words, dates and everything else stay.
 */
export function withCalls<P extends FanOutPost & { date: LocalDate | null }>(
  posts: readonly P[],
  ground: CallGround,
): P[] {
  const inOrder = posts
    .map((post, at) => ({ post, at }))
    .sort((one, other) => (one.post.date ?? '9').localeCompare(other.post.date ?? '9') || one.at - other.at);
  const called = new Map<string, P>();
  let since = 0;
  for (const { post } of inOrder) {
    since++;
    const ended = since < ONE_OF ? null : callFor(post, ground);
    if (!ended) continue;
    called.set(post.key, { ...post, ...ended });
    since = 0;
  }
  return posts.map((post) => called.get(post.key) ?? post);
}

/** The drafts of a post with a call at their end, and which; null where none holds, or it does not fit the first of them. */
function callFor(
  post: FanOutPost & { date: LocalDate | null },
  ground: CallGround,
): Pick<FanOutPost, 'drafts' | 'call'> | null {
  const sheet = ground.sheets.get(post.channelId);
  const [first] = post.drafts;
  if (!sheet || !first || !CALLING.includes(post.format)) return null;
  const words = [ground.title, first.words.headline, first.words.caption].join(' ');
  const holding = ground.calls.filter(
    ({ fits, isLink = false }) =>
      (!isLink || sheet.linksClickable) &&
      holdsFor(fits, { kind: ground.kind, network: sheet.slug, date: post.date, words }),
  );
  const call = oneOf(holding, ground.seed, 'call', post.key);
  if (!call) return null;
  const ended = post.drafts.map((draft) => withCall(draft, call.text, sheet, ground.under) ?? draft);
  return ended[0] === first ? null : { drafts: ended, call: { text: call.text, fits: call.fits } };
}

function withCall(draft: Draft, text: string, sheet: RuleSheet, under: number | null): Draft | null {
  const rule = fieldRule(sheet, 'caption');
  const before = draft.words.caption ?? '';
  if (!rule || before === '') return null;
  const caption = `${before}\n\n${text}`;
  const { hashtags = '', link = '' } = draft.words;
  const count = countText(composeField({ headline: '', caption, hashtags, link }, rule, sheet.hashtagLimit), rule);
  if (count > rule.limit || (under !== null && count > under)) return null;
  return {
    ...draft,
    words: { ...draft.words, caption },
    sentences: [...draft.sentences, { field: 'caption', text, origin: 'shelf' }],
  };
}
