import type { FanOut } from '../fanOut/fanOut';
import type { PrepLine } from '../prep/step';
import type { PrepSubject } from '../prep/subject';
import type { DaySpan, RhythmEntry } from '../rhythm/entry';
import type { RuleSheet } from '../rulesheets/types';
import type { Name, ShelfWords } from '../shelf/shelf';

/** What the JSON file of a brand's settings is called in itself, and the edition of its form. */
export const BRAND_FILE = { kind: 'bimlo brand settings', edition: 1 } as const;

/** A line of a rhythm, with its pillar by name; empty for none. */
export interface FileRhythmEntry extends Omit<RhythmEntry, 'id' | 'pillarId'> {
  pillar: string;
}

/** A line of a prep sheet, with whoever does it by name; empty for nobody named. */
export interface FilePrepLine extends Omit<PrepLine, 'ownerId'> {
  who: string;
}

/** The settings of a brand as one file: what it has of its own, without its channels, people, pillars and campaigns. */
export interface BrandFile {
  kind: (typeof BRAND_FILE)['kind'];
  edition: number;
  shelf: ShelfWords[];
  names: Omit<Name, 'id' | 'version'>[];
  /** By the call sign of the channel. */
  rhythms: { channel: string; entries: FileRhythmEntry[]; pauses: (DaySpan & { name: string })[] }[];
  ruleSheets: RuleSheet[];
  prepSheets: { subject: PrepSubject; lines: FilePrepLine[] }[];
  fanOuts: (FanOut & { isStanding: boolean })[];
}

/** What one part of such a file is, or came to. */
export interface BrandFilePart {
  /** “Rhythm of GR”, “Fan-out “Talk to week”” */
  what: string;
  becomes: 'new' | 'changed' | 'same' | 'leftOut';
  /** Why it is left out. */
  reason: string;
}
