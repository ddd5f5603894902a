import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { PrepLine } from '@/core/prep/step';
import { maybePost } from '@/data/posts/posts';
import { insertPerson, maybePerson } from '@/data/people/people';
import { listStepsBetween, listStepsOf } from '@/data/prep/steps';
import { loadDeskSteps } from '../desk/loadDeskSteps';
import { archivePersonOf, savePerson, type PersonInput } from '../people/people';
import { catchIdea } from '../pieces/pieces';
import { movePost, planPiece } from '../posts/planPosts';
import {
  addStep,
  changeStep,
  forgetPrepSheet,
  handStepsOver,
  removeStep,
  renewPrep,
  reorderSteps,
  setPrepSheet,
  tickStep,
} from './prep';
import { schedulePost } from '../delivery/schedule';
import { putAtStage, setPostAside } from '../posts/stages';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';
import { loadSheet, loadSlip } from '../posts/loadPosts';
import { waiveWants } from '../posts/waiveWants';

let world: TestWorld;
const DESIGNER = '11111111-1111-4111-8111-111111111111';
const EDITOR = '22222222-2222-4222-8222-222222222222';
beforeEach(async () => {
  world = await makeWorld();
  const person = { role: 'maker' as const, position: 2 };
  await insertPerson(world.db, { ...person, id: DESIGNER, slug: 'dea', name: 'Dea', crafts: ['designer'] }, [
    world.brandId,
  ]);
  await insertPerson(
    world.db,
    { ...person, id: EDITOR, slug: 'edo', name: 'Edo', crafts: ['videoEditor'], weekdays: [2, 3, 4] },
    [world.brandId],
  );
});
afterEach(() => world.close());

const LINE: PrepLine = {
  title: 'Ask the curator',
  work: 'words',
  ownerId: null,
  craft: null,
  lead: 2,
  leadIn: 'calendar',
  minutes: 10,
  note: '',
  needed: false,
  ticksItself: false,
};
const PERSON: Omit<PersonInput, 'brandIds'> = {
  name: 'Edo',
  role: 'maker',
  zone: 'Europe/Lisbon',
  crafts: ['videoEditor'],
  weekdays: [1, 2, 3, 4, 5],
  minutesPerDay: 300,
  color: '#3b5f7d',
  daysOff: [],
};
const stepsOf = (postId: string) => listStepsOf(world.db, [postId]);
const planned = async (date: string | null, lines?: PrepLine[]) => {
  if (lines) valueOf(await setPrepSheet(world.work, world.brandId, 'photo', lines));
  const idea = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Dome night' }));
  const { postIds } = valueOf(await planPiece(world.work, idea.id, [world.channels.glassrow], { date, time: null }));
  const [id] = postIds;
  return id!;
};
const VIDEO: PrepLine[] = [
  { ...LINE, title: 'Write', lead: 5, leadIn: 'working' },
  { ...LINE, title: 'Record', work: 'recording', craft: 'videoEditor', lead: 3, leadIn: 'working' },
  { ...LINE, title: 'Cover', work: 'picture', craft: 'designer', lead: 1, leadIn: 'working', needed: true },
  { ...LINE, title: 'Replies', work: 'sending', craft: 'manager', lead: -1 },
];

describe('a new post', () => {
  it('gets the prep of its format, on the right days and for the right people', async () => {
    const steps = await stepsOf(await planned('2026-12-04', VIDEO));
    expect(steps.map(({ title, day, ownerId, plannedOn }) => [title, day, ownerId, plannedOn])).toEqual([
      ['Write', '2026-11-27', world.work.actorId, '2026-11-23'],
      // Edo works from Tuesday to Thursday only.
      ['Record', '2026-12-01', EDITOR, '2026-11-23'],
      ['Cover', '2026-12-03', DESIGNER, '2026-11-23'],
      ['Replies', '2026-12-05', null, '2026-11-23'],
    ]);
  });
  it('without a date has steps without days, until it is planned', async () => {
    const id = await planned(null, VIDEO);
    expect((await stepsOf(id)).every(({ day, plannedOn }) => day === null && plannedOn === null)).toBe(true);
    valueOf(await movePost(world.work, id, 1, { date: '2026-12-04' }));
    expect((await stepsOf(id)).map(({ day }) => day)).toEqual(['2026-11-27', '2026-12-01', '2026-12-03', '2026-12-05']);
  });
  it('takes the prep that ships where the brand set none, and again when it is forgotten', async () => {
    expect((await stepsOf(await planned('2026-12-04'))).map(({ title }) => title)).toContain('Write the caption');
    const own = await planned('2026-12-04', [LINE]);
    expect(await stepsOf(own)).toHaveLength(1);
    valueOf(await forgetPrepSheet({ ...world.work, seen: 1 }, world.brandId, 'photo'));
    expect((await stepsOf(await planned('2026-12-04'))).map(({ title }) => title)).toContain('Write the caption');
  });
});

