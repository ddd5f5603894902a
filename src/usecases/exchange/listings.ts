import type { ListColumn, ListedExtract, ListedPicture, Lists } from '@/core/exchange/lists';
import type { RowLists, RowStep } from '@/core/exchange/planImport';
import { groupBy } from '@/core/group';
import { AS_IT_IS } from '@/core/media/fit';
import type { Queryable } from '@/data/database/db';
import { listExtractsOfPosts } from '@/data/fanOut/postExtracts';
import { listLibraryFilesBy } from '@/data/media/library';
import { listPicturesOf, type Picture } from '@/data/media/media';
import type { Post } from '@/data/posts/posts';
import { listStepsOf, type Step } from '@/data/prep/steps';

/** The text of a piece as it is read; null where it has none, or is not read yet. */
export type TextOfPiece = (pieceId: string) => Promise<string | null>;

/** What posts have of what a file holds as lists, by their ids. */
interface Listings {
  pictures: ReadonlyMap<string, readonly Picture[]>;
  steps: ReadonlyMap<string, readonly Step[]>;
  /** Those whose piece can be read. */
  extracts: ReadonlyMap<string, readonly ListedExtract[]>;
}

/** Reads what posts have of these lists. */
export async function readListings(
  db: Queryable,
  postIds: readonly string[],
  columns: ReadonlySet<ListColumn>,
  textOf: TextOfPiece,
): Promise<Listings> {
  const asked = <T>(list: ListColumn, read: () => Promise<T[]>): Promise<T[]> =>
    columns.has(list) && postIds.length > 0 ? read() : Promise.resolve([]);
  const pictures = await asked('media', () => listPicturesOf(db, postIds));
  const steps = await asked('steps', () => listStepsOf(db, postIds));
  const extracts = new Map<string, ListedExtract[]>();
  for (const { postId, pieceId, kind, start, end } of await asked('extracts', () => listExtractsOfPosts(db, postIds))) {
    const text = await textOf(pieceId);
    if (text !== null)
      extracts.set(postId, [...(extracts.get(postId) ?? []), { kind, start, text: text.slice(start, end) }]);
  }
  return {
    pictures: groupBy(pictures, ({ postId }) => postId),
    steps: groupBy(steps, ({ postId }) => postId!),
    extracts,
  };
}

/** What a file tells of a post as lists. @param nameOf the names of people */
export function listsOf(
  { parts, ...post }: Pick<Post, 'id' | 'parts'>,
  { pictures, steps, extracts }: Listings,
  nameOf: (personId: string | null) => string,
): Lists {
  const own = pictures.get(post.id) ?? [];
  return {
    parts: parts.map(({ text, pictureId }) => {
      const at = own.findIndex(({ id }) => id === pictureId);
      return { text, picture: at < 0 ? null : at + 1 };
    }),
    media: own.map(({ fileName, sha256, alt, crop, toMime, toBytes, card }) => ({
      ...{ file: fileName, sha256, alt, crop, toMime, toBytes, card: card ?? null },
    })),
    steps: (steps.get(post.id) ?? []).map((step) => ({
      ...{ title: step.title, work: step.work, who: nameOf(step.ownerId), craft: step.craft },
      ...{ lead: step.lead, leadIn: step.leadIn, minutes: step.minutes, note: step.note, needed: step.needed },
      ...{ ticksItself: step.ticksItself, pinned: step.pinned, doneAt: step.doneAt, doneBy: nameOf(step.doneBy) },
    })),
    extracts: [...(extracts.get(post.id) ?? [])],
  };
}

/** A file of a library, as a post that shows it holds it. */
type Shown = Omit<Picture, 'id' | 'postId' | 'position'>;
/** The files that rows name, by content and by name. */
export type NamedFiles = (listed: ListedPicture) => Shown | null;

/** Reads the files of a brand's library that these rows name. */
export async function readNamedFiles(
  db: Queryable,
  brandId: string,
  rows: readonly { lists: RowLists }[],
): Promise<NamedFiles> {
  const listed = rows.flatMap(({ lists }) => lists.media ?? []);
  if (listed.length === 0) return () => null;
  const hashes = [...new Set(listed.flatMap(({ sha256 }) => sha256 ?? []))];
  const files = await listLibraryFilesBy(db, brandId, {
    hashes,
    fileNames: [...new Set(listed.map(({ file }) => file))],
  });
  const byContent = new Map(files.map((file) => [file.sha256, file]));
  const byName = new Map(files.map((file) => [file.fileName, file]));
  return ({ file, sha256, card }) => {
    const found = byContent.get(sha256 ?? '') ?? byName.get(file);
    return found ? { ...AS_IT_IS, ...found, alt: '', card: found.sha256 === sha256 ? card : null } : null;
  };
}

