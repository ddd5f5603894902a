/** A copy of a list with an item and its neighbour changed round. */
export function withNeighbour<T>(items: readonly T[], index: number, by: -1 | 1): T[] {
  const next = [...items];
  [next[index], next[index + by]] = [next[index + by]!, next[index]!];
  return next;
}

/** Items by key, in their order. */
export function groupBy<T, K>(items: readonly T[], keyOf: (item: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const item of items) {
    const key = keyOf(item);
    const group = groups.get(key);
    if (group) group.push(item);
    else groups.set(key, [item]);
  }
  return groups;
}
