'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { PieceKind } from '@/core/pieces/kinds';
import { ofEachPieceText, PIECE_FIELDS, type PieceField, type PieceTexts } from '@/core/pieces/texts';
import type { SheetStep } from '@/core/posts/sheet';
import type { LocalDate } from '@/core/time/plan';
import type { Piece } from '@/usecases/pieces/reading';
import { call, isPassing, UNREACHABLE, type Answer } from '@/ui/api';
import { chosenDraft, chosenIn, claimDrafts, dropDraft, editOf, keepDraft, listDrafts, type Draft } from '@/ui/drafts';
import { useInTurn } from '@/ui/useInTurn';

type Texts = PieceTexts;

const isField = (name: string | undefined): name is PieceField => PIECE_FIELDS.includes(name as PieceField);
const textsOf = (piece: Texts): Texts => ofEachPieceText((name) => piece[name]);

/** What can be changed of a piece beside its texts. */
type PieceChange = { channelIds: string[] } | { kind: PieceKind } | { prepDay: LocalDate | null };

/** A choice as the piece shows it. */
const shownAs = (part: PieceChange): Partial<Piece> =>
  'channelIds' in part ? { suggestedChannelIds: part.channelIds } : part;

/** What stands chosen, by the name the server knows it by. */
const chosenOf = ({ suggestedChannelIds, kind, prepDay }: Piece): Record<string, unknown> => ({
  channelIds: suggestedChannelIds,
  kind,
  prepDay,
});

/** Why something was not saved. */
interface PieceProblem {
  /** The text it is about; absent where it is about none. */
  field?: PieceField;
  message: string;
  /** What somebody else made of that text meanwhile. */
  theirs?: string;
}

const KEPT = 'It is kept here and tried again.';
const NOT_KEPT = 'It is tried again, but only on this page: do not close it.';

/** Saved when the field is left: half of them may be refused. */
const WHEN_LEFT: readonly PieceField[] = ['title', 'link'];

/** How long after the last keystroke a text is saved, in milliseconds. */
const SAVE_AFTER_MS = 700;
/** How long after a failed try the next one follows, in milliseconds. */
const TRY_AGAIN_MS = 3_000;

/**
 * Edits a piece: texts are kept in the browser as they are typed and saved a moment later; while the server is down they are
 * kept and tried again. A text that was changed elsewhere meanwhile is never overwritten: both are shown.
 */
