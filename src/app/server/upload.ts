import { refuse, type Result } from '@/core/refusal';

/** An uploaded file with the fields that came beside it. */
export interface Upload {
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
  if (Number(request.headers.get('content-length') ?? 0) > limitBytes + 500_000) return tooBig;
  let form: FormData;
  try {
    form = await request.formData();
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
      fileName: file.name.slice(0, 200),
      field: (name) => {
        const value = form.get(name);
        return typeof value === 'string' ? value : '';
      },
    },
  };
}
