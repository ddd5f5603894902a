import { groupLeftOut } from '@/core/reading/leftOut';
import type { ReadingText } from '@/core/reading/readingText';
import { accept, type Result } from '@/core/refusal';
import type { PossibleEncoding } from '@/core/text/decode';
import { readSourceFile } from '@/data/pool/readFiles';
import { readText } from '@/data/pool/readText';
import { mayRead } from '../rights/mustMay';
import type { Work } from '../useCase';

/** What of a text would be read, before there is a piece of it. */
export interface SourceLook extends Pick<ReadingText, 'as' | 'words'> {
  /** What it calls itself; empty where it does not. */
  title: string;
  /** What would be left out, in words: “3 blocks of code”. */
  leftOut: string[];
}

/** Whether somebody may have a text read for a brand. */
export const mayLookAtSource = (work: Work, brandId: string): Promise<Result<unknown>> =>
  mayRead(work, 'changePieces', brandId);

/** Reads a text and keeps nothing of it. Where it cannot be told how its file is written, the encodings it may have. */
export async function lookAtSource(
  bytes: Uint8Array,
  name: string,
  encoding: string | null,
): Promise<Result<SourceLook | { encodings: PossibleEncoding[] }>> {
  const file = await readSourceFile(bytes, name, encoding);
  if ('encodings' in file) return accept(file);
  if (!file.read.ok) return file.read;
  const { as, words, leftOut } = await readText(file.read.value);
  return accept({
    title: file.read.value.title,
    ...{ as, words, leftOut: groupLeftOut(leftOut).map(({ label }) => label) },
  });
}
