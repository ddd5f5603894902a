/** The states of a text before and after the present one, the nearest last. */
export interface UndoStack {
  past: readonly string[];
  future: readonly string[];
  /** When the last change was recorded, in milliseconds of any clock. */
  at: number;
}

export const NO_UNDO: UndoStack = { past: [], future: [], at: -Infinity };

/** A pause after which the next change is a step of its own, in milliseconds. */
const PAUSE_MS = 800;
const STEPS_KEPT = 100;
/** Characters kept over all steps of one text. */
const CHARACTERS_KEPT = 300_000;

/**
 * Records that a text changed from `before` to `after`. Letters typed without a pause are one step, until a word ends; so
 * are letters deleted.
 */
export function recordChange(stack: UndoStack, before: string, after: string, at: number): UndoStack {
  if (before === after) return stack;
  const grows = after.length === before.length + 1 && !/\s/u.test(insertedCharacter(before, after));
  const shrinks = after.length === before.length - 1;
  const goesOn = at - stack.at < PAUSE_MS && stack.past.length > 0 && stack.future.length === 0 && (grows || shrinks);
  return { past: goesOn ? stack.past : keptOf([...stack.past, before]), future: [], at };
}

/** The one character that `after` has more than `before`. */
function insertedCharacter(before: string, after: string): string {
  let at = 0;
  while (at < before.length && before[at] === after[at]) at++;
  return after[at]!;
}

function keptOf(states: readonly string[]): readonly string[] {
  let from = Math.max(0, states.length - STEPS_KEPT);
  let characters = states.slice(from).reduce((sum, state) => sum + state.length, 0);
  while (characters > CHARACTERS_KEPT && from < states.length - 1) characters -= states[from++]!.length;
  return states.slice(from);
}

/** One step back from the present text; null where there is none. */
export function undo({ past, future }: UndoStack, present: string): { stack: UndoStack; text: string } | null {
  const text = past.at(-1);
  if (text === undefined) return null;
  return { text, stack: { past: past.slice(0, -1), future: [...future, present], at: -Infinity } };
}

/** One step forward again; null where there is none. */
export function redo({ past, future }: UndoStack, present: string): { stack: UndoStack; text: string } | null {
  const text = future.at(-1);
  if (text === undefined) return null;
  return { text, stack: { past: [...past, present], future: future.slice(0, -1), at: -Infinity } };
}
