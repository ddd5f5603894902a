import {
  readAsset,
  readName,
  readShelfWords,
  type AssetKind,
  type Name,
  type ShelfItem,
  type ShelfWords,
} from '@/core/shelf/shelf';
import { quoted } from '@/core/calendar/change';
import type { Result } from '@/core/refusal';
import { deleteBrandAsset, insertBrandAsset, listBrandAssets, type BrandAsset } from '@/data/brands/brandAssets';
import type { Db } from '@/data/database/db';
import { maybePost } from '@/data/posts/posts';
import {
  existsShelfItem,
  insertNames,
  insertShelfItems,
  listNames,
  listShelf,
  noteShelfUses,
  updateName,
  updateShelfItem,
  updateShelfDeleted,
} from '@/data/shelf/shelf';
import type { StoredPicture } from '../media/pictures';
import { mustMay } from '../rights/mustMay';
import { undoably } from '../undo/undoably';
import { doing, must, notFound, refused, STALE, type Work } from '../useCase';

/** All that a brand keeps in reach. */
export interface Shelf {
  items: ShelfItem[];
  names: Name[];
  assets: BrandAsset[];
}

/** The shelf of a brand. */
export async function loadShelf(db: Db, brandId: string): Promise<Shelf> {
  const [items, names, assets] = await Promise.all([
    listShelf(db, brandId),
    listNames(db, brandId),
    listBrandAssets(db, brandId),
  ]);
  return { items, names, assets };
}

/** Which row is meant: a new one, or a known one as it was seen. */
interface Known {
  id: string;
  version: number;
}

/** Puts an item on the shelf, or changes one. */
export function keepShelfItem(
  work: Work,
  brandId: string,
  known: Known | null,
  words: ShelfWords,
): Promise<Result<Shelf['items']>> {
  return doing(work, async (act) => {
    await mustMay(act, 'keepShelf', brandId);
    const read = must(readShelfWords(words));
    const id = known?.id ?? act.ids();
    const label = `${known ? 'Changed' : 'Put'} ${quoted(read.title)} on the shelf`;
    await undoably(act, { brandId, label, things: [{ name: 'shelfItem', id }] }, async () => {
      if (!known) await insertShelfItems(act.tx, [{ ...read, id, brandId, createdAt: act.now }]);
      else if (!(await updateShelfItem(act.tx, { ...read, id, version: known.version, brandId }))) refused(STALE);
    });
    return listShelf(act.tx, brandId);
  });
}

/** Takes an item from the shelf, or puts it back. Posts keep what was put into them. */
export function dropShelfItem(
  work: Work,
  brandId: string,
  id: string,
  isDropped: boolean,
): Promise<Result<Shelf['items']>> {
  return doing(work, async (act) => {
    await mustMay(act, 'keepShelf', brandId);
    const label = isDropped ? 'Took an item from the shelf' : 'Put an item back on the shelf';
    await undoably(act, { brandId, label, things: [{ name: 'shelfItem', id }] }, async () => {
      if (!(await updateShelfDeleted(act.tx, 'shelf_items', brandId, id, isDropped ? act.now : null)))
        refused(notFound('item of the shelf'));
    });
    return listShelf(act.tx, brandId);
  });
}

/** Notes that an item was put into a post of its brand. */
export function noteShelfUse(work: Work, itemId: string, postId: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    const post = (await maybePost(act.tx, postId)) ?? refused(notFound('post'));
    await mustMay(act, 'keepShelf', post.brandId);
    if (!(await existsShelfItem(act.tx, post.brandId, itemId))) refused(notFound('item of the shelf'));
    await noteShelfUses(act.tx, [{ itemId, postId, at: act.now }]);
    return true as const;
  });
}

/** Adds somebody or some place to name, or changes them. */
export function keepName(
  work: Work,
  brandId: string,
  known: Known | null,
  name: Omit<Name, 'id' | 'version'>,
): Promise<Result<Name[]>> {
  return doing(work, async (act) => {
    await mustMay(act, 'keepShelf', brandId);
    const read = must(readName(name));
    const id = known?.id ?? act.ids();
    const label = `${known ? 'Changed' : 'Added'} the name ${quoted(read.name)}`;
    await undoably(act, { brandId, label, things: [{ name: 'name', id }] }, async () => {
      if (!known) await insertNames(act.tx, [{ ...read, id, brandId }]);
      else if (!(await updateName(act.tx, { ...read, id, version: known.version, brandId }))) refused(STALE);
    });
    return listNames(act.tx, brandId);
  });
}

/** Takes a name from the list, or puts it back. */
export function dropName(work: Work, brandId: string, id: string, isDropped: boolean): Promise<Result<Name[]>> {
  return doing(work, async (act) => {
    await mustMay(act, 'keepShelf', brandId);
    const label = isDropped ? 'Took a name from the list' : 'Put a name back on the list';
    await undoably(act, { brandId, label, things: [{ name: 'name', id }] }, async () => {
      if (!(await updateShelfDeleted(act.tx, 'names', brandId, id, isDropped ? act.now : null)))
        refused(notFound('name'));
    });
    return listNames(act.tx, brandId);
  });
}

/** Puts something on the brand sheet: a colour or font by its value, a logo or portrait with its stored file. */
export function keepAsset(
  work: Work,
  brandId: string,
  asset: { kind: AssetKind; name: string; value: string },
  file: Pick<StoredPicture, 'sha256' | 'mime' | 'bytes' | 'fileName'> | null,
): Promise<Result<BrandAsset[]>> {
  return doing(work, async (act) => {
    await mustMay(act, 'keepShelf', brandId);
    const read = must(readAsset(asset.kind, asset.name, asset.value));
    if (file === null && (asset.kind === 'logo' || asset.kind === 'portrait'))
      refused({ code: 'noFile', field: 'file', message: 'A logo or portrait is a picture file. Choose it.' });
    const [id, label] = [act.ids(), `Added ${quoted(read.name)} to the brand sheet`];
    await undoably(act, { brandId, label, things: [{ name: 'brandAsset', id }] }, () =>
      insertBrandAsset(act.tx, {
        ...read,
        kind: asset.kind,
        id,
        brandId,
        sha256: file?.sha256 ?? null,
        mime: file?.mime ?? null,
        bytes: file?.bytes ?? null,
        fileName: file?.fileName ?? null,
      }),
    );
    return listBrandAssets(act.tx, brandId);
  });
}

/** Takes something from the brand sheet. Its file stays until no row points to it. */
export function dropAsset(work: Work, brandId: string, id: string): Promise<Result<BrandAsset[]>> {
  return doing(work, async (act) => {
    await mustMay(act, 'keepShelf', brandId);
    const label = 'Took something from the brand sheet';
    await undoably(act, { brandId, label, things: [{ name: 'brandAsset', id }] }, async () => {
      if (!(await deleteBrandAsset(act.tx, brandId, id))) refused(notFound('part of the brand sheet'));
    });
    return listBrandAssets(act.tx, brandId);
  });
}
