import { STAGES, STAGE_LABELS, type Stage } from '../stages/stages';
import type { Slip } from './slip';

/** What the list can be sorted by. */
export const SORTS = ['date', 'title', 'channel', 'stage', 'owner', 'format'] as const;
export type Sort = (typeof SORTS)[number];

/** What the list can be grouped by. */
export const GROUPINGS = ['none', 'day', 'channel', 'stage', 'piece', 'pillar', 'owner'] as const;
export type Grouping = (typeof GROUPINGS)[number];

/** Names for what slips only hold ids of. */
export interface Names {
  channel(id: string): string;
  owner(id: string): string;
  pillar(id: string): string;
  piece(id: string): string;
  day(date: string): string;
}

const UNDATED = '9999';
/** The key of what a grouping has no value for. */
const NONE = '~';

/** Where a slip sorts; compared as text. What has no time stands last in its day, what has no date last of all. */
export function sortKey(slip: Slip, sort: Sort, names: Names): string {
  switch (sort) {
    case 'date':
      return (slip.date ?? UNDATED) + (slip.time ?? '99:99');
    case 'title':
      return slip.title.toLocaleLowerCase();
    case 'channel':
      return names.channel(slip.channelId);
    case 'stage':
      return stageKey(slip.stage);
    case 'owner':
      return names.owner(slip.ownerId);
    case 'format':
      return slip.format;
  }
}

const stageKey = (stage: Stage): string => String(stage === 'setAside' ? 9 : STAGES.indexOf(stage));

/** The group a slip belongs to. */
export function groupOf(slip: Slip, by: Grouping, names: Names): { key: string; label: string } {
  switch (by) {
    case 'none':
      return { key: '', label: '' };
    case 'day':
      return { key: slip.date ?? UNDATED, label: slip.date ? names.day(slip.date) : 'without a date' };
    case 'channel':
      return { key: slip.channelId, label: names.channel(slip.channelId) };
    case 'stage':
      return { key: stageKey(slip.stage), label: STAGE_LABELS[slip.stage] };
    case 'piece':
      return { key: slip.pieceId, label: names.piece(slip.pieceId) };
    case 'pillar':
      return { key: slip.pillarId ?? NONE, label: slip.pillarId ? names.pillar(slip.pillarId) : 'no pillar' };
    case 'owner':
      return { key: slip.ownerId, label: names.owner(slip.ownerId) };
  }
}

/** Where a group stands among the others; compared as text. Days and stages keep their own order, others stand by name, what has none last. */
export function groupOrder(slip: Slip, by: Grouping, names: Names): string {
  const { key, label } = groupOf(slip, by, names);
  if (by === 'day' || by === 'stage') return key;
  return `${key === NONE ? 1 : 0}${label}`;
}
