/** The thread of the browser in which a clip is cut: it is told what to cut, and tells how far it is, then the file or what is wrong. */
import { cutClip, type CutOrder } from './cutting';

/** What the thread tells. */
export type Told = { share: number } | { file: ArrayBuffer } | { problem: string };

/** The page that the thread belongs to. */
const page = globalThis as unknown as { postMessage(told: Told, transfer: Transferable[]): void };
const tell = (told: Told, transfer: Transferable[] = []) => page.postMessage(told, transfer);

globalThis.addEventListener('message', ({ data }: MessageEvent<CutOrder>) => {
  cutClip(data, (share) => tell({ share }))
    .then((file) => tell({ file }, [file]))
    .catch((error: unknown) => tell({ problem: error instanceof Error ? error.message : String(error) }));
});
