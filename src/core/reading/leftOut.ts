import { counted } from '../words';

/** Why a stretch of a source is no part of what is read. */
export const LEFT_OUT = {
  navigation: ['part of the page around the text', 'parts of the page around the text'],
  contents: ['table of contents', 'tables of contents'],
  code: ['block of code', 'blocks of code'],
  table: ['table', 'tables'],
  facts: ['box of facts', 'boxes of facts'],
  reference: ['list of references', 'lists of references'],
  referenceMark: ['footnote mark', 'footnote marks'],
  citation: ['note of a source', 'notes of sources'],
  editMark: ['edit mark', 'edit marks'],
  licence: ['note on rights', 'notes on rights'],
  credit: ['credit', 'credits'],
  caption: ['caption of a picture', 'captions of pictures'],
  picture: ['description of a picture', 'descriptions of pictures'],
  stageMark: ['stage mark', 'stage marks'],
  music: ['note of music', 'notes of music'],
  speaker: ['name of a speaker', 'names of speakers'],
  signature: ['signature', 'signatures'],
  date: ['date by itself', 'dates by themselves'],
  address: ['address of a link', 'addresses of links'],
  fileNote: ['note of the file', 'notes of the file'],
  untimed: ['line without a time', 'lines without a time'],
  repeated: ['line said twice', 'lines said twice'],
} as const satisfies Record<string, readonly [one: string, several: string]>;

export type LeftOutReason = keyof typeof LEFT_OUT;

/** A stretch of a source that is not read, to the letter. */
export interface LeftOut {
  reason: LeftOutReason;
  text: string;
}

/** What a stretch that was left out is known by, however often it stands in its text (FNV-1a, 32 bits, with its length). */
export function nameOfLeftOut({ reason, text }: LeftOut): string {
  let hash = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193);
  return `${reason} ${text.length} ${(hash >>> 0).toString(36)}`;
}

/** A stretch that is left out, as often as it is. */
export interface LeftOutGroup {
  reason: LeftOutReason;
  /** “3 blocks of code”. */
  label: string;
  stretches: { name: string; text: string; times: number }[];
}

/** What was left out by reason, in the order in which the reasons come up; equal stretches once. */
export function groupLeftOut(leftOut: readonly LeftOut[]): LeftOutGroup[] {
  const groups = new Map<LeftOutReason, Map<string, { name: string; text: string; times: number }>>();
  for (const one of leftOut) {
    const group = groups.get(one.reason) ?? new Map<string, { name: string; text: string; times: number }>();
    groups.set(one.reason, group);
    const name = nameOfLeftOut(one);
    const known = group.get(name);
    if (known) known.times++;
    else group.set(name, { name, text: one.text, times: 1 });
  }
  return [...groups].map(([reason, group]) => {
    const stretches = [...group.values()];
    const times = stretches.reduce((sum, one) => sum + one.times, 0);
    return { reason, label: counted(times, LEFT_OUT[reason][0], LEFT_OUT[reason][1]), stretches };
  });
}

const WORD = /[\p{L}\p{N}]+(?:['’][\p{L}\p{N}]+)*/gu;

/** Words of a text, as they are counted for people. */
export const countWords = (text: string): number => text.match(WORD)?.length ?? 0;
