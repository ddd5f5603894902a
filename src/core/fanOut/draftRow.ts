import {
  VARIANTS,
  type Draft,
  type DraftHelper,
  type DraftOrder,
  type DraftShelf,
  type DraftSource,
} from '../drafts/draft';
import { MESSAGE } from '../drafts/formats/caption';
import type { Clip } from '../clips/clips';
import { overlaps, type Extract } from '../extracts/extracts';
import type { Format, RuleSheet } from '../rulesheets/types';
import { FORMAT_LABELS } from '../rulesheets/types';
import type { DealtPost, FanOutRow } from './fanOut';

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

/** What the posts of one run have used up, which grows as they are drafted. */
export class Spent {
  private readonly dealt = new Map<number, number>();
  /** The channels on which words are said already. */
  private readonly words = new Map<string, Set<string>>();
  private readonly titles = new Map<string, string[]>();
  /** The sentences that posts open with, or say of the whole piece, and those that posts of the whole piece open with. */
  private readonly opened = new Set<string>();
  private readonly openedWhole = new Set<string>();
  private readonly stretches: Map<string, { start: number; end: number }[]>;

  /** @param used stretches of the piece that a channel had already */
  constructor(used: Readonly<Record<string, readonly { start: number; end: number }[]>> = {}) {
    this.stretches = new Map(
      Object.entries(used).map(([id, own]) => [id, own.map(({ start, end }) => ({ start, end }))]),
    );
  }

  titlesOn = (channelId: string): readonly string[] => this.titles.get(channelId) ?? [];
  openings = (): readonly string[] => [...this.opened];
  /** How often a stretch was dealt to any channel, or is what a post of the whole piece opens with. */
  timesOf = (stretch: { start: number; text?: string }): number =>
    (this.dealt.get(stretch.start) ?? 0) + (this.opens(stretch.text ?? '') ? 1 : 0);
  private opens = (text: string): boolean => [...this.openedWhole].some((one) => text.startsWith(one));
  isFreeOn = (channelId: string, one: { start: number; end: number }): boolean =>
    !(this.stretches.get(channelId) ?? []).some((span) => overlaps(span, one));
  /** Whether nobody says it yet; of a message, whether its channel does not: that is for all of them. */
  saysNew(draft: Draft, channelId: string, isMessage: boolean): boolean {
    const channels = this.words.get(wordsOf(draft));
    return channels === undefined || (isMessage && !channels.has(channelId));
  }

  take(channelId: string, { from, clip }: Pick<DealtPost, 'from' | 'clip'>, drafts: readonly Draft[]): void {
    const stretch = clip ?? from[0];
    if (stretch) {
      this.dealt.set(stretch.start, (this.dealt.get(stretch.start) ?? 0) + 1);
      this.stretches.set(channelId, [...(this.stretches.get(channelId) ?? []), stretch]);
    }
    for (const draft of drafts) {
      const words = wordsOf(draft);
      this.words.set(words, (this.words.get(words) ?? new Set()).add(channelId));
    }
    const said = drafts[0]?.sentences.filter(({ field }) => field === 'caption').map(({ text }) => text) ?? [];
    for (const text of stretch ? said.slice(0, 1) : said) this.opened.add(text);
    if (!stretch && said[0] !== undefined) this.openedWhole.add(said[0]);
    const title = drafts[0]?.words.headline;
    if (title) this.titles.set(channelId, [...this.titlesOn(channelId), title]);
  }
}

/** What readers of a post read of it, without its title, hashtags and link: by this two are the same. */
const wordsOf = ({ words, parts }: Draft): string => [words.caption ?? '', ...parts].join('\n');

/** The channel a row is drafted for. */
interface RowChannel {
  id: string;
  sheet: RuleSheet;
}

/**
 * Deals extracts and clips to the posts of one row on one channel, and drafts them: the best of the kinds the row asks for that the
 * channel has not had, those first that no channel has. What gives no draft, or only one that says what another post says, is passed
 * over, so a row makes fewer than it asks for where there is no more. Of a piece without times, what asks for clips takes extracts.
 *
 * @param allowsNone a post without any draft is made too: the piece has no text yet
 */
