import { FORMAT_LABELS, formatRule, type Format, type RuleSheet } from '../rulesheets/types';
import type { Stage } from '../stages/stages';
import type { LocalDate, LocalTime } from '../time/plan';
import { withArticle } from '../words';

/** What is being dragged: an idea of a brand, or a post with what decides where it may go. */
export type Dragged =
  | { kind: 'idea'; brandId: string }
  | {
      kind: 'post';
      brandId: string;
      stage: Stage;
      leaving: boolean;
      date: LocalDate | null;
      channelId: string;
    };

/** Where it would fall. What is null stays as it is. */
export type DropPlace =
  /** A day, perhaps of a channel, at a time, for a format: a cell of month or lanes, an hour, an opening. */
  | {
      kind: 'day';
      date: LocalDate;
      channelId: string | null;
      time: LocalTime | null;
      format: Format | null;
      theme: string | null;
    }
  | { kind: 'stage'; stage: Stage }
  | { kind: 'tray' };

/** A day and nothing more. */
export const dayPlace = (date: LocalDate): DropPlace => ({
  kind: 'day',
  date,
  channelId: null,
  time: null,
  format: null,
  theme: null,
});

/** What a drop is checked against. */
export interface DropGround {
  /** Today in a brand's zone. */
  todayOf(brandId: string): LocalDate;
  brandOfChannel(channelId: string): string | undefined;
}

/** Why a drop would be refused, in a few words to show while dragging; null when it may fall there. */
export function whyNoDrop(dragged: Dragged, place: DropPlace, ground: DropGround): string | null {
  if (dragged.kind === 'post' && dragged.stage === 'published') return 'published posts stay as they are';
  if (dragged.kind === 'post' && dragged.leaving) return 'it is leaving right now';
  if (place.kind === 'stage') {
    if (dragged.kind === 'idea') return 'an idea needs a channel and a day first';
    return place.stage === 'published' ? 'published is reached by leaving' : null;
  }
  if (place.kind === 'tray') return null;
  if (place.channelId !== null && ground.brandOfChannel(place.channelId) !== dragged.brandId)
    return 'that channel is another brand’s';
  return place.date < ground.todayOf(dragged.brandId) ? 'that day has passed' : null;
}

/** The format a post takes on a channel: the one wanted if its network takes it, else that network's first. */
export function formatOn(sheet: RuleSheet, wanted: Format | null): Format {
  return wanted !== null && formatRule(sheet, wanted) ? wanted : sheet.formats[0]!.format;
}

/** Says that a post's format changed with its channel; null when it did not. */
export const formatNote = (sheet: RuleSheet, from: Format, to: Format): string | null =>
  from === to ? null : `${sheet.name} takes no ${FORMAT_LABELS[from]}, so it is ${withArticle(FORMAT_LABELS[to])} now.`;
