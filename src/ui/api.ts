import { v4 as newId } from 'uuid';
import type { Refusal } from '@/core/refusal';
import { personOnScreen } from './personOnScreen';

/** What came of a call to the server. */
export type Answer<T> =
  | { kind: 'done'; value: T }
  /** It was not done, and why. `current` is what stands on the server now, where that helps. */
  | { kind: 'refused'; refusal: Refusal; current?: unknown }
  /** The server could not be reached; the same call may go through later. */
  | { kind: 'unreachable' };

/** The answer of a server that cannot be reached. */
export const UNREACHABLE_ANSWER = { kind: 'unreachable' } as const;

/** What people read when the server cannot be reached. */
export const UNREACHABLE = 'Bimlo cannot be reached, so this is not saved yet.';

/** The header of an answer that says how far the database had got when it was given. */
export const AS_OF_HEADER = 'x-bimlo-as-of';

const listeners = new Set<() => void>();
/** Has somebody told each time a call finds nobody. @returns what ends that */
export function onUnreachable(told: () => void): () => void {
  listeners.add(told);
  return () => void listeners.delete(told);
}

function unreachable(): { kind: 'unreachable' } {
  for (const told of listeners) told();
  return UNREACHABLE_ANSWER;
}

let latest = 0;
/** How far the database had got at the latest answer: a view that was read before it may lack what was answered. */
export const asOfLatestAnswer = (): number => latest;

/** The header by which the server knows a write that is sent again. */
export const REQUEST_KEY_HEADER = 'idempotency-key';

/** The header by which a change of a setting says which version it is based on, as an entity tag (RFC 9110, 13.1.1). */
export const SEEN_HEADER = 'if-match';

/** The header by which a call says as whom the page was drawn that it comes from: an identifier, or empty. */
export const PERSON_HEADER = 'x-bimlo-person';

/** What people read when the server broke. */
const BROKEN = 'Bimlo had an error of its own, so this was not done. Its log says more.';

/** Refusals that say nothing of what was asked: the same may be done a moment later. */
const PASSING = ['broken', 'diskFull'];
export const isPassing = ({ code }: Refusal): boolean => PASSING.includes(code);

/** Writes under way, by what they say: the same one pressed again meanwhile is the same one. */
const underWay = new Map<string, Promise<Answer<unknown>>>();
/** Keys of writes that got no answer, by what they say: sent again, they are known. */
const unanswered = new Map<string, string>();

const wordsOf = (body: object | File | undefined): string =>
  body instanceof File ? `${body.name} ${body.size} ${body.lastModified}` : JSON.stringify(body ?? null);

/**
 * Calls a route handler of ours. Never throws. A write carries a key, so that it is done once however often it is sent: the
 * same write while it is under way, or after it got no answer, has the same key.
 *
 * @param key of a write that is kept and sent again by whoever calls; then nothing else is taken for the same write
 * @param seen the version of the setting it changes
 */
export function call<T>(
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
  path: string,
  body?: object | File,
  { key, seen }: { key?: string; seen?: number } = {},
): Promise<Answer<T>> {
  const headers: Record<string, string> = seen === undefined ? {} : { [SEEN_HEADER]: `"${seen}"` };
  if (method === 'GET') return send<T>(method, path, body, headers);
  const withKey = (own: string) => ({ ...headers, [REQUEST_KEY_HEADER]: own });
  if (key !== undefined) return send<T>(method, path, body, withKey(key));
  const said = `${method} ${path} ${seen} ${wordsOf(body)}`;
  const present = underWay.get(said);
  if (present) return present as Promise<Answer<T>>;
  const own = unanswered.get(said) ?? newId();
  const sent = send<T>(method, path, body, withKey(own)).then((answer) => {
    underWay.delete(said);
    if (answer.kind === 'unreachable') unanswered.set(said, own);
    else unanswered.delete(said);
    return answer;
  });
  underWay.set(said, sent);
  return sent;
}

function send<T>(
  method: string,
  path: string,
  body: object | File | undefined,
  headers: Record<string, string>,
): Promise<Answer<T>> {
  const isFile = body instanceof File;
  return answerOf<T>(() =>
    fetch(path, {
      method,
      ...(body ? { body: isFile ? body : JSON.stringify(body) } : {}),
      headers: {
        ...(isFile
          ? { 'content-type': 'application/octet-stream', 'x-file-name': encodeURIComponent(body.name) }
          : { 'content-type': 'application/json' }),
        [PERSON_HEADER]: personOnScreen(),
        ...headers,
      },
    }),
  );
}

/** Sends a form with a file to a route handler of ours. Never throws. */
export function sendForm<T>(path: string, fields: Record<string, string | File>): Promise<Answer<T>> {
  const form = new FormData();
  for (const [name, value] of Object.entries(fields)) form.set(name, value);
  return answerOf<T>(() => fetch(path, { method: 'POST', body: form, headers: { [PERSON_HEADER]: personOnScreen() } }));
}

/** Answers of whatever stands between the browser and a Bimlo that is away. */
const AWAY = [502, 503, 504];

async function answerOf<T>(ask: () => Promise<Response>): Promise<Answer<T>> {
  let response: Response;
  let text: string;
  try {
    response = await ask();
    text = await response.text();
  } catch {
    // fetch and text() reject alike when the server is gone, whatever the cause.
    return unreachable();
  }
  latest = Math.max(latest, Number(response.headers.get(AS_OF_HEADER) ?? 0));
  const content = readJson(text);
  if (response.ok && content !== undefined) return { kind: 'done', value: content as T };
  const { refusal, current } = (content ?? {}) as { refusal?: Refusal; current?: unknown };
  if (refusal) return { kind: 'refused', refusal, current };
  return AWAY.includes(response.status)
    ? unreachable()
    : { kind: 'refused', refusal: { code: 'broken', message: BROKEN } };
}

function readJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    if (error instanceof SyntaxError) return undefined;
    throw error;
  }
}

/** The sentence for a call that was not done; null when it was. */
export function problemOf(answer: Answer<unknown>): string | null {
  if (answer.kind === 'done') return null;
  return answer.kind === 'refused' ? answer.refusal.message : UNREACHABLE;
}
