import { ValidationError, type ObjectSchema, type AnyObject } from 'yup';
import { cleanDeep, cleanText } from '@/core/text/clean';
import { refuse, type Refusal, type Result } from '@/core/refusal';
import { readReached } from '@/usecases/asOf';
import { bimlo } from '@/runtime/bimlo';
import { AS_OF_HEADER } from '@/ui/api';

/** Bytes of a JSON body that are read. */
const BODY_LIMIT_BYTES = 6_000_000;
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** Whether a text from an address is an identifier at all; what is not finds nothing. */
export const isId = (text: string): boolean => UUID.test(text);

const STATUS: Record<string, number> = {
  nobody: 401,
  somebodyElse: 401,
  broken: 500,
  notFound: 404,
  notYours: 403,
  foreign: 403,
  stale: 409,
  noVersion: 428,
  tooBig: 413,
  diskFull: 507,
};

/** Answers with what was asked for. */
export const done = (value: unknown): Promise<Response> => respond(value ?? {}, 200);

/** Answers that something was begun and goes on by itself. */
export const accepted = (value: object): Promise<Response> => respond(value, 202);

/** Answers with a refusal, and with what stands now where that helps to compare. */
export const refusal = (reason: Refusal, current?: unknown): Promise<Response> =>
  respond(current === undefined ? { refusal: reason } : { refusal: reason, current }, STATUS[reason.code] ?? 422);

/** A header says how far the database had got, so that a view from before is known to be from before. */
async function respond(content: unknown, status: number): Promise<Response> {
  const asOf = await readReached((await bimlo()).db);
  return Response.json(content, { status, headers: { [AS_OF_HEADER]: String(asOf) } });
}

/** Answers with the outcome of a use case. */
export const answer = async (result: Result<unknown>): Promise<Response> =>
  result.ok ? done(result.value) : refusal(result.refusal);

/** Answers that there is nothing under that address. */
export const nothingThere = (what: string): Promise<Response> =>
  refusal({ code: 'notFound', message: `That ${what} is not there (any more). Reload to see what is.` });

/** Reads a JSON body and checks its shape; a refusal names the field. Texts come as they are, neither trimmed nor cast. */
export async function readBody<T extends AnyObject>(request: Request, schema: ObjectSchema<T>): Promise<Result<T>> {
  const bytes = await readAtMost(request, BODY_LIMIT_BYTES);
  if (bytes === null) return refuse('tooBig', 'That is more than Bimlo takes at once (6 MB). Shorten it.');
  let body: unknown;
  try {
    body = cleanDeep(JSON.parse(new TextDecoder().decode(bytes)));
  } catch (error) {
    // JSON that is nested too deep overflows the stack.
    if (!(error instanceof SyntaxError || error instanceof RangeError)) throw error;
    return refuse('notJson', 'The request holds no JSON. Send the fields as a JSON object.');
  }
  try {
    return { ok: true, value: (await schema.validate(body, { strict: true })) as T };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return refuse('badField', error.message, error.path || undefined);
  }
}

/** The bytes of a body, read no further than the limit; null where there are more. */
export async function readAtMost(request: Request, limitBytes: number): Promise<Uint8Array | null> {
  if (Number(request.headers.get('content-length') ?? 0) > limitBytes) return null;
  const chunks: Uint8Array[] = [];
  let length = 0;
  for await (const chunk of (request.body ?? []) as AsyncIterable<Uint8Array>) {
    length += chunk.length;
    if (length > limitBytes) return null;
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

/** What an address asks for: a text of its query, cleaned; empty where it is not there. */
export const askedFor = (request: Request, name: string): string =>
  cleanText(new URL(request.url).searchParams.get(name) ?? '');