/** The pictures that a row gives its post. */
interface PicturesOfRow {
  /** In their order; those of the post that stay keep their ids. */
  pictures: Picture[];
  /** The picture of each number in the row; null for a file that is not there. */
  byNumber: (Picture | null)[];
  /** Names of files that are not there. */
  lacking: string[];
}

/** Finds the pictures that a row names: first those that its post has, then those of the library. */
export function picturesOfRow(
  media: readonly ListedPicture[],
  present: readonly Picture[],
  files: NamedFiles,
  ids: () => string,
): PicturesOfRow {
  const left = new Set(present);
  const takeFirst = (is: (picture: Picture) => boolean): Picture | undefined => {
    const found = present.find((picture) => left.has(picture) && is(picture));
    if (found) left.delete(found);
    return found;
  };
  // What is meant by its content is not given away to another of its name.
  const own = media.map(({ sha256 }) => takeFirst((picture) => picture.sha256 === sha256));
  const byNumber = media.map((listed, index): Picture | null => {
    const { alt, crop, toMime, toBytes } = listed;
    const said = { alt, crop, toMime, toBytes };
    const stays = own[index] ?? takeFirst((picture) => picture.fileName === listed.file);
    if (stays) {
      const isAsBefore = JSON.stringify(recipeOf(stays)) === JSON.stringify(recipeOf(said));
      return { ...stays, ...said, rendered: isAsBefore ? stays.rendered! : null };
    }
    const file = files(listed);
    return file && { ...file, ...said, id: ids(), postId: '', position: 0 };
  });
  return {
    pictures: byNumber.filter((picture) => picture !== null),
    byNumber,
    lacking: media.flatMap(({ file }, index) => (byNumber[index] === null ? [file] : [])),
  };
}

const recipeOf = ({ crop, toMime, toBytes }: Pick<Picture, 'crop' | 'toMime' | 'toBytes'>) => [
  crop && [crop.x, crop.y, crop.width, crop.height],
  toMime,
  toBytes,
];

/** Whether pictures are these ones, in this order, described and made ready as they are. */
export const arePictures = (one: readonly Picture[], other: readonly Picture[]): boolean => {
  const told = (pictures: readonly Picture[]) =>
    JSON.stringify(pictures.map((picture) => [picture.id, picture.alt, recipeOf(picture)]));
  return told(one) === told(other);
};

/** The parts that a row gives a post: what stands at a place stays the part that it was. */
export function partsOfRow(
  parts: NonNullable<RowLists['parts']>,
  present: Post['parts'],
  byNumber: readonly (Pick<Picture, 'id'> | null)[],
  ids: () => string,
): Post['parts'] {
  return parts.map(({ text, picture }, at) => ({
    id: present[at]?.id ?? ids(),
    text,
    pictureId: (picture === null ? null : byNumber[picture - 1]?.id) ?? present[at]?.pictureId ?? null,
  }));
}

const STEP_WORDS = [
  ...(['title', 'work', 'ownerId', 'craft', 'lead', 'leadIn', 'minutes', 'note', 'needed', 'ticksItself'] as const),
  ...(['pinned', 'doneAt'] as const),
] as const;

/** Whether a step is as a row tells it. */
export const isStep = (told: RowStep, step: Step): boolean =>
  STEP_WORDS.every((field) =>
    field === 'doneAt'
      ? (told.doneAt && Date.parse(told.doneAt)) === (step.doneAt && Date.parse(step.doneAt))
      : told[field] === step[field],
  );

/** Whether extracts are those that a row tells, whatever is told of where they stand. */
export const areExtracts = (told: readonly ListedExtract[], present: readonly ListedExtract[]): boolean => {
  const known = (list: readonly ListedExtract[]) => list.map(({ kind, text }) => `${kind === 'clip'} ${text}`).sort();
  return JSON.stringify(known(told)) === JSON.stringify(known(present));
};
