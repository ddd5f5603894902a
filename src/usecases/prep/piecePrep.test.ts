import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { PrepLine } from '@/core/prep/step';
import { listBatchSteps, listStepsForBatch } from '@/data/prep/batchDays';
import { insertPerson, maybePerson } from '@/data/people/people';
import { maybePiece } from '@/data/pieces/pieces';
import { countWorkOfPieces, listStepsBetween, listStepsOf } from '@/data/prep/steps';
import { makeBatchDay } from './batchDays';
import { loadDeskSteps } from '../desk/loadDeskSteps';
import { catchIdea, editPiece, setPieceAside } from '../pieces/pieces';
import { movePost, planPiece } from '../posts/planPosts';
import { addStep, handStepsOver, renewPrep, reorderSteps, setPrepSheet, tickStep } from './prep';
import { deletePost, restorePost, setPostAside } from '../posts/stages';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';

let world: TestWorld;
let pieceId: string;
const EDITOR = '22222222-2222-4222-8222-222222222222';
const TALK: PrepLine[] = [
  line('Agree on the topic', 10),
  { ...line('Record the talk', 5), work: 'recording', craft: 'videoEditor', needed: true },
];

function line(title: string, lead: number): PrepLine {
  return {
    title,
    work: 'words',
    ownerId: null,
    craft: null,
    lead,
    leadIn: 'calendar',
    minutes: 30,
    note: '',
    needed: false,
    ticksItself: false,
  };
}

beforeEach(async () => {
  world = await makeWorld();
  await insertPerson(
    world.db,
    { id: EDITOR, slug: 'edo', name: 'Edo', role: 'maker', position: 2, crafts: ['videoEditor'] },
    [world.brandId],
  );
  valueOf(await setPrepSheet(world.work, world.brandId, 'piece:talk', TALK));
  pieceId = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Rings that vanish' })).id;
});
afterEach(() => world.close());

const edit = async (change: Parameters<typeof editPiece>[3]) =>
  editPiece(world.work, pieceId, (await maybePiece(world.db, pieceId))!.version, change);
const steps = () => listStepsOf(world.db, [pieceId]);
const days = async () => (await steps()).map(({ day }) => day);
const plan = async (date: string | null, network: keyof TestWorld['channels'] = 'pithline') =>
  valueOf(await planPiece(world.work, pieceId, [world.channels[network]], { date, time: null })).postIds[0]!;

describe('a piece that is given a kind', () => {
  it('gets the prep of that kind, without days until it has a post', async () => {
    valueOf(await edit({ kind: 'talk' }));
    expect((await steps()).map(({ title, ownerId, day }) => [title, ownerId, day])).toEqual([
      ['Agree on the topic', world.work.actorId, null],
      ['Record the talk', EDITOR, null],
    ]);
    await plan('2026-12-18');
    expect(await days()).toEqual(['2026-12-08', '2026-12-13']);
  });

  it('keeps what is done when it becomes another kind', async () => {
    valueOf(await edit({ kind: 'talk' }));
    valueOf(await tickStep(world.work, (await steps())[0]!.id, true));
    valueOf(await setPrepSheet(world.work, world.brandId, 'piece:episode', [line('Invite the guest', 20)]));
    valueOf(await edit({ kind: 'episode' }));
    expect((await steps()).map(({ title, doneOn }) => [title, doneOn])).toEqual([
      ['Invite the guest', null],
      ['Agree on the topic', '2026-11-23'],
    ]);
  });

  it('needs a kind and a day that exist', async () => {
    expect(codeOf(await edit({ kind: 'opera' as 'talk' }))).toBe('badKind');
    expect(codeOf(await edit({ prepDay: '2026-02-30' }))).toBe('badDate');
    expect(await steps()).toEqual([]);
  });
});

