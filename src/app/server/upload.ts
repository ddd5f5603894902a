import { refuse, type Result } from '@/core/refusal';
import { cleanText } from '@/core/text/clean';
import { readAtMost } from './request';
import { refuseBySize, takeMedia, type MediaFile } from '@/usecases/media/files';

/** An uploaded file with the fields that came beside it. */
interface Upload {
  bytes: Uint8Array;
  fileName: string;
  field(name: string): string;
}

/** Reads a form with one file, named `file`, of at most `limitBytes`. */
export async function readUpload(request: Request, limitBytes: number): Promise<Result<Upload>> {
  const tooBig = refuse(
    'tooBig',
    `The file is larger than ${Math.round(limitBytes / 1_000_000)} MB, which is what Bimlo takes in at once. Split it.`,
    'file',
  );
  // The other fields take some room beside the file.
  const body = await readAtMost(request, limitBytes + 500_000);
  if (body === null) return tooBig;
  let form: FormData;
  try {
    const type = request.headers.get('content-type') ?? '';
    form = await new Response(new Uint8Array(body), { headers: { 'content-type': type } }).formData();
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
    return refuse('notForm', 'The request holds no form. Send the file as multipart/form-data.');
  }
  const file = form.get('file');
  if (!(file instanceof File)) return refuse('noFile', 'Choose a file first.', 'file');
  if (file.size > limitBytes) return tooBig;
  return {
    ok: true,
    value: {
      bytes: new Uint8Array(await file.arrayBuffer()),
      fileName: cleanText(file.name).slice(0, 200),
      field: (name) => {
        const value = form.get(name);
        return typeof value === 'string' ? cleanText(value) : '';
      },
    },
  };
}

/** The name of a file that is the whole body of a request, as its machine calls it; null where the body is none. */
export function fileNameOf(request: Request): string | null {
  const encoded = request.headers.get('x-file-name');
  if (encoded === null) return null;
  try {
    return cleanText(decodeURIComponent(encoded));
  } catch (error) {
    if (error instanceof URIError) return encoded;
    throw error;
  }
}

/**
 * Takes in a file that is the whole body of a request, streamed to the folder.
 */
export async function takeUpload(
  request: Request,
  folder: string,
  options: { takesSound?: boolean } = {},
): Promise<Result<MediaFile>> {
  const fileName = fileNameOf(request) ?? 'file';
  const tooBig = refuseBySize(Number(request.headers.get('content-length') ?? 0), fileName);
  if (tooBig) return tooBig;
  if (!request.body) return refuse('emptyFile', 'The file is empty. Choose another.', 'pictures');
  return takeMedia(folder, request.body, fileName, options);
}
