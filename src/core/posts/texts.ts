/** One of the texts of a post. */
interface PostText {
  /** What people read for it, where a rule sheet calls it nothing else. */
  label: string;
  /** `sent` where rule sheets say whether it is; `added` to the caption by the rule; `note` for those who make the post. */
  use: 'sent' | 'added' | 'note';
  /** Characters (UTF-16 units) that Bimlo keeps of it. */
  keeps: number;
  /** Typed on one line. */
  isLine?: true;
  /** Shown below the link, since it is none of what stands above it. */
  isBelowLink?: true;
  /** The formats whose posts are made from it; of a note. */
  formats?: readonly string[];
  /** What its column in a file of posts is called in the mapping, where that is not the label in small letters. */
  fileLabel?: string;
  /** Other names that its column goes by, in small letters and figures only. */
  fileNames?: readonly string[];
}

/**
 * Every text of a post, once, in the order in which they are shown. From it come the open post, what leaves, versions and their
 * comparison, files, limits and the columns of the database: a new text is an entry here and a migration, which
 * also puts it into what is found by words.
 */
const POST_TEXTS = {
  headline: {
    ...{ label: 'Title', use: 'sent', keeps: 1_000, isLine: true },
    fileLabel: 'title or subject that is sent',
    fileNames: ['subject', 'sendtitle', 'posttitle'],
  },
  preheader: { label: 'Preheader', use: 'sent', keeps: 1_000, isLine: true, fileNames: ['previewtext'] },
  caption: {
    ...{ label: 'Caption', use: 'sent', keeps: 100_000 },
    fileNames: ['text', 'copy', 'body', 'message', 'description'],
  },
  keywords: { label: 'Keywords', use: 'sent', keeps: 5_000, isLine: true, isBelowLink: true },
  firstComment: { label: 'First comment', use: 'sent', keeps: 20_000, isBelowLink: true, fileNames: ['comment'] },
  hashtags: { label: 'Hashtags', use: 'added', keeps: 5_000, isLine: true, fileNames: ['tags', 'hashtag'] },
  link: { label: 'Link', use: 'added', keeps: 2_000, isLine: true, fileNames: ['url', 'website'] },
  script: { label: 'Script', use: 'note', keeps: 200_000, formats: ['shortVideo', 'longVideo'] },
  coverIdeas: { label: 'Cover ideas', use: 'note', keeps: 20_000, formats: ['shortVideo', 'longVideo'] },
  agenda: { label: 'Agenda', use: 'note', keeps: 20_000, formats: ['live'] },
} as const satisfies Record<string, PostText>;

type Texts = typeof POST_TEXTS;
type NamesOf<Use extends PostText['use']> = {
  [Name in keyof Texts]: Texts[Name]['use'] extends Use ? Name : never;
}[keyof Texts];

/** The name of a text of a post. */
export type WrittenField = keyof Texts;
/** The name of a text that is sent where a rule sheet says so. */
export type TextFieldName = NamesOf<'sent'>;
/** The name of a text that is never sent. */
export type NoteField = NamesOf<'note'>;

/** What is known of a text. */
export const postText = (name: WrittenField): PostText => POST_TEXTS[name];

/** The names of all texts of a post, in their order. */
export const WRITTEN_FIELDS = Object.keys(POST_TEXTS) as readonly WrittenField[];

function namesOf<Use extends PostText['use']>(...uses: Use[]): readonly NamesOf<Use>[] {
  const isOf = (name: WrittenField): name is NamesOf<Use> => uses.includes(postText(name).use as Use);
  return WRITTEN_FIELDS.filter(isOf);
}

/** The texts of a post that are sent. Which of them a channel uses, and what it calls them, its rule sheet says. */
export const TEXT_FIELDS = namesOf('sent');
/** All texts that people outside read: those that are sent, and what is added to them. */
export const SENT_WORDS = namesOf('sent', 'added');
/** The texts for those who make a post, which are never sent. */
export const NOTE_FIELDS = namesOf('note');

/** Something of each text, by its name. */
export const ofEachText = <V>(give: (text: PostText, name: WrittenField) => V): Record<WrittenField, V> =>
  Object.fromEntries(WRITTEN_FIELDS.map((name) => [name, give(postText(name), name)])) as Record<WrittenField, V>;
