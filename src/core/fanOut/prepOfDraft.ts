import type { PrepLine } from '../prep/step';

/** Steps that write what the draft has written already. */
const WRITES = /^(?:write|draft|gather|outline)\b/i;

/** The step that takes the place of writing. */
const CHECK = { title: 'Check the draft', lead: 1, leadIn: 'working', minutes: 10 } as const;

/**
 * The prep of a post that begins with a draft: the first step that would write it becomes “Check the draft”, a working day before;
 * others that would are left out, unless they are needed. A clip is recorded already, and its edit step says where it is cut.
 *
 * @param cut where the clip begins and ends in its recording, in words; null for a post that is no clip
 */
export function prepOfDraft(lines: readonly PrepLine[], cut: string | null): PrepLine[] {
  let isChecked = false;
  return lines.flatMap((line): PrepLine[] => {
    if (cut !== null && line.work === 'recording') return [];
    if (cut !== null && line.work === 'editing')
      return [{ ...line, note: line.note === '' ? cut : `${line.note} ${cut}` }];
    const isWriting = line.work === 'words' && !line.needed && WRITES.test(line.title);
    if (!isWriting) return [line];
    if (isChecked) return [];
    isChecked = true;
    return [{ ...line, ...CHECK }];
  });
}
