import { blend, contrast } from '../brands/colours';
import type { ExtractKind } from '../extracts/extracts';
import { accept, refuse, type Result } from '../refusal';
import type { FormatRule } from '../rulesheets/types';

/** How the words of a card are set. */
export const CARD_LAYOUTS = ['ruled', 'plate', 'margin'] as const;
export type CardLayout = (typeof CARD_LAYOUTS)[number];

/** What people read for each. */
export const LAYOUT_LABELS: Record<CardLayout, string> = {
  ruled: 'between rules',
  plate: 'on a plate',
  margin: 'beside a band',
};

/** What is on a card. */
export const CARD_KINDS = ['quote', 'number', 'point'] as const;
export type CardKind = (typeof CARD_KINDS)[number];

/** Where a card takes its words from anew when they change: the post's title, or the first line of its caption. */
export const CARD_SOURCES = ['headline', 'firstLine'] as const;
export type CardSource = (typeof CARD_SOURCES)[number];

/** The colours of a card. */
export interface CardColours {
  ground: string;
  /** Of the words: at least 4.5 to 1 on the ground. */
  ink: string;
  accent: string;
}

/** Pixels of a card. */
interface CardSize {
  width: number;
  height: number;
}

/** Words set as a picture. */
export interface Card extends CardColours, CardSize {
  layout: CardLayout;
  kind: CardKind;
  text: string;
  /** Whose words they are, or what they are from; empty for nothing. */
  by: string;
  /** Content hash of the picture of the library that lies beneath; null for plain colour. */
  picture: string | null;
  /** Null for words of its own. */
  follows: CardSource | null;
}

/** Letters of a card and of the line that says whose words they are, at most. */
export const CARD_LIMITS = { text: 400, by: 80, side: 4_000 } as const;

const [PAPER, DARK_INK, WHITE] = ['#FAF7F0', '#20252B', '#FFFFFF'] as const;
/** Colours of a brand that has none. */
const USUAL = ['#134E5E', '#7A5600'];
/** Least contrast of words, and of what is drawn, to the ground (WCAG 2.2, 1.4.3 and 1.4.11). */
export const LEAST = { words: 4.5, drawn: 3 } as const;

/** The colours that cards of a brand come in: each of its own as the ground, then its darkest on paper. */
export function cardColours(ofBrand: readonly string[]): CardColours[] {
  const colours = ofBrand.length > 0 ? ofBrand : USUAL;
  const inkOn = (ground: string) => (contrast(WHITE, ground) >= contrast(DARK_INK, ground) ? WHITE : DARK_INK);
  const accentOn = (ground: string, ink: string) =>
    colours
      .filter((colour) => colour !== ground && contrast(colour, ground) >= LEAST.drawn)
      .sort((one, other) => contrast(other, ground) - contrast(one, ground))[0] ?? ink;
  const grounds = colours
    .map((ground) => ({ ground, ink: inkOn(ground) }))
    .filter(({ ground, ink }) => contrast(ink, ground) >= LEAST.words);
  const darkest = [...colours].sort((one, other) => contrast(other, PAPER) - contrast(one, PAPER))[0]!;
  const ink = contrast(darkest, PAPER) >= LEAST.words ? darkest : DARK_INK;
  return [...grounds, { ground: PAPER, ink }].map((one) => ({ ...one, accent: accentOn(one.ground, one.ink) }));
}

/** Pixels a picture is wide where a rule sheet names none, and its shapes. */
const USUAL_RULE = { minWidth: 600, narrowest: 0.8, widest: 1.5 };

/** The sizes of cards for a format: its narrowest and its widest shape, at twice its least width. */
export function cardSizes(rule: Pick<FormatRule, 'shapes' | 'minWidth'> | undefined): CardSize[] {
  const width = 2 * (rule?.minWidth ?? USUAL_RULE.minWidth);
  const { narrowest, widest } = rule?.shapes ?? USUAL_RULE;
  // Rounded to the inner side, so that the shape lies within.
  const sizes = [
    { width, height: Math.floor(width / narrowest) },
    { width, height: Math.ceil(width / widest) },
  ];
  return sizes[0]!.height === sizes[1]!.height ? sizes.slice(0, 1) : sizes;
}

/** The kind of card for a kind of extract. */
export const cardKindOf = (kind: ExtractKind | 'clip'): CardKind =>
  kind === 'number' ? 'number' : kind === 'quote' ? 'quote' : 'point';

/** The alt text of a card: its words, and whose they are. */
export const altOfCard = ({ text, by }: Pick<Card, 'text' | 'by'>): string => (by === '' ? text : `${text} (${by})`);

/** The words a card takes from its post; null for one with words of its own, or where there are none to take. */
export function wordsFor(
  { follows }: Pick<Card, 'follows'>,
  post: { headline: string; caption: string },
): string | null {
  if (follows === null) return null;
  const text = follows === 'headline' ? post.headline : (/\S[^\n]*/.exec(post.caption)?.[0] ?? '');
  return text.trim() === '' ? null : text.trim();
}

/** What nobody sees of a text: blanks, control characters, marks without a letter, and letters that are blank. */
const UNSEEN = /[\p{C}\p{Z}\p{M}\u115F\u1160\u2800\u3164\uFFA0]/gu;
const isVisible = (text: string): boolean => text.replace(UNSEEN, '') !== '';

/** Checks a card: its words have to be there and in measure, and to stand out from the ground. */
export function readCard(card: Card): Result<Card> {
  const text = card.text.trim().replace(/\s+/g, ' ');
  const by = card.by.trim().replace(/\s+/g, ' ');
  if (!isVisible(text)) return refuse('noText', 'There are no words for the card. Write some.', 'text');
  if (text.length > CARD_LIMITS.text)
    return refuse('tooLong', `A card takes ${CARD_LIMITS.text} letters, this has ${text.length}.`, 'text');
  if (by.length > CARD_LIMITS.by)
    return refuse('tooLong', `That line takes ${CARD_LIMITS.by} letters, this has ${by.length}.`, 'by');
  const isSide = (pixels: number) => Number.isInteger(pixels) && pixels >= 200 && pixels <= CARD_LIMITS.side;
  if (!isSide(card.width) || !isSide(card.height))
    return refuse('badSize', `A card is 200 to ${CARD_LIMITS.side} pixels wide and high.`, 'width');
  if (![card.ground, card.ink, card.accent].every((hex) => /^#[0-9A-F]{6}$/.test(hex)))
    return refuse('badColour', 'A colour is written like #2E7D50.', 'ground');
  if (contrast(card.ink, card.ground) < LEAST.words)
    return refuse('pale', 'These words could hardly be read on that background. Choose other colours.', 'ink');
  return accept({ ...card, text, by });
}

/**
 * How much of the ground has to cover a picture, so that words stand out from all of it.
 *
 * @param extremes the lightest and the darkest colour of the picture
 * @returns 0 to 1
 */
export function scrimFor({ ground, ink }: CardColours, extremes: readonly string[]): number {
  for (let share = 0.3; share < 1; share += 0.05)
    if (extremes.every((colour) => contrast(blend(ground, colour, share), ink) >= LEAST.words)) return share;
  return 1;
}
