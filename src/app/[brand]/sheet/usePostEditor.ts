'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { PostSheet } from '@/core/posts/sheet';
import { recordChange, redo, undo, type UndoStack } from '@/core/captions/undo';
import { WRITTEN_FIELDS, type WrittenField } from '@/core/posts/written';
import type { Refusal } from '@/core/refusal';
import { call, isPassing, type Answer } from '@/ui/api';
import { claimDrafts, dropDraft, editOf, keepDraft, listDrafts, type DraftField } from '@/ui/drafts';
import { keepUndoStack, undoStackOf } from '@/ui/undoStore';
import { useInTurn } from '@/ui/useInTurn';
import type { ChangedPost } from '../calendar/changed';

/** How long after the last keystroke a text is saved, in milliseconds. */
const SAVE_AFTER_MS = 500;
/** How long after a failed try the next one follows, in milliseconds. */
const TRY_AGAIN_MS = 3_000;

/** The texts of a post as they are typed. */
export type Texts = Record<'title' | WrittenField, string> & Record<`part:${string}`, string>;

/** How the typed texts stand with the server. */
export type SaveState = 'saved' | 'saving' | 'unsaved' | 'unreachable';

/** Two texts for one field: what was typed here, and what somebody else saved meanwhile. */
export interface Conflict {
  field: DraftField;
  mine: string;
  theirs: string;
}

const fieldsIn = (texts: Texts): DraftField[] => Object.keys(texts) as DraftField[];

/** Everything the open sheet reads and does. */
export interface PostEditor {
  /** What stands on the server, as far as known; null while it loads. */
  sheet: PostSheet | null;
  /** The texts as typed. */
  texts: Texts | null;
  saveState: SaveState;
  conflicts: readonly Conflict[];
  /** Whether what is not saved yet survives a reload: a browser without room, or that may not, keeps nothing. */
  isKept: boolean;
  /** Why the server would not save a field, or the post is not there. */
  problem: Refusal | null;
  type(field: DraftField, text: string): void;
  /** Goes a step back, or forward again, in what was typed into a field, also before a reload. @returns whether there was one */
  step(field: DraftField, way: 'undo' | 'redo'): boolean;
  /** Takes one of the two texts of a conflict. */
  settle(conflict: Conflict, keep: 'mine' | 'theirs'): void;
  /** Saves what is typed, then does something with the post's present version. */
  change<T = ChangedPost>(
    method: 'POST' | 'PATCH' | 'DELETE',
    path: string,
    body: object | File | ((version: number) => object),
  ): Promise<Answer<T>>;
  /** Loads the post anew. */
  reload(): void;
}

/**
 * Edits one post: texts are kept in the browser as they are typed and saved half a second later; while the server is down
 * they are kept and tried again. A text that was changed elsewhere meanwhile is never overwritten: both are shown.
 */
