import { expect, it } from 'vitest';
import { LEASE_MS, lookAtBeats } from './holders';

const A = { id: 'a', beat: 5 };

it('takes a process for stopped only once its beat was seen unchanged for a whole lease', () => {
  const first = lookAtBeats(new Map(), [A], 1_000);
  expect(first.stopped).toEqual([]);
  expect(lookAtBeats(first.seen, [A], 1_000 + LEASE_MS - 1).stopped).toEqual([]);
  expect(lookAtBeats(first.seen, [A], 1_000 + LEASE_MS).stopped).toEqual([A]);
});

it('counts from anew when the beat has grown, and when somebody else begins to look', () => {
  const first = lookAtBeats(new Map(), [A], 0);
  const grown = lookAtBeats(first.seen, [{ ...A, beat: 6 }], LEASE_MS);
  expect(grown.stopped).toEqual([]);
  expect(lookAtBeats(grown.seen, [{ ...A, beat: 6 }], 2 * LEASE_MS - 1).stopped).toEqual([]);
  expect(lookAtBeats(new Map(), [A], 10 * LEASE_MS).stopped).toEqual([]);
});

it('forgets who is gone', () => {
  const first = lookAtBeats(new Map(), [A, { id: 'b', beat: 1 }], 0);
  expect([...lookAtBeats(first.seen, [A], 1).seen.keys()]).toEqual(['a']);
});
