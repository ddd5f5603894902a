import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { listBatchDays, listBatchSteps, listStepsForBatch, maybeBatchDay } from '@/data/prep/batchDays';
import { listStepsOf } from '@/data/prep/steps';
import { changeBatchDay, dropBatchDay, makeBatchDay, type BatchInput } from './batchDays';
import { movePost } from '../posts/planPosts';
import { changeStep, setPrepSheet, tickStep } from './prep';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';

let world: TestWorld;
let ids: string[];
beforeEach(async () => {
  world = await makeWorld();
  const record = { title: 'Record', work: 'recording' as const, ownerId: null, craft: null, lead: 3, minutes: 45 };
  valueOf(
    await setPrepSheet(world.work, world.brandId, 'text', [
      { ...record, leadIn: 'working', note: '', needed: false, ticksItself: false },
    ]),
  );
  const posts = [
    await world.makePost('pithline', { date: '2026-12-10', time: null }),
    await world.makePost('pithline', { date: '2026-12-04', time: null }),
  ];
  const steps = await listStepsOf(
    world.db,
    posts.map(({ id }) => id),
  );
  ids = posts.map(({ id }) => steps.find(({ postId }) => postId === id)!.id);
});
afterEach(() => world.close());

const input = (more: Partial<BatchInput> = {}): BatchInput => ({
  work: 'recording',
  name: 'In the dome',
  day: '2026-12-01',
  startsAt: '10:00',
  stepIds: ids,
  ...more,
});
const daysOf = async () =>
  new Map(
    (await world.db.rows<{ id: string; day: string; pinned: string | null }>('select id, day, pinned from steps')).map(
      (step) => [step.id, step],
    ),
  );

describe('a batch day', () => {
  it('takes steps of one sort in a running order, and pins them to it', async () => {
    expect((await listStepsForBatch(world.db, world.brandId, 'recording')).map(({ id }) => id)).toEqual([
      ids[1],
      ids[0],
    ]);
    const { id } = valueOf(await makeBatchDay(world.work, world.brandId, input()));
    expect((await listBatchSteps(world.db, id)).map((step) => step.id)).toEqual(ids);
    const days = await daysOf();
    expect(ids.map((one) => days.get(one)!.day)).toEqual(['2026-12-01', '2026-12-01']);
    expect(await listStepsForBatch(world.db, world.brandId, 'recording')).toEqual([]);
    expect(await listBatchDays(world.db, [world.brandId], '2026-12-01', '2026-12-01')).toMatchObject([
      { name: 'In the dome', steps: 2, done: 0, minutes: 90, brandSlug: 'moor' },
    ]);
  });
  it('keeps its steps when a post moves, and takes them along to another day', async () => {
    const { id } = valueOf(await makeBatchDay(world.work, world.brandId, input()));
    const [step] = await listBatchSteps(world.db, id);
    valueOf(
      await movePost(world.work, step!.postId!, (await world.post(step!.postId!)).version, { date: '2026-12-18' }),
    );
    expect((await daysOf()).get(ids[0]!)!.day).toBe('2026-12-01');
    valueOf(await changeBatchDay(world.work, id, 1, { day: '2026-12-02' }));
    expect((await daysOf()).get(ids[0]!)!.day).toBe('2026-12-02');
  });
  it('loses a step that is pinned to another day, or to none', async () => {
    const { id } = valueOf(await makeBatchDay(world.work, world.brandId, input()));
    const [step] = await listStepsOf(world.db, [(await postOf(ids[0]!))!]);
    valueOf(await changeStep(world.work, step!.id, step!.version, { note: 'Bring a hat' }));
    expect(await listBatchSteps(world.db, id)).toHaveLength(2);
    valueOf(await changeStep(world.work, step!.id, step!.version + 1, { pinned: null }));
    expect((await listBatchSteps(world.db, id)).map((one) => one.id)).toEqual([ids[1]]);
  });
  it('is put in another order, loses a step, and keeps what is needed', async () => {
    const { id } = valueOf(await makeBatchDay(world.work, world.brandId, input()));
    valueOf(await changeBatchDay(world.work, id, 1, { stepIds: [ids[1]!, ids[0]!] }));
    expect((await listBatchSteps(world.db, id)).map((step) => step.id)).toEqual([ids[1], ids[0]]);
    const needs = [
      { text: ' red lamp ', done: false },
      { text: '  ', done: true },
    ];
    expect(valueOf(await changeBatchDay(world.work, id, 2, { stepIds: [ids[1]!], needs })).needs).toEqual([
      { text: 'red lamp', done: false },
    ]);
    // Left out, the step counts back from its post again.
    expect((await daysOf()).get(ids[0]!)).toMatchObject({ day: '2026-12-07', pinned: null });
  });
  it('is ticked step by step, and called off without taking what is done back', async () => {
    const { id } = valueOf(await makeBatchDay(world.work, world.brandId, input()));
    valueOf(await tickStep(world.work, ids[0]!, true));
    expect((await listBatchDays(world.db, [world.brandId], '2026-12-01', '2026-12-01'))[0]).toMatchObject({ done: 1 });
    valueOf(await dropBatchDay(world.work, id));
    expect(await maybeBatchDay(world.db, id)).toBeUndefined();
    const steps = await listStepsOf(world.db, [(await postOf(ids[0]!))!]);
    expect(steps[0]).toMatchObject({ doneOn: '2026-11-23' });
    expect((await daysOf()).get(ids[1]!)).toMatchObject({ day: '2026-12-01', pinned: null });
  });
  it.each([
    ['noSteps', { stepIds: [] }],
    ['badWork', { work: 'dancing' as 'words' }],
    ['emptyTitle', { name: ' ' }],
    ['badDate', { day: '2026-02-30' }],
    ['badTime', { startsAt: '25:00' }],
  ])('is refused: %s', async (code, change) => {
    expect(codeOf(await makeBatchDay(world.work, world.brandId, input(change)))).toBe(code);
  });
  it('is refused to those who do not work for the brand, and to whoever saw an older state', async () => {
    expect(codeOf(await makeBatchDay(world.otherWork, world.otherBrandId, input()))).toBe('notYours');
    const { id } = valueOf(await makeBatchDay(world.work, world.brandId, input()));
    expect(codeOf(await changeBatchDay(world.work, id, 4, { name: 'Other' }))).toBe('stale');
  });
});

const postOf = async (stepId: string): Promise<string | undefined> =>
  (await world.db.rows<{ id: string }>('select post_id as id from steps where id = $1', [stepId]))[0]?.id;