export function usePostEditor(
  postId: string,
  initial: PostSheet | null,
  onChanged: (changed: ChangedPost) => void,
): PostEditor {
  const at = `/api/posts/${postId}`;
  const [sheet, setSheet] = useState(initial);
  const [texts, setTexts] = useState<Texts | null>(() => initial && pick(initial));
  const [saveState, setSaveState] = useState<SaveState>('saved');
  const [conflicts, setConflicts] = useState<readonly Conflict[]>([]);
  const [problem, setProblem] = useState<Refusal | null>(null);
  const [isKept, setKept] = useState(true);
  // The present truth for callbacks that run later than the render they were made in.
  const truth = useRef({ sheet: initial, texts, conflicts: [] as readonly Conflict[] });
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const saving = useRef<Promise<void> | null>(null);
  const inTurn = useInTurn();
  const changed = useRef(onChanged);
  useEffect(() => {
    changed.current = onChanged;
  });

  const setBoth = useCallback((nextSheet: PostSheet, nextTexts: Texts) => {
    truth.current.sheet = nextSheet;
    truth.current.texts = nextTexts;
    setSheet(nextSheet);
    setTexts(nextTexts);
  }, []);

  /** Takes a newer sheet in: fields that were not touched here follow it; touched ones stay, or become conflicts. */
  const takeIn = useCallback(
    (next: PostSheet) => {
      const { sheet: old, texts: typed } = truth.current;
      const [was, merged] = [old && pick(old), pick(next)];
      const found: Conflict[] = [];
      for (const field of fieldsIn(merged)) {
        const mine = typed?.[field];
        const theirs = merged[field]!;
        if (!was || mine === undefined || mine === was[field] || mine === theirs) continue;
        merged[field] = mine;
        if (theirs !== was[field]) found.push({ field, mine, theirs });
      }
      const kept = truth.current.conflicts.filter((conflict) => !found.some((other) => other.field === conflict.field));
      truth.current.conflicts = [...kept, ...found];
      setConflicts(truth.current.conflicts);
      setBoth(next, merged);
    },
    [setBoth],
  );

  const dirtyFields = () => {
    const { sheet: current, texts: typed, conflicts: open } = truth.current;
    if (!current || !typed) return [];
    const saved = pick(current);
    return fieldsIn(saved).filter(
      (field) => typed[field] !== saved[field] && !open.some((conflict) => conflict.field === field),
    );
  };

  const saveOnce = useCallback(async (): Promise<void> => {
    clearTimeout(timer.current);
    const dirty = dirtyFields();
    if (dirty.length === 0) return setSaveState(truth.current.conflicts.length > 0 ? 'unsaved' : 'saved');
    setSaveState('saving');
    const sent = Object.fromEntries(dirty.map((field) => [field, truth.current.texts![field]!]));
    const answer: Answer<ChangedPost> = await call('PATCH', at, {
      version: truth.current.sheet!.version,
      ...editOf(sent),
    });
    if (answer.kind === 'unreachable') {
      setSaveState('unreachable');
      timer.current = setTimeout(() => void save(), TRY_AGAIN_MS);
      return;
    }
    if (answer.kind === 'done') {
      // The server may tidy a text (a title's white space); what was sent is what is saved.
      const saved = pick(answer.value.sheet);
      const tidied = { ...truth.current.texts! };
      for (const field of dirty) if (tidied[field] === sent[field]) tidied[field] = saved[field]!;
      truth.current.texts = tidied;
      truth.current.sheet = writtenSheet(truth.current.sheet!, sent);
      takeIn(answer.value.sheet);
      for (const field of dirty) if (truth.current.texts[field] === saved[field]) dropDraft(at, field);
      setProblem(null);
      changed.current(answer.value);
    } else if (answer.refusal.code === 'stale' && answer.current) {
      takeIn(answer.current as PostSheet);
    } else {
      setProblem(answer.refusal);
      // What was asked is in order: it is tried again, as without a connection.
      if (isPassing(answer.refusal)) timer.current = setTimeout(() => void save(), TRY_AGAIN_MS);
      return setSaveState('unsaved');
    }
    if (dirtyFields().length > 0) return saveOnce();
    setSaveState(truth.current.conflicts.length > 0 ? 'unsaved' : 'saved');
    // eslint-disable-next-line react-hooks/exhaustive-deps -- save and saveOnce call each other
  }, [at, takeIn]);

  const save = useCallback((): Promise<void> => {
    saving.current ??= saveOnce().finally(() => (saving.current = null));
    return saving.current;
  }, [saveOnce]);

  const write = useCallback(
    (field: DraftField, text: string) => {
      const { sheet: current, texts: typed } = truth.current;
      if (!current || !typed) return;
      truth.current.texts = { ...typed, [field]: text };
      setTexts(truth.current.texts);
      const base = pick(current)[field] ?? '';
      if (text === base) dropDraft(at, field);
      else setKept(keepDraft({ at, field, text, base, version: current.version }));
      setSaveState('unsaved');
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void save(), SAVE_AFTER_MS);
    },
    [at, save],
  );

  const stacks = useRef(new Map<DraftField, UndoStack>());
  const stackOf = useCallback((field: DraftField) => stacks.current.get(field) ?? undoStackOf(postId, field), [postId]);
  const keepStack = useCallback(
    (field: DraftField, stack: UndoStack) => {
      stacks.current.set(field, stack);
      keepUndoStack(postId, field, stack);
    },
    [postId],
  );

  const type = useCallback(
    (field: DraftField, text: string) => {
      const before = truth.current.texts?.[field];
      if (before === undefined) return;
      keepStack(field, recordChange(stackOf(field), before, text, performance.now()));
      write(field, text);
    },
    [keepStack, stackOf, write],
  );

  const step = useCallback(
    (field: DraftField, way: 'undo' | 'redo') => {
      const present = truth.current.texts?.[field];
      const stepped = present === undefined ? null : (way === 'undo' ? undo : redo)(stackOf(field), present);
      if (!stepped) return false;
      keepStack(field, stepped.stack);
      write(field, stepped.text);
      return true;
    },
    [keepStack, stackOf, write],
  );

  const settle = useCallback(
    (conflict: Conflict, keep: 'mine' | 'theirs') => {
      truth.current.conflicts = truth.current.conflicts.filter((other) => other !== conflict);
      setConflicts(truth.current.conflicts);
      write(conflict.field, keep === 'mine' ? (truth.current.texts![conflict.field] ?? '') : conflict.theirs);
      void save();
    },
    [save, write],
  );

  const changeNow = useCallback(
    async <T>(
      method: 'POST' | 'PATCH' | 'DELETE',
      path: string,
      body: object | File | ((version: number) => object),
    ): Promise<Answer<T>> => {
      await save();
      const content = typeof body === 'function' && !(body instanceof File) ? body(truth.current.sheet!.version) : body;
      const answer = await call<T>(method, path, content as object);
      if (answer.kind === 'done' && isChangedPost(answer.value)) {
        takeIn(answer.value.sheet);
        changed.current(answer.value);
      }
      if (answer.kind === 'refused' && answer.refusal.code === 'stale' && answer.current)
        takeIn(answer.current as PostSheet);
      return answer;
    },
    [save, takeIn],
  );

  // One after the other: each is based on the version the one before left behind.
  const change = useCallback(
    <T>(
      method: 'POST' | 'PATCH' | 'DELETE',
      path: string,
      body: object | File | ((version: number) => object),
    ): Promise<Answer<T>> => {
      return inTurn(() => changeNow<T>(method, path, body));
    },
    [inTurn, changeNow],
  );

  const load = useCallback(async () => {
    const before = truth.current.sheet?.version;
    const answer: Answer<PostSheet> = await call('GET', at);
    if (answer.kind === 'refused') setProblem(answer.refusal);
    const present = truth.current.sheet?.version;
    const isOvertaken = (version: number) => present !== undefined && present !== before && version < present;
    if (answer.kind === 'done' && !isOvertaken(answer.value.version)) takeIn(answer.value);
    return answer.kind;
  }, [at, takeIn]);

  const reload = useCallback(() => void load(), [load]);

  useEffect(() => {
    /** Takes up what was typed before a reload. */
    function takeUpDrafts() {
      const current = truth.current.sheet;
      if (!current) return;
      const saved = pick(current);
      for (const { field, text, base } of listDrafts<DraftField>(at)) {
        const theirs = saved[field];
        if (theirs === undefined || text === theirs) dropDraft(at, field);
        else {
          truth.current.texts = { ...truth.current.texts!, [field]: text };
          if (base !== theirs) truth.current.conflicts = [...truth.current.conflicts, { field, mine: text, theirs }];
        }
      }
      setTexts(truth.current.texts);
      setConflicts(truth.current.conflicts);
      void save();
    }
    if (truth.current.sheet) takeUpDrafts();
    // A save that was under way during a reload may be newer than what the page was drawn with.
    void open();

    /** Loads the post; while the server is down, tries again. */
    async function open() {
      const wasClosed = truth.current.sheet === null;
      const outcome = await load();
      if (!wasClosed) return;
      if (outcome === 'unreachable') timer.current = setTimeout(() => void open(), TRY_AGAIN_MS);
      else takeUpDrafts();
    }

    const release = claimDrafts(at);
    const online = () => void save();
    window.addEventListener('online', online);
    return () => {
      window.removeEventListener('online', online);
      release();
      clearTimeout(timer.current);
      void save();
    };
  }, [at, load, save]);

  return { sheet, texts, saveState, conflicts, isKept, problem, type, step, settle, change, reload };
}

/** The texts of a sheet, one entry for each single text and for each part. */
function pick(sheet: PostSheet): Texts {
  const texts = { title: sheet.title } as Texts;
  for (const field of WRITTEN_FIELDS) texts[field] = sheet[field];
  for (const { id, text } of sheet.parts) texts[`part:${id}`] = text;
  return texts;
}

/** A sheet with the texts as they are typed. */
export function writtenSheet(sheet: PostSheet, texts: Record<string, string>): PostSheet {
  const parts = sheet.parts.map((part) => ({ ...part, text: texts[`part:${part.id}`] ?? part.text }));
  const single = Object.fromEntries(Object.entries(texts).filter(([field]) => !field.startsWith('part:')));
  return { ...sheet, ...single, parts };
}

const isChangedPost = (value: unknown): value is ChangedPost =>
  typeof value === 'object' && value !== null && 'sheet' in value && 'slip' in value;
