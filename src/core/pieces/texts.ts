/** One of the texts of a piece. */
interface PieceText {
  label: string;
  /** Characters (UTF-16 units) that Bimlo keeps of it. */
  keeps: number;
  /** Typed on one line. */
  isLine?: true;
  /** Empty, or the address of a page. */
  isLink?: true;
}

/**
 * Every text about a piece, once, in the order in which they are shown. From it come the page of a piece, requests, limits, undo,
 * files and the columns of the database: a new text is an entry here and a migration, which
 * also puts it into what is found by words.
 */
const ABOUT_PIECE = {
  title: { label: 'Title', keeps: 200, isLine: true },
  note: { label: 'Note', keeps: 20_000 },
  link: { label: 'Link', keeps: 2_000, isLine: true, isLink: true },
} as const satisfies Record<string, PieceText>;

/** The text that a piece is read by, which stands apart: it is brought in, corrected, and takes its own way back. */
const SOURCE: { sourceText: PieceText } = { sourceText: { label: 'Source text', keeps: 1_000_000 } };

const PIECE_TEXTS = { ...ABOUT_PIECE, ...SOURCE };

/** The name of a text about a piece. */
export type AboutField = keyof typeof ABOUT_PIECE;
/** The name of any text of a piece. */
export type PieceField = keyof typeof PIECE_TEXTS;
/** All texts of a piece. */
export type PieceTexts = Record<PieceField, string>;

/** What is known of a text. */
export const pieceText = (name: PieceField): PieceText => PIECE_TEXTS[name];

export const ABOUT_FIELDS = Object.keys(ABOUT_PIECE) as readonly AboutField[];
export const PIECE_FIELDS = Object.keys(PIECE_TEXTS) as readonly PieceField[];

const ofEach =
  <Name extends PieceField>(names: readonly Name[]) =>
  <V>(give: (name: Name) => V): Record<Name, V> =>
    Object.fromEntries(names.map((name) => [name, give(name)])) as Record<Name, V>;

/** Something of each text of a piece, by its name. */
export const ofEachPieceText = ofEach(PIECE_FIELDS);
/** Something of each text about a piece, by its name. */
export const ofEachAboutField = ofEach(ABOUT_FIELDS);
