import pino from 'pino';

/** PostgreSQL's codes have five letters or digits (its documentation, appendix A). */
const isCode = (code: unknown): code is string => typeof code === 'string' && /^[0-9A-Z]{5}$/.test(code);

/**
 * An error as it is logged. What a database says in words holds those of people; its code, and where it was, are enough.
 *
 * @internal
 */
export function loggedError(error: unknown): object {
  if (!(error instanceof Error)) return { type: typeof error };
  const { code, constraint, table } = error as Error & Record<string, unknown>;
  if (!isCode(code)) return pino.stdSerializers.err(error);
  const frames = (error.stack ?? '').split('\n').filter((line) => /^\s*at /.test(line));
  return { type: 'DatabaseError', code, constraint, table, stack: frames.join('\n') };
}

/** The log of this process. It never holds people's texts: log names, ids and codes. */
export const log = pino({
  name: 'bimlo',
  level: process.env.BIMLO_LOG ?? 'info',
  base: undefined,
  serializers: { err: loggedError },
});
