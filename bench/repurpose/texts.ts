import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Taken } from '@/core/extracts/extracts';
import type { FanOutGround } from '@/core/fanOut/ground';
import { READ_AS_IT_LOOKS } from '@/core/reading/howRead';
import { plainlyKept, readingOf, readSource } from '@/core/reading/readSource';

const FOLDER = 'bench/texts';

/** The talk of the demo, which has times. */
const TALK = { file: 'demo/fennel-moor/transcripts/rings-that-vanish.vtt', keys: 'talk.keys.txt' };

/** A text with what we marked in it, in offsets of the text as it is read. */
export interface Marked {
  name: string;
  title: string;
  kept: FanOutGround['kept'];
  /** The best of it. */
  key: Taken[];
  /** All that we would post, the best and the rest. */
  usable: Taken[];
}

/** All texts: the best of them in double braces, or in a file of their own, a stretch a line; what else is usable in another. */
export const readTexts = (): Marked[] => [
  ...readdirSync(FOLDER)
    .filter((name) => /\.(?:md|txt|html|vtt)$/.test(name) && !/\.(?:keys|usable)\.txt$|^not-alone/.test(name))
    .sort()
    .map((name) => readMarked(join(FOLDER, name), name, join(FOLDER, `${name.replace(/\.[a-z]+$/, '')}.keys.txt`))),
  readMarked(TALK.file, 'talk, timed', join(FOLDER, TALK.keys)),
];

/** The pictures of the photo set that has no words but theirs. */
export const readPhotoSet = (): string[] =>
  JSON.parse(readFileSync(join(FOLDER, 'photo-set.alts.json'), 'utf8')) as string[];

function readMarked(file: string, name: string, keyFile: string): Marked {
  const marked = readFileSync(file, 'utf8');
  const read = readSource(marked.replace(/\{\{|\}\}/g, ''), file);
  if (!read.ok) throw new Error(`${name}: ${read.refusal.message}`);
  const inText = [...marked.matchAll(/\{\{([^{}]*)\}\}/g)].map(({ 1: words }) => words!);
  const keys = inText.length > 0 ? inText : readFileSync(keyFile, 'utf8').trim().split('\n');
  const kept = read.value;
  const others = readFileSync(keyFile.replace('.keys.', '.usable.'), 'utf8').trim().split('\n');
  const placesOf = (list: readonly string[]) => list.map((words) => placeOf(words, kept, name));
  return { name, title: kept.title, kept, key: placesOf(keys), usable: placesOf([...keys, ...others]) };
}

/** Where marked words stand in the text as it is read, however they are spaced. */
function placeOf(words: string, kept: FanOutGround['kept'], name: string): Taken {
  const plain = (spaced: string) => spaced.replace(/\s+/g, ' ');
  const { text } = readingOf(kept);
  const wanted = plain(readingOf({ ...plainlyKept(words), how: { ...READ_AS_IT_LOOKS, as: 'markdown' } }).text).trim();
  const start = plain(text).indexOf(wanted);
  if (start < 0) throw new Error(`${name}: “${wanted.slice(0, 40)}” is not in the text as it is read`);
  const at = offsetsOf(text);
  return { start: at[start]!, end: at[start + wanted.length - 1]! + 1 };
}

/** Where each character of a text with single spaces stands in the text itself. */
function offsetsOf(text: string): number[] {
  const at: number[] = [];
  for (let index = 0; index < text.length; index++)
    if (!/\s/.test(text[index]!) || !/\s/.test(text[index - 1] ?? 'x')) at.push(index);
  return at;
}
