import type { Parcel, ParcelPicture } from '../delivery/network';
import { isVideo } from '../media/video';
import { leavingName } from '../media/fit';
import { withoutEnds } from '../text/ends';
import type { LocalDate, LocalTime } from '../time/plan';
import { writeCsvRows } from './csvText';

/** A post that is taken away, as it would leave. */
export interface TakenPost {
  channel: string;
  title: string;
  date: LocalDate | null;
  time: LocalTime | null;
  stage: string;
  address: string;
  parcel: Parcel;
  /** What its fields are called on its network. */
  labels: Readonly<Record<string, string>>;
}

/** A file that is taken away: a text, or a picture or video as it leaves or as it was taken in. */
export type TakenFile =
  { path: string; text: string } | { path: string; picture: ParcelPicture; as: 'leaving' | 'original' };

/** Letters of a name of a file or folder, at most: some systems take no path beyond 260. */
const NAME = 60;
/** Names that are devices on one of the systems that files go to. */
const DEVICE = /^(?:con|prn|aux|nul|com\d|lpt\d)(?:\.|$)/i;

/** A name that every file system takes: without what sets folders apart, ends in no dot, and is not empty. */
export function safeName(text: string, otherwise: string): string {
  const plain = text
    .normalize('NFC')
    .replace(/[\\/:*?"<>|\p{Cc}\p{Cf}\p{Cs}]+/gu, ' ')
    .replace(/\s+/g, ' ');
  const short = withoutEnds([...plain.trim()].slice(0, NAME).join(''), /[. ]/);
  return short === '' ? otherwise : DEVICE.test(short) ? `_${short}` : short;
}

/** Gives each name once: a second one of the same, in large or small letters, has a number. */
export function namesOnce(): (name: string) => string {
  const taken = new Set<string>();
  return (name) => {
    const [, stem, ending] = /^(.*?)(\.[^.]{1,8})?$/su.exec(name)!;
    let own = name;
    for (let number = 2; taken.has(own.toLowerCase()); number++) own = `${stem} ${number}${ending ?? ''}`;
    taken.add(own.toLowerCase());
    return own;
  };
}

/** The folder of a post, below that of its channel: `Glassrow/2026-11-25 14-30 Rings that vanish`. */
export const folderOf = ({ channel, date, time, title }: TakenPost): string =>
  `${safeName(channel, 'channel')}/${safeName([date ?? 'no date', (time ?? '').replace(':', '-'), title].filter(Boolean).join(' '), 'post')}`;

/** The files of a post in its folder: a text for each field and part, the alt texts, and each picture as it leaves and as it was taken in. */
export function* filesOf({ parcel, labels }: TakenPost, folder: string): Generator<TakenFile> {
  const once = namesOnce();
  const own = (name: string) => `${folder}/${once(name)}`;
  const textFile = (name: string, text: string): TakenFile => ({ path: own(`${name}.txt`), text });
  for (const { name, text } of parcel.texts)
    if (text !== '') yield textFile(safeName((labels[name] ?? name).toLowerCase(), name), text);
  for (const [at, { text }] of (parcel.parts ?? []).entries()) if (text !== '') yield textFile(`part ${at + 1}`, text);
  if (parcel.hashtags.length > 0) yield textFile('hashtags', parcel.hashtags.join(' '));
  if (parcel.link !== '') yield textFile('link', parcel.link);
  const named = parcel.pictures.map((picture, at) => ({ picture, number: at + 1 }));
  const alts = named.filter(({ picture }) => picture.alt !== '');
  if (alts.length > 0)
    yield textFile(
      'alt texts',
      alts.map(({ picture, number }) => `${number} ${picture.fileName}\n${picture.alt}`).join('\n\n'),
    );
  for (const { picture, number } of named) {
    const isChanged =
      !isVideo(picture) &&
      (picture.recipe?.crop != null || picture.recipe?.toMime != null || picture.recipe?.toBytes != null);
    if (isChanged) {
      const name = leavingName(picture.fileName, { mime: picture.mime, toMime: picture.recipe?.toMime ?? null });
      yield { path: own(`${number} ${safeName(name, 'picture')}`), picture, as: 'leaving' };
    }
    const original = `${number} ${safeName(picture.fileName, 'file')}`;
    yield { path: isChanged ? `${folder}/originals/${original}` : own(original), picture, as: 'original' };
  }
}

const HEADER = ['Folder', 'Channel', 'Account', 'Format', 'Date', 'Time', 'Title', 'Stage', 'Address', 'Pictures'];

/** What is in a take-away, a line a post. */
export const listOf = (posts: readonly { folder: string; post: TakenPost }[]): string =>
  writeCsvRows([
    HEADER,
    ...posts.map(({ folder, post: { channel, parcel, date, time, title, stage, address } }) => [
      ...[folder, channel, parcel.account, parcel.format, date ?? '', time ?? '', title, stage, address],
      String(parcel.pictures.length),
    ]),
  ]);
