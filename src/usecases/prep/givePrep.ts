import { SHIPPED_PREP } from '@/core/prep/shipped';
import { ofPiece, type PrepSubject } from '@/core/prep/subject';
import { whoDoes } from '@/core/prep/who';
import type { PrepLine } from '@/core/prep/step';
import { localOf, type LocalDate } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import type { Queryable } from '@/data/database/db';
import { listPeopleOfBrand } from '@/data/people/people';
import type { Piece } from '@/data/pieces/pieces';
import { listAnchors, type Post } from '@/data/posts/posts';
import { listPrepSheets } from '@/data/prep/prepSheets';
import { deleteOpenSteps, insertSteps, listStepsOf, orderSteps, type Step } from '@/data/prep/steps';
import { readCounting } from './countPrep';
import type { Doing } from '../useCase';

/** Who is to be given prep: a post or a piece. */
export interface Unprepared extends Pick<Step, 'postId' | 'pieceId'> {
  subject: PrepSubject;
  /** The day it counts back from; null while there is none. */
  day: LocalDate | null;
  ownerId: string;
  /** Steps of its own in the place of those of its subject. */
  lines?: readonly PrepLine[] | undefined;
}

/** A post that is to be given the prep of its format, or steps of its own. */
export const prepOfPost = ({
  id,
  format,
  date,
  ownerId,
  prep,
}: Pick<Post, 'id' | 'format' | 'date' | 'ownerId'> & { prep?: readonly PrepLine[] }): Unprepared => ({
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

/** Gives posts and pieces of a brand the prep of their subjects, the steps with the titles named left out. */
export async function givePrep(
  act: Pick<Doing, 'tx' | 'now' | 'ids'>,
  brandId: string,
  unprepared: readonly Unprepared[],
  leftOut: ReadonlySet<string> = new Set(),
): Promise<void> {
  if (unprepared.length === 0) return;
  const lines = await readPrepLines(act.tx, brandId);
  const people = await listPeopleOfBrand(act.tx, brandId);
  const plannedOn = localOf(act.now, (await oneBrand(act.tx, brandId)).zone).date;
  const count = await readCounting(
    act.tx,
    brandId,
    people.map(({ id }) => id),
  );
  const steps = unprepared.flatMap(({ postId, pieceId, subject, day, ownerId, lines: given }) => {
    const own = (given ?? lines(subject))
      .filter(({ title }) => !leftOut.has(title))
      .map((line, position): Omit<Step, 'version'> => ({
        ...line,
        id: act.ids(),
        brandId,
        postId,
        pieceId,
        position: position + 1,
        ownerId: whoDoes(line, people, ownerId),
        pinned: null,
        day: null,
        plannedOn: null,
        doneAt: null,
        doneOn: null,
        doneBy: null,
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
  await givePrep(act, brandId, [unprepared], new Set(done.map(({ title }) => title)));
  const all = await listStepsOf(act.tx, [holderId]);
  const inOrder = [...all].sort((a, b) => b.lead - a.lead).map(({ id }) => id);
  await orderSteps(act.tx, holderId, inOrder);
}

/** The prep of each subject in a brand: its own, or the one that ships. */
export async function readPrepLines(
  db: Queryable,
  brandId: string,
): Promise<(subject: PrepSubject) => readonly PrepLine[]> {
  const own = new Map((await listPrepSheets(db, brandId)).map(({ subject, lines }) => [subject, lines]));
  return (subject) => own.get(subject) ?? SHIPPED_PREP[subject];
}
