import Papa from 'papaparse';
import { accept, refuse, type Result } from '../refusal';

/** Bytes of a CSV file that Bimlo takes in. */
export const CSV_LIMIT_BYTES = 12_000_000;
/** Rows that are brought in at once. */
const CSV_LIMIT_ROWS = 10_000;
/** Columns of a file that can be told what they hold. */
const CSV_LIMIT_COLUMNS = 1_000;

/** A row of a file with the line it begins on, counted from 1. */
export interface CsvRow {
  line: number;
  cells: string[];
}

/** A file of rows. */
export interface CsvTable {
  header: string[];
  rows: CsvRow[];
  /** Rows that could not be read, by line. */
  bad: { line: number; reason: string }[];
}

/**
 * Reads a CSV text, set apart by commas, semicolons, tabs or bars, or by what a first line `sep=;` names. Line ends of all
 * kinds may be mixed. No row vanishes: one with a quote that never ends is named with the lines it swallowed, one with more
 * cells than the header by its line.
 */
export function readCsv(marked: string): Result<CsvTable> {
  const plain = marked.replace(/^\ufeff/, '').replace(/\r\n?/g, '\n');
  const named = /^"?sep=(.)"?\n/i.exec(plain);
  const text = named ? plain.slice(named[0].length) : plain;
  if (text.trim() === '') return refuse('emptyFile', 'The file is empty.', 'file');
  const rows: CsvRow[] = [];
  const bad: CsvTable['bad'] = [];
  let line = named ? 2 : 1;
  let from = 0;
  let tooMany = false;
  Papa.parse<string[]>(text, {
    newline: '\n',
    skipEmptyLines: true,
    ...(named && { delimiter: named[1]! }),
    delimitersToGuess: [',', ';', '\t', '|'],
    step: ({ data, errors, meta }, parser) => {
      const begins = line;
      for (let at = from; at < meta.cursor; at++) if (text[at] === '\n') line++;
      const ends = text[meta.cursor - 1] === '\n' ? line - 1 : line;
      from = meta.cursor;
      if (errors.some((error) => error.type === 'Quotes'))
        bad.push({ line: begins, reason: brokenQuote(begins, ends) });
      else if (data.some((cell) => cell.trim() !== '')) rows.push({ line: begins, cells: data });
      if (rows.length > CSV_LIMIT_ROWS + 1) {
        tooMany = true;
        parser.abort();
      }
    },
  });
  if (tooMany)
    return refuse(
      'tooManyRows',
      `The file has more than ${CSV_LIMIT_ROWS.toLocaleString('en-GB')} rows, which is what is imported at once. Split it.`,
      'file',
    );
  const [head, ...rest] = rows;
  if (!head)
    return refuse('noHeader', 'No row of the file can be read: the quotes in its first line are wrong.', 'file');
  if (head.cells.length > CSV_LIMIT_COLUMNS)
    return refuse(
      'tooManyColumns',
      `The first line of the file names ${head.cells.length.toLocaleString('en-GB')} columns; ${CSV_LIMIT_COLUMNS.toLocaleString('en-GB')} are the most. Take out those that are not needed.`,
      'file',
    );
  const header = head.cells.map((cell) => cell.trim());
  const isWider = ({ cells }: CsvRow) => cells.slice(header.length).some((cell) => cell.trim() !== '');
  for (const row of rest)
    if (isWider(row))
      bad.push({
        line: row.line,
        reason: `it has ${row.cells.length} cells where the header names ${header.length}: put texts with “${named?.[1] ?? ','}” into quotes`,
      });
  bad.sort((a, b) => a.line - b.line);
  return accept({ header, rows: rest.filter((row) => !isWider(row)), bad });
}

const brokenQuote = (begins: number, ends: number): string =>
  ends > begins
    ? `a quote is opened and never closed, or text follows a closed one: lines ${begins} to ${ends} are lost in it`
    : 'a quote is opened and never closed, or text follows a closed one';

/** What a spreadsheet would take for a formula: OWASP’s list of first characters. */
const RISKY = /^[=+\-@\t\r]/;

/**
 * Makes a cell harmless for spreadsheets, which would run `=…` as a formula: an apostrophe goes before it. Where the text
 * itself begins with an apostrophe before such a sign, it gets one more, so that `restoreCell` gives back what was there.
 * @internal
 */
export const harmlessCell = (text: string): string => (RISKY.test(text.replace(/^'+/, '')) ? `'${text}` : text);

/** The text that `harmlessCell` was given. */
export const restoreCell = (cell: string): string =>
  cell.startsWith("'") && RISKY.test(cell.replace(/^'+/, '')) ? cell.slice(1) : cell;

/** Writes rows as CSV (RFC 4180), cells made harmless, each with its line break. */
export const writeCsvRows = (rows: readonly (readonly string[])[]): string =>
  rows.length === 0
    ? ''
    : Papa.unparse(
        rows.map((row) => row.map(harmlessCell)),
        { newline: '\r\n' },
      ) + '\r\n';
