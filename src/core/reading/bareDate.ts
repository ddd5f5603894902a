import { LANGUAGES } from '../extracts/languages';

const MONTHS = new Set(
  LANGUAGES.flatMap((language) =>
    (['long', 'short'] as const).flatMap((month) =>
      Array.from({ length: 12 }, (_, at) =>
        new Intl.DateTimeFormat(language, { month, timeZone: 'UTC' })
          .format(Date.UTC(2020, at, 15))
          .toLowerCase()
          .replace('.', ''),
      ),
    ),
  ),
);
const DAYS = new Set(
  LANGUAGES.flatMap((language) =>
    (['long', 'short'] as const).flatMap((weekday) =>
      Array.from({ length: 7 }, (_, at) =>
        new Intl.DateTimeFormat(language, { weekday, timeZone: 'UTC' })
          .format(Date.UTC(2020, 0, 5 + at))
          .toLowerCase()
          .replace('.', ''),
      ),
    ),
  ),
);
/** Words that stand about a date and add nothing to it. */
const ABOUT = new Set(
  'published posted updated last on at in the of am den vom um uhr veröffentlicht aktualisiert zuletzt stand le du à publié mis jour el de a las publicado actualizado em às atualizado date datum fecha data'.split(
    ' ',
  ),
);

/** Whether a text is a day and nothing else, in a language that Bimlo knows: “Published on 3 May 2026”, “2026-05-03”, “den 3. Mai 2026”. */
export function isBareDate(text: string): boolean {
  const words = text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
  if (words.length === 0 || words.length > 10 || text.length > 60) return false;
  const numbers = words.filter((word) => /^\d{1,4}(?:st|nd|rd|th|er|º)?$/.test(word));
  const months = words.filter((word) => MONTHS.has(word));
  const others = words.filter(
    (word) =>
      !/\d/.test(word) && !MONTHS.has(word) && !DAYS.has(word) && !ABOUT.has(word) && !['pm', 'h'].includes(word),
  );
  if (others.length > 0 || numbers.length === 0) return false;
  const isWritten = months.length > 0 && numbers.length >= 1;
  const isFigures = /(?:^|\s)(?:\d{4}-\d{2}-\d{2}|\d{1,2}[./]\d{1,2}[./]\d{2,4})(?:\s|$|[,.T])/.test(text);
  return isWritten || isFigures;
}
