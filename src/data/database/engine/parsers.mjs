import { types } from '@electric-sql/pglite';

/** PostgreSQL writes `+00`, ECMAScript reads `+00:00`. */
const isoOffset = (text) => text.replace(' ', 'T').replace(/([+-]\d{2})$/, '$1:00');

function safeInteger(text) {
  const value = Number(text);
  if (!Number.isSafeInteger(value)) throw new RangeError(`bigint out of the safe range: ${text}`);
  return value;
}

/** A date stays text (`2026-11-23`), a time is to the minute (`14:30`), an instant is ISO text in UTC, an int8 a safe number. */
export const PARSERS = {
  [types.DATE]: (text) => text,
  [types.TIME]: (text) => text.slice(0, 5),
  [types.TIMESTAMP]: (text) => text,
  [types.TIMESTAMPTZ]: (text) => new Date(isoOffset(text)).toISOString(),
  [types.INT8]: safeInteger,
  [types.NUMERIC]: (text) => text,
};
