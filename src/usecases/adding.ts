import { groupBy } from '@/core/group';
import { SHIPPED_PREP } from '@/core/prep/shipped';
import { whoDoes } from '@/core/prep/who';
import type { PrepLine } from '@/core/prep/step';
import type { Format } from '@/core/rulesheets/types';
import { localOf } from '@/core/time/plan';
import { oneBrand } from '@/data/brands';
import type { Queryable } from '@/data/db';
import { listPeopleOfBrand } from '@/data/people';
import { insertPosts } from '@/data/posts';
import { listPrepSheets } from '@/data/prepSheets';
import { insertSteps, type Step } from '@/data/steps';
import { readCounting } from './counting';
import type { Doing } from './work';

/** A post to be made, as far as its prep depends on it. */
type NewPost = Parameters<typeof insertPosts>[1][number];

/** Adds posts with the prep of their formats, counted back from their days. What is published already gets none. */
export async function addPosts(act: Doing, posts: readonly NewPost[]): Promise<void> {
  await insertPosts(act.tx, posts);
  for (const [brandId, own] of groupBy(posts, (post) => post.brandId))
    await givePrep(
      act,
      brandId,
      own.filter(({ stage }) => stage !== 'published' && stage !== 'setAside'),
    );
}

/** Gives posts of a brand the prep of their formats, the steps with the titles named left out. */
export async function givePrep(
  act: Pick<Doing, 'tx' | 'now' | 'ids'>,
  brandId: string,
  posts: readonly Pick<NewPost, 'id' | 'format' | 'date' | 'ownerId'>[],
  leftOut: ReadonlySet<string> = new Set(),
): Promise<void> {
  if (posts.length === 0) return;
  const lines = await readPrepLines(act.tx, brandId);
  const people = await listPeopleOfBrand(act.tx, brandId);
  const plannedOn = localOf(act.now, (await oneBrand(act.tx, brandId)).zone).date;
  const count = await readCounting(
    act.tx,
    brandId,
    people.map(({ id }) => id),
  );
  const steps = posts.flatMap((post) => {
    const own = lines(post.format)
      .filter(({ title }) => !leftOut.has(title))
      .map((line, position): Omit<Step, 'version'> => ({
        ...line,
        id: act.ids(),
        brandId,
        postId: post.id,
        position: position + 1,
        ownerId: whoDoes(line, people, post.ownerId),
        pinned: null,
        day: null,
        plannedOn: null,
        doneAt: null,
        doneOn: null,
        doneBy: null,
      }));
    const days = count(post.date, own);
    return own.map((step, index) => ({
      ...step,
      day: days[index]!,
      plannedOn: days[index] === null ? null : plannedOn,
    }));
  });
  await insertSteps(act.tx, steps);
}

/** The prep of each format in a brand: its own, or the one that ships. */
async function readPrepLines(db: Queryable, brandId: string): Promise<(format: Format) => readonly PrepLine[]> {
  const own = new Map((await listPrepSheets(db, brandId)).map(({ format, lines }) => [format, lines]));
  return (format) => own.get(format) ?? SHIPPED_PREP[format];
}