describe('the day it counts back from', () => {
  beforeEach(async () => void valueOf(await edit({ kind: 'talk' })));

  it('is that of its earliest live post, wherever that moves', async () => {
    const late = await plan('2026-12-20');
    const early = await plan('2026-12-15', 'glassrow');
    expect(await days()).toEqual(['2026-12-05', '2026-12-10']);
    valueOf(await setPostAside(world.work, early, (await world.post(early)).version, 'not now'));
    expect(await days()).toEqual(['2026-12-10', '2026-12-15']);
    valueOf(await movePost(world.work, late, (await world.post(late)).version, { date: '2026-12-25' }));
    expect(await days()).toEqual(['2026-12-15', '2026-12-20']);
    valueOf(await deletePost(world.work, late, (await world.post(late)).version));
    expect(await days()).toEqual([null, null]);
    valueOf(await restorePost(world.work, late));
    expect(await days()).toEqual(['2026-12-15', '2026-12-20']);
  });

  it('is its own, where it was given one', async () => {
    await plan('2026-12-20');
    valueOf(await edit({ prepDay: '2026-12-12' }));
    expect(await days()).toEqual(['2026-12-02', '2026-12-07']);
    valueOf(await edit({ prepDay: null }));
    expect(await days()).toEqual(['2026-12-10', '2026-12-15']);
  });
});

describe('its steps', () => {
  beforeEach(async () => {
    valueOf(await edit({ kind: 'talk' }));
    await plan('2026-11-30');
  });

  it('stand on the desk of whoever does them, with those they wait for', async () => {
    const { ahead } = await loadDeskSteps(
      world.db,
      (await maybePerson(world.db, EDITOR))!,
      world.brandId,
      '2026-11-23',
    );
    expect(ahead.find(({ pieceId: of }) => of === pieceId)).toMatchObject({
      title: 'Record the talk',
      holder: { title: 'Rings that vanish', callSign: null, brandSlug: 'moor' },
      after: { title: 'Agree on the topic', ownerId: world.work.actorId },
    });
  });

  it('stand on the calendar, and in a batch day', async () => {
    const onCalendar = await listStepsBetween(world.db, [world.brandId], '2026-11-25', '2026-11-25', EDITOR);
    expect(onCalendar).toMatchObject([{ title: 'Record the talk', holderTitle: 'Rings that vanish', channelId: null }]);
    const [toRecord] = await listStepsForBatch(world.db, world.brandId, 'recording');
    const batch = { work: 'recording' as const, name: 'In the dome', day: '2026-11-26', startsAt: '10:00' };
    const { id } = valueOf(await makeBatchDay(world.work, world.brandId, { ...batch, stepIds: [toRecord!.id] }));
    expect(await listBatchSteps(world.db, id)).toMatchObject([{ pieceId, holder: { title: 'Rings that vanish' } }]);
    expect((await days())[1]).toBe('2026-11-26');
  });

  it('are added, put in order, handed over and taken anew', async () => {
    const before = await steps();
    const { id } = valueOf(await addStep(world.work, { pieceId }, line('Ask the curator', 2)));
    expect((await steps()).at(-1)).toMatchObject({ id, ownerId: null, day: '2026-11-28' });
    valueOf(await reorderSteps(world.work, { pieceId }, [id, ...before.map((step) => step.id)]));
    expect((await steps())[0]!.title).toBe('Ask the curator');
    expect(valueOf(await handStepsOver(world.work, [id], EDITOR))).toMatchObject({ count: 1 });
    valueOf(await renewPrep(world.work, { pieceId }));
    expect((await steps()).map(({ title }) => title)).toEqual(['Agree on the topic', 'Record the talk']);
  });

  it('count in the progress of the piece, with those of its posts', async () => {
    const counts = (await countWorkOfPieces(world.db, [pieceId])).get(pieceId)!;
    expect(counts.recording).toEqual([0, 1]);
    valueOf(await tickStep(world.work, (await steps())[1]!.id, true));
    expect((await countWorkOfPieces(world.db, [pieceId])).get(pieceId)!.recording).toEqual([1, 1]);
  });

  it('leave desk and calendar with a piece that is set aside', async () => {
    valueOf(await setPieceAside(world.work, pieceId, ''));
    expect(await listStepsBetween(world.db, [world.brandId], '2026-11-25', '2026-11-25', EDITOR)).toEqual([]);
  });
});