describe('a post that moves', () => {
  it('takes its open steps along, names what is squeezed, and restores all of it on the way back', async () => {
    const id = await planned('2026-12-04', VIDEO);
    const before = await stepsOf(id);
    valueOf(await tickStep(world.work, before[0]!.id, true));
    valueOf(await changeStep(world.work, before[2]!.id, 1, { pinned: '2026-12-02' }));
    valueOf(await movePost(world.work, id, (await world.post(id)).version, { date: '2026-11-25' }));
    const moved = await stepsOf(id);
    expect(moved.map(({ day }) => day)).toEqual(['2026-11-27', '2026-11-18', '2026-12-02', '2026-11-26']);
    expect(moved[0]!.doneOn).toBe('2026-11-23');
    expect(moved[1]).toMatchObject({ plannedOn: '2026-11-23' });
    valueOf(await movePost(world.work, id, (await world.post(id)).version, { date: '2026-12-04' }));
    expect((await stepsOf(id)).map(({ day }) => day)).toEqual(['2026-11-27', '2026-12-01', '2026-12-02', '2026-12-05']);
  });
});

describe('a step', () => {
  it('is ticked and opened again, by anybody of the brand', async () => {
    const [step] = await stepsOf(await planned('2026-12-04', VIDEO));
    valueOf(await tickStep(world.otherWork, step!.id, true));
    valueOf(await tickStep(world.otherWork, step!.id, true));
    expect((await stepsOf(step!.postId!))[0]).toMatchObject({ doneOn: '2026-11-23', doneBy: world.otherWork.actorId });
    valueOf(await tickStep(world.work, step!.id, false));
    expect((await stepsOf(step!.postId!))[0]).toMatchObject({ doneOn: null, doneBy: null, doneAt: null });
  });
  it('is added, changed, put in order and taken away', async () => {
    const id = await planned('2026-12-04', VIDEO);
    const { id: added } = valueOf(await addStep(world.work, { postId: id }, LINE));
    const ids = (await stepsOf(id)).map((step) => step.id);
    expect(ids.at(-1)).toBe(added);
    valueOf(await reorderSteps(world.work, { postId: id }, [added, ...ids.slice(0, -1)]));
    valueOf(await changeStep(world.work, added, 1, { title: 'Ask her', ownerId: DESIGNER, lead: 1 }));
    // Before “Write”, so no later than that.
    expect((await stepsOf(id))[0]).toMatchObject({ title: 'Ask her', ownerId: DESIGNER, day: '2026-11-27' });
    valueOf(await removeStep(world.work, added));
    expect(await stepsOf(id)).toHaveLength(4);
  });
  it('is refused where it makes no sense', async () => {
    const id = await planned('2026-12-04', VIDEO);
    const [first, second] = await stepsOf(id);
    expect(codeOf(await changeStep(world.work, first!.id, 1, { lead: 4_000 }))).toBe('badLead');
    expect(codeOf(await changeStep(world.work, first!.id, 7, { lead: 2 }))).toBe('stale');
    expect(codeOf(await changeStep(world.work, first!.id, 1, { pinned: '2026-02-30' }))).toBe('badDate');
    expect(codeOf(await changeStep(world.work, first!.id, 1, { ownerId: world.brandId }))).toBe('noOwner');
    expect(codeOf(await reorderSteps(world.work, { postId: id }, [first!.id, first!.id, second!.id]))).toBe(
      'otherSteps',
    );
    expect(codeOf(await tickStep(world.work, world.brandId, true))).toBe('notFound');
    expect(codeOf(await setPrepSheet(world.otherWork, world.brandId, 'photo', VIDEO))).toBe('notYours');
  });
  it('of another prep takes the place of open ones; what is done stays', async () => {
    const id = await planned('2026-12-04', VIDEO);
    valueOf(await tickStep(world.work, (await stepsOf(id))[0]!.id, true));
    valueOf(
      await setPrepSheet({ ...world.work, seen: 1 }, world.brandId, 'photo', [{ ...LINE, title: 'Write' }, LINE]),
    );
    valueOf(await renewPrep(world.work, { postId: id }));
    expect((await stepsOf(id)).map(({ title, doneOn }) => [title, doneOn !== null])).toEqual([
      ['Write', true],
      ['Ask the curator', false],
    ]);
  });
});

