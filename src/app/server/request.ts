import { cookies } from 'next/headers';
import { ValidationError, type ObjectSchema, type AnyObject } from 'yup';
import { refuse, type Refusal, type Result } from '@/core/refusal';
import { readAsOf } from '@/data/asOf';
import { maybeFirstPerson } from '@/data/people';
import { bimlo, type Bimlo } from '@/runtime/bimlo';
import { AS_OF_HEADER } from '@/ui/api';
import type { Work } from '@/usecases/work';

/** The cookie that says who one is. */
export const PERSON_COOKIE = 'bimlo_person';
/** Bytes of a JSON body that are read. */
const BODY_LIMIT_BYTES = 6_000_000;
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

const STATUS: Record<string, number> = {
  notFound: 404,
  notYours: 403,
  foreign: 403,
  stale: 409,
  tooBig: 413,
  diskFull: 507,
};

/** Bimlo with the person who asks, as use cases want it. */
export async function workOfRequest(): Promise<{ app: Bimlo; work: Work }> {
  const app = await bimlo();
  const chosen = (await cookies()).get(PERSON_COOKIE)?.value ?? '';
  const actorId = UUID.test(chosen) ? chosen : ((await maybeFirstPerson(app.db))?.id ?? NOBODY);
  const { db, clock, ids, measurePictures } = app;
  return { app, work: { db, clock, ids, actorId, measurePictures } };
}

const NOBODY = '00000000-0000-0000-0000-000000000000';

/** Whether a text from an address is an identifier at all; what is not finds nothing. */
export const isId = (text: string): boolean => UUID.test(text);

/** Answers with what was asked for. */
export const done = (value: unknown): Promise<Response> => respond(value ?? {}, 200);

/** Answers with a refusal, and with what stands now where that helps to compare. */
export const refusal = (reason: Refusal, current?: unknown): Promise<Response> =>
  respond(current === undefined ? { refusal: reason } : { refusal: reason, current }, STATUS[reason.code] ?? 422);

/** A header says how far the database had got, so that a view from before is known to be from before. */
async function respond(content: unknown, status: number): Promise<Response> {
  const asOf = await readAsOf((await bimlo()).db);
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
  const text = await request.text();
  if (text.length > BODY_LIMIT_BYTES)
    return refuse('tooBig', 'That is more than Bimlo takes at once (6 MB). Shorten it.');
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    return refuse('notJson', 'The request holds no JSON. Send the fields as a JSON object.');
  }
  try {
    return { ok: true, value: (await schema.validate(body, { strict: true })) as T };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return refuse('badField', error.message, error.path || undefined);
  }
}
