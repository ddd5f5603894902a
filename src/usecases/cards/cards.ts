import { altOfCard, cardColours, readCard, wordsFor, type Card, type CardColours } from '@/core/cards/card';
import { AS_IT_IS } from '@/core/media/fit';
import { isVideo } from '@/core/media/video';
import { accept, refuse, type Result } from '@/core/refusal';
import { quoted } from '@/core/calendar/change';
import { listBrandAssets } from '@/data/brands/brandAssets';
import type { Db } from '@/data/database/db';
import { maybeLibraryFile, insertLibraryFiles } from '@/data/media/library';
import { listPictures, listWithFollowingCards, type Picture } from '@/data/media/media';
import { lostFile } from '@/core/media/lost';
import { takeMedia, type MediaFile } from '@/data/media/mediaFiles';
import { hasFile, readPictureFile } from '@/data/media/mediaPaths';
import type { CardFonts } from '@/data/cards/cardFonts';
import { drawCardApart } from '@/data/cards/drawing';
import { drawnPath } from '@/data/media/drawings';
import { maybePost } from '@/data/posts/posts';
import { changePictures, type PictureOutcome } from '../media/pictures';
import { takePost } from '../posts/takePosts';
import { mayRead } from '../rights/mustMay';
import { doing, notFound, refused, type Work } from '../useCase';

/** A use case that reads and writes picture files. */
export type FileWork = Work & {
  /** Where they lie. */
  folder: string;
};

/** Draws a card as it would look, for somebody who may look at the brand. Nothing is kept. */
export async function drawCardFor(work: FileWork, brandId: string, card: Card): Promise<Result<Uint8Array>> {
  const allowed = await mayRead(work, 'look', brandId);
  return allowed.ok ? draw(work, brandId, card) : allowed;
}

/**
 * Sets words as a picture and attaches it to a post, with its alt text, or puts it in the place of a card the post has.
 *
 * @param replaces the picture whose place it takes; null to come after all
 */
export async function attachCard(
  work: FileWork,
  postId: string,
  card: Card,
  replaces: string | null,
  isByItself = false,
): Promise<Result<PictureOutcome>> {
  const post = await maybePost(work.db, postId);
  if (!post || post.deletedAt) return { ok: false, refusal: notFound('post') };
  const allowed = await mayRead(work, 'changePosts', post.brandId);
  if (!allowed.ok) return allowed;
  const made = await make(work, post.brandId, card);
  return made.ok ? put(work, postId, made.value, replaces, isByItself) : made;
}

/**
 * Sets the cards of a post anew whose words have changed since, as long as nothing of it is scheduled or out. One that the words
 * no longer fit on stays as it was.
 *
 * @returns how many were set anew
 * @internal
 */
export async function followCards(work: FileWork, postId: string): Promise<number> {
  const post = await maybePost(work.db, postId);
  if (!post || post.deletedAt || ['scheduled', 'published', 'setAside'].includes(post.stage)) return 0;
  let anew = 0;
  for (const { id, card } of await listPictures(work.db, postId)) {
    const text = card ? wordsFor(card, post) : null;
    if (!card || text === null || text.replace(/\s+/g, ' ') === card.text) continue;
    const made = await make(work, post.brandId, { ...card, text });
    if (made.ok && (await put(work, postId, made.value, id, true)).ok) anew++;
  }
  return anew;
}

/** Does the same for those of many posts that have cards which follow their words. */
export async function followCardsOf(work: FileWork, postIds: readonly string[]): Promise<void> {
  for (const id of await listWithFollowingCards(work.db, postIds)) await followCards(work, id);
}

/** The colours that the cards of a brand come in, for somebody who may look at it. */
export async function loadCardColours(work: Work, brandId: string): Promise<Result<CardColours[]>> {
  const allowed = await mayRead(work, 'look', brandId);
  if (!allowed.ok) return allowed;
  const assets = await listBrandAssets(work.db, brandId);
  return accept(cardColours(assets.filter(({ kind }) => kind === 'colour').map(({ value }) => value)));
}

/** The font that words on the pictures of a brand are set in, for somebody who may look at it; null where it has no file of one. */
export async function loadCardFont(work: FileWork, brandId: string): Promise<Result<Uint8Array | null>> {
  const allowed = await mayRead(work, 'look', brandId);
  return allowed.ok ? accept((await fontsOf(work.db, work.folder, brandId)).words?.bytes ?? null) : allowed;
}

/** A card that was drawn and stored. */
type Made = MediaFile & { card: Card };

async function make(work: FileWork, brandId: string, wanted: Card): Promise<Result<Made>> {
  const read = readCard(wanted);
  if (!read.ok) return read;
  const drawn = await draw(work, brandId, read.value);
  if (!drawn.ok) return drawn;
  const stored = await takeMedia(work.folder, drawn.value, `${read.value.text.slice(0, 60)}.png`);
  return stored.ok ? accept({ ...stored.value, card: read.value }) : stored;
}

async function draw({ db, folder }: { db: Db; folder: string }, brandId: string, wanted: Card) {
  const read = readCard(wanted);
  if (!read.ok) return read;
  const card = read.value;
  const fonts = await fontsOf(db, folder, brandId);
  if (card.picture === null) return drawCardApart(card, null, fonts);
  const file = await maybeLibraryFile(db, brandId, card.picture);
  if (!file || isVideo(file))
    return refuse('noPicture', 'That picture is not in the library. Choose another.', 'picture');
  if (!hasFile(folder, file.sha256)) return refuse('lostFile', lostFile(file.fileName), 'picture');
  return drawCardApart(card, await drawnPath(folder, file, 'drawn'), fonts);
}

/** The fonts on the sheet of a brand that have a file: the first for words, the next, if there is one, for the line below them. */
async function fontsOf(db: Db, folder: string, brandId: string): Promise<CardFonts> {
  const assets = (await listBrandAssets(db, brandId)).filter(({ kind, sha256 }) => kind === 'font' && sha256 !== null);
  const read = async (at: number) => {
    const sha256 = assets[at]?.sha256;
    return sha256 && hasFile(folder, sha256) ? { sha256, bytes: await readPictureFile(folder, sha256) } : undefined;
  };
  const [words, by = words] = await Promise.all([read(0), read(1)]);
  return { ...(words && { words }), ...(by && { by }) };
}

function put(work: Work, postId: string, { card, ...stored }: Made, replaces: string | null, isByItself: boolean) {
  return doing(work, async (act) => {
    const open = await takePost(act, postId, 'changePosts');
    const pictureId = act.ids();
    const old = open.pictures.find(({ id }) => id === replaces);
    if (replaces !== null && !old) refused(notFound('picture'));
    // What somebody wrote of the old one stays.
    const wasDescribed = old && old.alt !== '' && (!old.card || old.alt !== altOfCard(old.card));
    const added: Picture = {
      ...AS_IT_IS,
      ...stored,
      ...{ id: pictureId, postId, card, position: open.pictures.length + 1 },
      alt: wasDescribed ? old.alt : altOfCard(card),
    };
    await insertLibraryFiles(act.tx, [{ ...stored, brandId: open.post.brandId, addedAt: act.now }]);
    const pictures = old ? open.pictures.map((one) => (one === old ? added : one)) : [...open.pictures, added];
    return changePictures(
      act,
      open,
      pictures,
      {
        deed: old ? 'card set anew' : 'card added',
        told: isByItself ? null : `Set words as a picture of ${quoted(open.post.title)}`,
      },
      { pictureId, fileName: stored.fileName },
      new Map(old ? [[old.id, pictureId]] : []),
    );
  });
}
