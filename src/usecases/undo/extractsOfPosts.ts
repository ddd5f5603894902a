import { deleteExtracts } from '@/data/extracts/extracts';
import { listExtractsOnlyOf } from '@/data/fanOut/postExtracts';
import type { ChangeItem, NotedChange } from '@/data/undo/changes';
import type { Doing } from '../useCase';
import { readState } from './rows';

/**
 * Takes away the extracts that were accepted only by making those posts, and of which no other live post is made.
 *
 * @returns those that the change does not know of, so that they can be put back when the posts are
 */
export async function takeExtractsAway(
  act: Doing,
  postIds: readonly string[],
  change: NotedChange,
): Promise<ChangeItem[]> {
  const ids = postIds.length === 0 ? [] : await listExtractsOnlyOf(act.tx, postIds, change);
  const items: ChangeItem[] = [];
  for (const id of ids)
    items.push({ subject: 'extract', id, before: null, after: await readState(act.tx, 'extract', id) });
  await deleteExtracts(act.tx, ids);
  return items.filter(({ id }) => !change.items.some((item) => item.subject === 'extract' && item.id === id));
}
