import { accept, refuse, type Result } from '../refusal';
import { readHashtags, unreadHashtags } from '../captions/hashtags';
import { readHex } from '../brands/colours';
import { readTitle } from '../pieces/piece';
import { readFits, type Fits } from './fits';
import { isWebLink } from '../posts/readiness';

/** What lies on the shelf to be put into a text. */
export const SHELF_KINDS = ['hashtags', 'callToAction', 'link', 'quote', 'reply'] as const;
export type ShelfKind = (typeof SHELF_KINDS)[number];

/** What people read for each kind: one, and many. */
export const SHELF_LABELS: Record<ShelfKind, { one: string; many: string }> = {
  hashtags: { one: 'hashtag set', many: 'Hashtag sets' },
  callToAction: { one: 'call to action', many: 'Calls to action' },
  link: { one: 'link', many: 'Links' },
  quote: { one: 'quote', many: 'Quotes' },
  reply: { one: 'reply', many: 'Replies' },
};

/** What is written of an item. */
export interface ShelfWords {
  kind: ShelfKind;
  title: string;
  text: string;
  /** Who said it or where it stands; for quotes. */
  source: string;
  /** For what drafts it holds; absent or empty for any. */
  fits?: Fits;
}

/** An item of the shelf. */
export interface ShelfItem extends Required<ShelfWords> {
  id: string;
  version: number;
  /** In how many posts it was put. */
  uses: number;
  /** The instant it was put into a post last; null for never. */
  lastUsedAt: string | null;
}

/** Characters (UTF-16 units) kept of an item. */
const SHELF_TEXT_MOST = 10_000;

/** Checks an item. Hashtags get their signs; a link has to be one. */
export function readShelfWords({ kind, title, text, source, fits = {} }: ShelfWords): Result<ShelfWords> {
  const name = readTitle(title);
  if (!name.ok) return name;
  if (text.trim() === '') return refuse('emptyText', 'What is to be put into a text? Write it here.', 'text');
  if (text.length > SHELF_TEXT_MOST || source.length > 500)
    return refuse('longText', 'The shelf keeps 10,000 characters of an item, and 500 of its source.', 'text');
  if (kind === 'link' && !isWebLink(text))
    return refuse('badLink', 'A link begins with http:// or https:// and names a host.', 'text');
  const tags = readHashtags(text);
  const [unread] = kind === 'hashtags' ? unreadHashtags(text) : [];
  if (unread !== undefined)
    return refuse(
      'badHashtag',
      `“${unread.slice(0, 40)}” cannot be a hashtag: letters, digits and _ only, and not digits alone.`,
      'text',
    );
  if (kind === 'hashtags' && tags.length === 0)
    return refuse('noHashtags', 'Write at least one hashtag, for example #NightSky.', 'text');
  const read = readFits(fits);
  if (!read.ok) return read;
  return accept({
    kind,
    fits: read.value,
    title: name.value,
    text: kind === 'hashtags' ? tags.join(' ') : text.trim(),
    source: source.trim(),
  });
}

/** What an item puts into a text. A quote brings its source. */
export const insertedText = ({ kind, text, source }: Pick<ShelfWords, 'kind' | 'text' | 'source'>): string =>
  kind === 'quote' ? `“${text}”${source === '' ? '' : ` (${source})`}` : text;

/** Somebody or some place to name, with what they are called on networks. */
export interface Name {
  id: string;
  kind: 'person' | 'place';
  name: string;
  /** By the slug of the rule sheet; each begins with @. */
  handles: Record<string, string>;
  version: number;
}

/** Checks a name. A handle is one word; it gets its @. */
export function readName({ name, handles, kind }: Omit<Name, 'id' | 'version'>): Result<Omit<Name, 'id' | 'version'>> {
  const read = readTitle(name, 'name');
  if (!read.ok) return read;
  const kept: Record<string, string> = {};
  for (const [network, typed] of Object.entries(handles)) {
    const handle = typed.trim().replace(/^@/, '');
    if (handle === '') continue;
    if (/[\s@]/u.test(handle) || handle.length > 100)
      return refuse('badHandle', `“${typed.trim()}” is not a handle: one word, up to 100 characters.`, 'handles');
    kept[network] = `@${handle}`;
  }
  return accept({ name: read.value, handles: kept, kind });
}

/** How somebody is named on a network: by the handle there, or by name. */
export const mentionOf = ({ name, handles }: Pick<Name, 'name' | 'handles'>, network: string): string =>
  handles[network] ?? name;

/** What stands on the brand sheet. */
export const ASSET_KINDS = ['colour', 'font', 'logo', 'portrait'] as const;
export type AssetKind = (typeof ASSET_KINDS)[number];

export const ASSET_LABELS: Record<AssetKind, string> = {
  colour: 'Colours',
  font: 'Fonts',
  logo: 'Logos',
  portrait: 'Portraits',
};

/** Checks what a colour or a font of the brand sheet is called and is. */
export function readAsset(kind: AssetKind, name: string, value: string): Result<{ name: string; value: string }> {
  const read = readTitle(name, 'name');
  if (!read.ok) return read;
  if (kind !== 'colour') return accept({ name: read.value, value: value.trim().slice(0, 500) });
  const hex = readHex(value);
  return hex.ok ? accept({ name: read.value, value: hex.value }) : hex;
}