export function usePieceEditor(initial: Piece, initialSteps: readonly SheetStep[]) {
  const at = `/api/pieces/${initial.id}`;
  const [piece, setPiece] = useState(initial);
  const [steps, setSteps] = useState(initialSteps);
  const [texts, setTexts] = useState<Texts>(() => textsOf(initial));
  const [problem, setProblem] = useState<PieceProblem | null>(null);
  // The present truth for callbacks that run later than the render they were made in.
  const truth = useRef({
    piece: initial,
    texts,
    conflict: null as PieceField | null,
    /** Choices that are not answered yet: they show whatever is answered before. */
    chosen: {} as Partial<Piece>,
  });
  /** Whether the browser keeps what is not saved yet. */
  const isKept = useRef(true);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const inTurn = useInTurn();

  const takeIn = useCallback((next: Piece) => {
    const { piece: old, texts: typed } = truth.current;
    const merged = { ...typed };
    for (const field of PIECE_FIELDS) if (typed[field] === old[field]) merged[field] = next[field];
    truth.current.piece = next;
    truth.current.texts = merged;
    setPiece({ ...next, ...truth.current.chosen });
    setTexts(merged);
  }, []);

  // What was undone, or done elsewhere, and read anew is taken in; what is typed here stays.
  useEffect(() => {
    if (initial.version <= truth.current.piece.version) return;
    takeIn(initial);
    setSteps(initialSteps);
  }, [initial, initialSteps, takeIn]);

  const showAsItIs = useCallback((why: PieceProblem) => {
    truth.current.chosen = {};
    setPiece(truth.current.piece);
    setProblem(why);
  }, []);

  const send = useCallback(
    (change: () => Partial<Texts> | PieceChange | null): Promise<void> =>
      inTurn(async () => {
        const part = change();
        if (part === null) return;
        const answer: Answer<{ piece: Piece; steps: SheetStep[] }> = await call('PATCH', at, {
          version: truth.current.piece.version,
          ...part,
        });
        if (answer.kind === 'unreachable' || (answer.kind === 'refused' && isPassing(answer.refusal))) {
          const why = answer.kind === 'refused' ? answer.refusal.message : UNREACHABLE;
          setProblem({ message: `${why} ${isKept.current ? KEPT : NOT_KEPT}` });
          if (Object.keys(part).some(isField)) timer.current = setTimeout(save, TRY_AGAIN_MS);
          else setTimeout(() => void send(change), TRY_AGAIN_MS);
          return;
        }
        if (answer.kind === 'done' || answer.refusal.code !== 'stale') dropChosen(at, part);
        if (answer.kind === 'done') {
          if (isChoice(part)) letGo(truth.current.chosen, shownAs(part));
          const { texts: typed } = truth.current;
          // The server may tidy a text (a title's white space); what was sent is what is saved.
          for (const [field, sent] of Object.entries(part))
            if (isField(field) && typed[field] === sent) {
              truth.current.texts = { ...truth.current.texts, [field]: answer.value.piece[field] };
              dropDraft(at, field);
            }
          truth.current.piece = { ...truth.current.piece, ...answer.value.piece };
          takeIn(answer.value.piece);
          setTexts(truth.current.texts);
          setSteps(answer.value.steps);
          // A text that was refused before still is.
          return setProblem((now) => (now?.field && !(now.field in part) ? now : null));
        }
        const { refusal } = answer;
        const current = (answer.current as { piece: Piece } | undefined)?.piece;
        const sentFields = Object.keys(part).filter(isField);
        const field = isField(refusal.field) ? refusal.field : sentFields[0];
        if (refusal.code !== 'stale' || !current)
          return showAsItIs({ ...(field && { field }), message: refusal.message });
        // What stands there as it was typed here was saved before, by a request whose answer never came.
        const isSaved = (name: PieceField) => current[name] === (part as Partial<Texts>)[name];
        for (const name of sentFields.filter(isSaved)) dropDraft(at, name);
        const clash = sentFields.find((name) => current[name] !== truth.current.piece[name] && !isSaved(name));
        takeIn(current);
        // Somebody changed something else: what was typed or chosen here is saved on that.
        if (!clash) return void setTimeout(() => (sentFields.length > 0 ? save() : void send(change)));
        truth.current.conflict = clash;
        setProblem({ field: clash, message: refusal.message, theirs: current[clash] });
      }),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- send and save call each other
    [at, inTurn, takeIn, showAsItIs],
  );

  /** Saves what is typed, each text for itself: one that is refused does not hold up the others. */
  const save = useCallback(() => {
    clearTimeout(timer.current);
    for (const field of PIECE_FIELDS)
      void send(() => {
        const { piece: saved, texts: typed, conflict } = truth.current;
        return typed[field] === saved[field] || field === conflict ? null : { [field]: typed[field] };
      });
  }, [send]);

  const type = useCallback(
    (field: PieceField, text: string) => {
      const { piece: saved, texts: typed } = truth.current;
      truth.current.texts = { ...typed, [field]: text };
      setTexts(truth.current.texts);
      if (text === saved[field]) {
        dropDraft(at, field);
        setProblem((now) => (now?.field === field && now.theirs === undefined ? null : now));
      } else isKept.current = keepDraft({ at, field, text, base: saved[field], version: saved.version });
      if (WHEN_LEFT.includes(field)) return;
      clearTimeout(timer.current);
      timer.current = setTimeout(save, SAVE_AFTER_MS);
    },
    [at, save],
  );

  /** Takes one of the two texts of a field that somebody else changed. */
  const settle = useCallback(
    (field: PieceField, keep: 'mine' | 'theirs') => {
      truth.current.conflict = null;
      setProblem(null);
      if (keep === 'theirs') type(field, truth.current.piece[field]);
      save();
    },
    [save, type],
  );

  /** Shows a choice at once, keeps it and saves it; one that was not to be is taken back. */
  const change = useCallback(
    async (part: PieceChange) => {
      const shown = shownAs(part);
      Object.assign(truth.current.chosen, shown);
      setPiece((now) => ({ ...now, ...shown }));
      const [[name, value]] = Object.entries(part) as [[string, unknown]];
      const { piece: saved } = truth.current;
      isKept.current = keepDraft(chosenDraft(at, name, value, chosenOf(saved)[name], saved.version));
      await send(() => part);
    },
    [at, send],
  );

  /** Takes up a choice that was not saved yet when the page went, unless somebody chose otherwise meanwhile. */
  const takeUp = useCallback(
    (draft: Draft, name: string) => {
      dropDraft(at, draft.field);
      if (JSON.stringify(chosenOf(truth.current.piece)[name]) === draft.base)
        void change(editOf({ [draft.field]: draft.text }) as PieceChange);
    },
    [at, change],
  );

  useEffect(() => {
    const release = claimDrafts(at);
    for (const draft of listDrafts(at)) {
      const chosen = chosenIn(draft);
      if (chosen !== null) takeUp(draft, chosen);
      const { field, text, base } = draft;
      if (!isField(field)) continue;
      const theirs = truth.current.piece[field];
      if (text === theirs) {
        dropDraft(at, field);
        continue;
      }
      truth.current.texts = { ...truth.current.texts, [field]: text };
      if (base === theirs) continue;
      truth.current.conflict = field;
      setProblem({
        field,
        message: 'Somebody else changed this while you were editing, so yours was not saved.',
        theirs,
      });
    }
    setTexts(truth.current.texts);
    save();
    return () => {
      release();
      clearTimeout(timer.current);
      save();
    };
  }, [at, save, takeUp]);

  // The page was read anew: posts may have taken suggestions, and given its own prep days.
  useEffect(() => {
    if (initial.version < truth.current.piece.version) return;
    takeIn(initial);
    setSteps(initialSteps);
  }, [initial, initialSteps, takeIn]);

  return { piece, steps, texts, problem, type, save, settle, change, setSteps };
}

const isChoice = (part: Partial<Texts> | PieceChange): part is PieceChange => !Object.keys(part).some(isField);

/** Lets choices go that are answered, unless another was made since. */
function letGo(chosen: Partial<Piece>, answered: Partial<Piece>): void {
  for (const name of Object.keys(answered) as (keyof Piece)[]) if (chosen[name] === answered[name]) delete chosen[name];
}

/** Lets the draft of a choice go once it was answered, unless another was made since. */
function dropChosen(at: string, part: object): void {
  for (const draft of listDrafts(at)) {
    const name = chosenIn(draft);
    if (name !== null && draft.text === JSON.stringify((part as Record<string, unknown>)[name]))
      dropDraft(at, draft.field);
  }
}
