import { makeZip } from 'client-zip';
import type { TakenFile } from '@/core/exchange/takeAway';
import { LostFileError, originalFrom, renderPicture } from '@/usecases/media/files';

/** What could not be taken along is told of in this file. */
const LACKING = 'not taken along.txt';

/**
 * Files as a ZIP, written while it is read. One whose picture or video is lost is left out, and named in a text at the end.
 *
 * @param media the folder of pictures and videos
 * @param at the date that the files bear
 */
export function zipOf(files: AsyncIterable<TakenFile>, media: string, at: Date): ReadableStream<Uint8Array> {
  async function* entries() {
    const lost: string[] = [];
    for await (const file of files) {
      const input = await contentOf(file, media).catch((error: unknown) => {
        if (!(error instanceof LostFileError)) throw error;
        lost.push(file.path);
        return null;
      });
      if (input !== null) yield { name: file.path, lastModified: at, input };
    }
    if (lost.length > 0)
      yield { name: LACKING, lastModified: at, input: `These files are lost:\n\n${lost.join('\n')}\n` };
  }
  return makeZip(entries(), { buffersAreUTF8: true });
}

async function contentOf(file: TakenFile, media: string): Promise<string | Blob | Uint8Array<ArrayBuffer>> {
  if ('text' in file) return file.text;
  if (file.as === 'original') return originalFrom(media, file.picture.sha256);
  return new Uint8Array((await renderPicture(media, file.picture)).bytes);
}