export function draftRow(
  helper: DraftHelper,
  source: DraftSource,
  { row, at, clips }: { row: FanOutRow; at: number; clips: readonly Clip[] },
  channel: RowChannel,
  run: DraftRun,
  spent: Spent,
  allowsNone = false,
): DraftedPost[] {
  const posts: DraftedPost[] = [];
  const isMessage =
    row.source.of === 'whole' && source.pictureLines === undefined && source.analysis.sentences.length <= MESSAGE;
  const passed = new Set<Extract | Clip>();
  while (posts.length < row.count) {
    const candidate = row.source.of === 'whole' ? null : nextOf(row, source.extracts, clips, channel.id, spent, passed);
    if (candidate === undefined) break;
    const from = candidate !== null && 'kind' in candidate ? [candidate] : [];
    const post: DealtPost = {
      ...{ row: at, number: posts.length, from },
      clip: candidate !== null && !('kind' in candidate) ? candidate : null,
    };
    const drafts = draftsOf(helper, source, post, row.format, channel, run, spent).filter((draft) =>
      spent.saysNew(draft, channel.id, isMessage),
    );
    if (drafts.length > 0 || allowsNone) {
      spent.take(channel.id, post, drafts);
      posts.push({ ...post, drafts });
    } else if (candidate === null) break;
    if (candidate !== null) passed.add(candidate);
  }
  return posts;
}

/** What is dealt next; undefined where nothing is left. */
function nextOf(
  { source }: FanOutRow,
  extracts: readonly Extract[],
  clips: readonly Clip[],
  channelId: string,
  spent: Spent,
  passed: ReadonlySet<Extract | Clip>,
): Extract | Clip | undefined {
  const kinds = source.of === 'extracts' ? source.kinds : [];
  const able: readonly (Extract | Clip)[] =
    source.of === 'clips' && clips.length > 0
      ? clips
      : extracts.filter(({ kind }) => kinds.length === 0 || kinds.includes(kind));
  return able
    .filter((one) => !passed.has(one) && spent.isFreeOn(channelId, one))
    .reduce<Extract | Clip | undefined>(
      (one, other) => (!one || spent.timesOf(other) < spent.timesOf(one) ? other : one),
      undefined,
    );
}

/** The drafts of a post: as it opens of itself, then in the ways the piece gives something for, no two with the same first line. */
function draftsOf(
  helper: DraftHelper,
  source: DraftSource,
  { from, clip }: DealtPost,
  format: Format,
  { id, sheet }: RowChannel,
  { shelf, under, ...run }: DraftRun,
  spent: Spent,
): Draft[] {
  const order = (variant: DraftOrder['variant']): DraftOrder => ({
    ...{ sheet, format, variant, from, clip, titlesTaken: spent.titlesOn(id), openingsTaken: spent.openings() },
    ...{ under: LONG_TEXTS.includes(format) ? null : under, ...run },
  });
  if (!IN_VARIANTS.includes(format)) return [helper(source, shelf, order(null))].flatMap((draft) => draft ?? []);
  const firsts = new Set<string>();
  const all = VARIANTS.flatMap((variant) => helper(source, shelf, order(variant)) ?? []);
  // What the team had written comes first, else as it opens of itself: the extract before anything else.
  const [own] = from;
  const isFirst = (draft: Draft) =>
    draft.sentences.some(({ origin }) => origin === 'service') ||
    (own !== undefined && firstLine(draft).includes(own.text.slice(1, 20)));
  return [...all.filter(isFirst), ...all.filter((draft) => !isFirst(draft))].filter((draft) => {
    const first = firstLine(draft);
    if (firsts.has(first)) return false;
    firsts.add(first);
    return true;
  });
}

const firstLine = ({ words }: Draft): string => words.caption?.split('\n')[0] ?? '';

/** Why a row makes fewer posts than it asks for; empty where it makes all. */
export function whyFewer({ format, count, source }: FanOutRow, made: number): string {
  if (made >= count) return '';
  if (made === 0 && source.of === 'whole') return `no ${FORMAT_LABELS[format]} is made: ${LACKS[format] ?? LACKS_ANY}`;
  return `${made === 0 ? 'nothing' : `only ${made}`} left in the piece for ${count} that stands alone and fits`;
}

const LACKS_ANY = 'nothing in the piece stands alone and fits';
const LACKS: Partial<Record<Format, string>> = {
  thread: 'no stretch of the piece makes one point in 3 to 8 parts',
  carousel: 'the piece has no list, section or argument of four points that fit on slides',
  article: 'the piece is too short, or its sentences are not marked',
  live: 'the piece has no sections and asks nothing',
};