describe('what the team wants', () => {
  it('keeps a post from ready until it is done, or a manager lets it go with a reason', async () => {
    const lines = [{ ...LINE, needed: true }];
    valueOf(await setPrepSheet(world.work, world.brandId, 'text', lines));
    const post = await world.makePost('pithline');
    expect(codeOf(await putAtStage(world.work, post.id, post.version, 'ready'))).toBe('wanted');
    expect(codeOf(await schedulePost(world.work, post.id, post.version))).toBe('wanted');
    expect(codeOf(await waiveWants(world.otherWork, post.id, post.version, 'No time'))).toBe('notYours');
    expect(codeOf(await waiveWants(world.work, post.id, post.version, ' '))).toBe('noReason');
    valueOf(await waiveWants(world.work, post.id, post.version, 'The curator is ill'));
    const waived = await world.post(post.id);
    expect(waived.waived).toMatchObject([{ reason: 'The curator is ill', by: world.work.actorId }]);
    valueOf(await schedulePost(world.work, post.id, waived.version));
  });
  it('is met by ticking', async () => {
    valueOf(await setPrepSheet(world.work, world.brandId, 'text', [{ ...LINE, needed: true }]));
    const post = await world.makePost('pithline');
    valueOf(await tickStep(world.work, (await stepsOf(post.id))[0]!.id, true));
    valueOf(await putAtStage(world.work, post.id, post.version, 'ready'));
  });
  it('never lets a block go', async () => {
    const post = await world.makePost('pithline', undefined, 'x'.repeat(400));
    expect(codeOf(await waiveWants(world.work, post.id, post.version, 'All the same'))).toBe('nothing');
    expect(codeOf(await schedulePost(world.work, post.id, post.version))).toBe('blocked');
  });
});

describe('a desk', () => {
  const today = '2026-11-23';
  const desk = async (id: string) => loadDeskSteps(world.db, (await maybePerson(world.db, id))!, world.brandId, today);
  it('lists a person’s steps by day with the load, and who waits', async () => {
    await planned('2026-12-01', VIDEO);
    await planned('2026-11-24');
    const mine = await desk(world.work.actorId);
    expect(mine.late.map(({ title, day }) => [title, day])).toEqual([['Write', '2026-11-17']]);
    expect(mine.today).toEqual([]);
    expect(mine.ahead.map(({ title, before }) => [title, before?.title])).toEqual([['Write', 'Record']]);
    expect(mine.loads[0]).toMatchObject({ date: today, minutes: 10, capacity: 360, isTooMuch: false });
    expect(mine.unowned.map(({ title }) => title)).toEqual(['Replies']);
    expect((await desk(EDITOR)).ahead.map(({ title, after }) => [title, after?.title])).toEqual([['Record', 'Write']]);
  });
  it('forgets the steps of what was set aside, and what came before a post that is out', async () => {
    const id = await planned('2026-12-01', VIDEO);
    expect((await desk(EDITOR)).ahead).toHaveLength(1);
    valueOf(await setPostAside(world.work, id, (await maybePost(world.db, id))!.version, 'Too late'));
    expect((await desk(EDITOR)).ahead).toHaveLength(0);
  });
  it('is what the calendar shows as working dates', async () => {
    await planned('2026-12-04', VIDEO);
    const all = await listStepsBetween(world.db, [world.brandId], '2026-11-23', '2026-12-04', null);
    expect(all.map(({ title, day }) => [title, day])).toEqual([
      ['Write', '2026-11-27'],
      ['Record', '2026-12-01'],
      ['Cover', '2026-12-03'],
    ]);
    expect(await listStepsBetween(world.db, [world.brandId], '2026-11-23', '2026-12-04', EDITOR)).toHaveLength(1);
  });
  it('is handed over, many steps at once, in the other person’s working days', async () => {
    const id = await planned('2026-12-04', VIDEO);
    const ids = (await stepsOf(id)).map((step) => step.id);
    expect(valueOf(await handStepsOver(world.work, ids, EDITOR)).count).toBe(3);
    expect((await stepsOf(id)).map(({ ownerId, day }) => [ownerId, day])).toEqual([
      [EDITOR, '2026-11-25'],
      [EDITOR, '2026-12-01'],
      [EDITOR, '2026-12-03'],
      [EDITOR, '2026-12-05'],
    ]);
    expect(codeOf(await handStepsOver(world.work, [], EDITOR))).toBe('nothing');
    expect(codeOf(await handStepsOver(world.work, ids, world.brandId))).toBe('notFound');
    const other = valueOf(await savePerson(world.work, null, { ...PERSON, brandIds: [world.otherBrandId] }));
    expect(codeOf(await handStepsOver(world.work, ids, other.id))).toBe('noOwner');
  });
});

