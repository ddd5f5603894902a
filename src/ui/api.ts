import type { Refusal } from '@/core/refusal';

/** What came of a call to the server. */
export type Answer<T> =
  | { kind: 'done'; value: T }
  /** It was not done, and why. `current` is what stands on the server now, where that helps. */
  | { kind: 'refused'; refusal: Refusal; current?: unknown }
  /** The server could not be reached or broke; the same call may go through later. */
  | { kind: 'unreachable' };

/** What people read when the server cannot be reached. */
export const UNREACHABLE = 'Bimlo cannot be reached, so this is not saved yet.';

/** The header of an answer that says how far the database had got when it was given. */
export const AS_OF_HEADER = 'x-bimlo-as-of';

let latest = 0;
/** How far the database had got at the latest answer: a view that was read before it may lack what was answered. */
export const asOfLatestAnswer = (): number => latest;

/** Calls a route handler of ours. Never throws. */
export async function call<T>(
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
  path: string,
  body?: object | File,
): Promise<Answer<T>> {
  const isFile = body instanceof File;
  return answerOf<T>(() =>
    fetch(path, {
      method,
      ...(body ? { body: isFile ? body : JSON.stringify(body) } : {}),
      headers: isFile
        ? { 'content-type': 'application/octet-stream', 'x-file-name': encodeURIComponent(body.name) }
        : { 'content-type': 'application/json' },
    }),
  );
}

/** Sends a form with a file to a route handler of ours. Never throws. */
export function sendForm<T>(path: string, fields: Record<string, string | File>): Promise<Answer<T>> {
  const form = new FormData();
  for (const [name, value] of Object.entries(fields)) form.set(name, value);
  return answerOf<T>(() => fetch(path, { method: 'POST', body: form }));
}

async function answerOf<T>(ask: () => Promise<Response>): Promise<Answer<T>> {
  let response: Response;
  let content: unknown;
  try {
    response = await ask();
    content = await response.json();
  } catch {
    // fetch and json() reject alike when the server is gone, whatever the cause.
    return { kind: 'unreachable' };
  }
  latest = Math.max(latest, Number(response.headers.get(AS_OF_HEADER) ?? 0));
  if (response.ok) return { kind: 'done', value: content as T };
  const { refusal, current } = content as { refusal?: Refusal; current?: unknown };
  return refusal ? { kind: 'refused', refusal, current } : { kind: 'unreachable' };
}

/** The sentence for a call that was not done; null when it was. */
export function problemOf(answer: Answer<unknown>): string | null {
  if (answer.kind === 'done') return null;
  return answer.kind === 'refused' ? answer.refusal.message : UNREACHABLE;
}
