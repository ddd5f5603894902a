import { groupBy } from '@/core/group';
import type { Format } from '@/core/rulesheets/types';
import { SHIPPED_PREP } from '@/core/prep/shipped';
import { ofPiece, type PrepSubject } from '@/core/prep/subject';
import { whoDoes } from '@/core/prep/who';
import type { PrepLine } from '@/core/prep/step';
import { localOf, type LocalDate, type Zone } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import type { Queryable } from '@/data/database/db';
import { listPeopleOfBrand } from '@/data/people/people';
import type { Piece } from '@/data/pieces/pieces';
import { listAnchors, type Post } from '@/data/posts/posts';
import { listPrepSheets } from '@/data/prep/prepSheets';
import {
  deleteOpenSteps,
  deleteSteps,
  holderOf,
  insertSteps,
  listStepsOf,
  orderSteps,
  placeSteps,
  type Step,
} from '@/data/prep/steps';
import { readCounting } from './countPrep';
import type { Doing } from '../useCase';

/** A step as it is told that it stands: with whoever does it, and whether it is done. */
export interface ToldStep extends PrepLine, Pick<Step, 'pinned' | 'doneAt' | 'doneBy'> {}
export const isTold = (line: PrepLine | ToldStep): line is ToldStep => 'doneAt' in line;

/** Who is to be given prep: a post or a piece. */
export interface Unprepared extends Pick<Step, 'postId' | 'pieceId'> {
  subject: PrepSubject;
  /** The day it counts back from; null while there is none. */
  day: LocalDate | null;
  ownerId: string;
  /** Steps of its own in the place of those of its subject. */
  lines?: readonly (PrepLine | ToldStep)[] | undefined;
  /** Titles of steps it has already: they are left out. */
  leftOut?: ReadonlySet<string>;
}

/** A post that is to be given the prep of its format, or steps of its own. */
export const prepOfPost = ({
  id,
  format,
  date,
  ownerId,
  prep,
}: Pick<Post, 'id' | 'format' | 'date' | 'ownerId'> & { prep?: readonly (PrepLine | ToldStep)[] }): Unprepared => ({
  postId: id,
  pieceId: null,
  subject: format,
  day: date,
  ownerId,
  lines: prep,
});

/** A piece that is to be given the prep of its kind. */
export async function prepOfPiece(
  act: Pick<Doing, 'tx'>,
  { id, kind, ownerId }: Pick<Piece, 'id' | 'kind' | 'ownerId'>,
): Promise<Unprepared> {
  const day = (await listAnchors(act.tx, [id])).get(id) ?? null;
  return { postId: null, pieceId: id, subject: ofPiece(kind), day, ownerId };
}

const NOT_DONE = { pinned: null, doneAt: null, doneOn: null, doneBy: null } as const;

/** What a step is told to be. The day it was done is the one that instant had in the zone. */
export const asTold = (
  { ownerId, pinned, doneAt, doneBy }: ToldStep,
  zone: Zone,
): Pick<Step, 'ownerId' | 'pinned' | 'doneAt' | 'doneOn' | 'doneBy'> => ({
  ...{ ownerId, pinned, doneAt, doneBy: doneAt && doneBy, doneOn: doneAt && localOf(doneAt, zone).date },
});

/** Gives posts and pieces of a brand the prep of their subjects. */
export async function givePrep(
  act: Pick<Doing, 'tx' | 'now' | 'ids'>,
  brandId: string,
  unprepared: readonly Unprepared[],
): Promise<void> {
  if (unprepared.length === 0) return;
  const lines = await readPrepLines(act.tx, brandId);
  const people = await listPeopleOfBrand(act.tx, brandId);
  const { zone } = await oneBrand(act.tx, brandId);
  const plannedOn = localOf(act.now, zone).date;
  const count = await readCounting(
    act.tx,
    brandId,
    people.map(({ id }) => id),
  );
  const steps = unprepared.flatMap(({ postId, pieceId, subject, day, ownerId, lines: given, leftOut }) => {
    const own = (given ?? lines(subject))
      .filter(({ title }) => !leftOut?.has(title))
      .map((line, position): Omit<Step, 'version'> => ({
        ...line,
        id: act.ids(),
        brandId,
        postId,
        pieceId,
        position: position + 1,
        ...(isTold(line) ? asTold(line, zone) : { ...NOT_DONE, ownerId: whoDoes(line, people, ownerId) }),
        day: null,
        plannedOn: null,
      }));
    const days = count(day, own);
    return own.map((step, index) => ({
      ...step,
      day: days[index]!,
      plannedOn: days[index] === null ? null : plannedOn,
    }));
  });
  await insertSteps(act.tx, steps);
}

/** Replaces the open steps of a post or piece by those of its prep sheet that are not done yet, most lead first. */
export async function replacePrep(
  act: Doing,
  brandId: string,
  holderId: string,
  unprepared: Unprepared,
): Promise<void> {
  await deleteOpenSteps(act.tx, holderId);
  const done = await listStepsOf(act.tx, [holderId]);
  await givePrep(act, brandId, [{ ...unprepared, leftOut: new Set(done.map(({ title }) => title)) }]);
  const all = await listStepsOf(act.tx, [holderId]);
  const inOrder = [...all].sort((a, b) => b.lead - a.lead).map(({ id }) => id);
  await orderSteps(act.tx, holderId, inOrder);
}

/** A post that has another format than it had. */
interface Reformatted {
  post: Parameters<typeof prepOfPost>[0];
  was: Format;
}

/**
 * Gives posts that have another format the prep of that. Open steps of the old format's prep that the new one lacks go; what
 * was done stays, and so does what somebody added.
 */
export async function followFormats(
  act: Pick<Doing, 'tx' | 'now' | 'ids'>,
  brandId: string,
  posts: readonly Reformatted[],
): Promise<void> {
  if (posts.length === 0) return;
  const lines = await readPrepLines(act.tx, brandId);
  const titlesOf = (format: Format) => new Set(lines(format).map(({ title }) => title));
  const ids = posts.map(({ post }) => post.id);
  const present = groupBy(await listStepsOf(act.tx, ids), holderOf);
  const left: Unprepared[] = [];
  const gone: string[] = [];
  for (const { post, was } of posts) {
    const [before, after] = [titlesOf(was), titlesOf(post.format)];
    const steps = present.get(post.id) ?? [];
    const out = steps.filter(({ title, doneAt }) => doneAt === null && before.has(title) && !after.has(title));
    gone.push(...out.map(({ id }) => id));
    left.push({
      ...prepOfPost(post),
      leftOut: new Set(steps.filter((step) => !out.includes(step)).map(({ title }) => title)),
    });
  }
  await deleteSteps(act.tx, gone);
  await givePrep(act, brandId, left);
  const all = groupBy(await listStepsOf(act.tx, ids), holderOf);
  await placeSteps(
    act.tx,
    [...all.values()].flatMap((steps) =>
      [...steps].sort((a, b) => b.lead - a.lead).map(({ id }, index) => ({ id, position: index + 1 })),
    ),
  );
}

/** The prep of each subject in a brand: its own, or the one that ships. */
export async function readPrepLines(
  db: Queryable,
  brandId: string,
): Promise<(subject: PrepSubject) => readonly PrepLine[]> {
  const own = new Map((await listPrepSheets(db, brandId)).map(({ subject, lines }) => [subject, lines]));
  return (subject) => own.get(subject) ?? SHIPPED_PREP[subject];
}
