import { describe, expect, it } from 'vitest';
import { whoWaits, type WaitedFor } from './waiting';

const step = (title: string, before: string | null, after: string | null = null): WaitedFor => ({
  title,
  ownerId: 'ines',
  before: before === null ? null : { ownerId: before },
  after: after === null ? null : { ownerId: after },
});

describe('who waits for a person', () => {
  it('is whoever goes on after what could be done now, most waited for first', () =>
    expect(
      whoWaits([step('Write the script', 'jonah'), step('Write the slides', 'bex'), step('Pick the quotes', 'bex')]),
    ).toEqual([
      { personId: 'bex', count: 2, title: 'Write the slides' },
      { personId: 'jonah', count: 1, title: 'Write the script' },
    ]));

  it.each([
    ['what comes last', step('Proofread', null)],
    ['what oneself goes on with', step('Write', 'ines')],
    ['what waits for another itself', step('Edit', 'bex', 'jonah')],
    ['what nobody is named to go on with', { ...step('Edit', null), before: { ownerId: null } }],
  ])('is nobody for %s', (_what, one) => expect(whoWaits([one])).toEqual([]));
});
