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

/** A row of the list: a group's head with its count, or a post. */
export type ListRow =
  { kind: 'group'; key: string; label: string; count: number; folded: boolean } | { kind: 'post'; slip: Slip };

const UNDATED = '9999';

/** Where a slip sorts; compared as text. */
function sortKey(slip: Slip, sort: Sort, names: Names): string {
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

function groupOf(slip: Slip, by: Grouping, names: Names): { key: string; label: string } {
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
      return { key: slip.pillarId ?? '~', label: slip.pillarId ? names.pillar(slip.pillarId) : 'no pillar' };
    case 'owner':
      return { key: slip.ownerId, label: names.owner(slip.ownerId) };
  }
}

/**
 * The rows of the list: sorted, in groups with their counts, the posts of folded groups left out. Days and stages keep their
 * own order; other groups stand by name, what has none last. Equal posts stay by date, time and id.
 */
export function listRows(
  slips: readonly Slip[],
  view: { sort: Sort; descending: boolean; group: Grouping; folded: ReadonlySet<string> },
  names: Names,
): ListRow[] {
  const keyed = slips.map((slip) => ({
    slip,
    key: sortKey(slip, view.sort, names),
    date: sortKey(slip, 'date', names) + slip.id,
  }));
  const direction = view.descending ? -1 : 1;
  keyed.sort((a, b) => direction * compare(a.key, b.key) || compare(a.date, b.date));
  if (view.group === 'none') return keyed.map(({ slip }): ListRow => ({ kind: 'post', slip }));
  const groups = new Map<string, { label: string; slips: Slip[] }>();
  for (const { slip } of keyed) {
    const { key, label } = groupOf(slip, view.group, names);
    const group = groups.get(key) ?? { label, slips: [] };
    group.slips.push(slip);
    groups.set(key, group);
  }
  const byKey = view.group === 'day' || view.group === 'stage';
  const inOrder = [...groups].sort(([aKey, a], [bKey, b]) =>
    byKey ? compare(aKey, bKey) : Number(aKey === '~') - Number(bKey === '~') || compare(a.label, b.label),
  );
  return inOrder.flatMap(([key, { label, slips: members }]): ListRow[] => {
    const folded = view.folded.has(key);
    const head: ListRow = { kind: 'group', key, label, count: members.length, folded };
    return folded ? [head] : [head, ...members.map((slip): ListRow => ({ kind: 'post', slip }))];
  });
}

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