describe('people', () => {
  const input = (more: Partial<PersonInput> = {}): PersonInput => ({ ...PERSON, brandIds: [world.brandId], ...more });
  it('that work on other days have their steps counted anew', async () => {
    const id = await planned('2026-12-04', VIDEO);
    const daysOff = [{ name: 'Away', from: '2026-11-30', to: '2026-12-01' }];
    valueOf(await savePerson(world.work, EDITOR, input({ daysOff })));
    expect((await stepsOf(id))[1]!.day).toBe('2026-11-27');
  });
  it('are added and offered for steps of their craft', async () => {
    const { id } = valueOf(await savePerson(world.work, null, input({ name: 'Wim', crafts: ['assistant'] })));
    expect(await maybePerson(world.db, id)).toMatchObject({ slug: 'wim', crafts: ['assistant'], minutesPerDay: 300 });
    const post = await planned('2026-12-04', [{ ...LINE, craft: 'assistant' }]);
    expect((await stepsOf(post))[0]!.ownerId).toBe(id);
  });
  it('who own open steps are archived once those are handed over', async () => {
    const id = await planned('2026-12-04', VIDEO);
    expect(codeOf(await archivePersonOf(world.work, EDITOR, null))).toBe('ownsSteps');
    expect(codeOf(await archivePersonOf(world.work, EDITOR, EDITOR))).toBe('samePerson');
    expect(valueOf(await archivePersonOf(world.work, EDITOR, DESIGNER))).toEqual({ handed: 1 });
    expect((await stepsOf(id))[1]!.ownerId).toBe(DESIGNER);
    expect(await maybePerson(world.db, EDITOR)).toBeUndefined();
  });
  it.each([
    ['emptyTitle', { name: ' ' }],
    ['badWeekdays', { weekdays: [] }],
    ['badWeekdays', { weekdays: [8] }],
    ['badHours', { minutesPerDay: 2_000 }],
    ['badZone', { zone: 'Moor/Nowhere' }],
    ['badColour', { color: 'blue' }],
    ['noBrand', { brandIds: [] }],
    ['backwards', { daysOff: [{ name: '', from: '2026-12-02', to: '2026-12-01' }] }],
  ])('are refused: %s', async (code, change) => {
    expect(codeOf(await savePerson(world.work, EDITOR, input(change)))).toBe(code);
  });
  it('keep at least one manager, and nobody archives themselves', async () => {
    const { actorId } = world.work;
    expect(codeOf(await savePerson(world.work, actorId, input({ name: 'Mana' })))).toBe('lastManager');
    expect(codeOf(await archivePersonOf(world.work, actorId, null))).toBe('oneself');
    expect(codeOf(await savePerson(world.otherWork, null, input()))).toBe('notYours');
  });
});

it('a sheet and a slip tell how far the prep is', async () => {
  const id = await planned('2026-12-04', VIDEO);
  valueOf(await tickStep(world.work, (await stepsOf(id))[0]!.id, true));
  expect((await loadSheet(world.db, id))!.steps).toHaveLength(4);
  expect(await loadSlip(world.db, id)).toMatchObject({
    progress: [
      { work: 'words', done: 1, all: 1 },
      { work: 'picture', done: 0, all: 1 },
      { work: 'recording', done: 0, all: 1 },
    ],
    nextWork: 'recording',
  });
});
