'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { PostSheet } from '@/core/posts/sheet';
import type { Refusal } from '@/core/refusal';
import { call, type Answer } from '@/ui/api';
import { dropDraft, keepDraft, listDrafts, type DraftField } from '@/ui/drafts';
import type { ChangedPost } from '../changed';

/** How long after the last keystroke a text is saved, in milliseconds. */
const SAVE_AFTER_MS = 500;
/** How long after a failed try the next one follows, in milliseconds. */
const TRY_AGAIN_MS = 3_000;

export type Texts = Pick<PostSheet, DraftField>;

/** How the typed texts stand with the server. */
export type SaveState = 'saved' | 'saving' | 'unsaved' | 'unreachable';

/** Two texts for one field: what was typed here, and what somebody else saved meanwhile. */
export interface Conflict {
  field: DraftField;
  mine: string;
  theirs: string;
}

const FIELDS: readonly DraftField[] = ['title', 'headline', 'caption', 'hashtags', 'link'];

/** Everything the open sheet reads and does. */
export interface PostEditor {
  /** What stands on the server, as far as known; null while it loads. */
  sheet: PostSheet | null;
  /** The texts as typed. */
  texts: Texts | null;
  saveState: SaveState;
  conflicts: readonly Conflict[];
  /** Why the server would not save a field, or the post is not there. */
  problem: Refusal | null;
  type(field: DraftField, text: string): void;
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
  const [sheet, setSheet] = useState(initial);
  const [texts, setTexts] = useState<Texts | null>(initial);
  const [saveState, setSaveState] = useState<SaveState>('saved');
  const [conflicts, setConflicts] = useState<readonly Conflict[]>([]);
  const [problem, setProblem] = useState<Refusal | null>(null);
  // The present truth for callbacks that run later than the render they were made in.
  const truth = useRef({ sheet: initial, texts: initial as Texts | null, conflicts: [] as readonly Conflict[] });
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const saving = useRef<Promise<void> | null>(null);
  const changing = useRef<Promise<unknown>>(Promise.resolve());
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
      const merged = { ...pick(next) };
      const found: Conflict[] = [];
      for (const field of FIELDS) {
        const mine = typed?.[field];
        if (!old || mine === undefined || mine === old[field] || mine === next[field]) continue;
        merged[field] = mine;
        if (next[field] !== old[field]) found.push({ field, mine, theirs: next[field] });
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
    return FIELDS.filter(
      (field) => typed[field] !== current[field] && !open.some((conflict) => conflict.field === field),
    );
  };

  const saveOnce = useCallback(async (): Promise<void> => {
    clearTimeout(timer.current);
    const dirty = dirtyFields();
    if (dirty.length === 0) return setSaveState(truth.current.conflicts.length > 0 ? 'unsaved' : 'saved');
    setSaveState('saving');
    const sent = Object.fromEntries(dirty.map((field) => [field, truth.current.texts![field]])) as Partial<Texts>;
    const answer: Answer<ChangedPost> = await call('PATCH', `/api/posts/${postId}`, {
      version: truth.current.sheet!.version,
      ...sent,
    });
    if (answer.kind === 'unreachable') {
      setSaveState('unreachable');
      timer.current = setTimeout(() => void save(), TRY_AGAIN_MS);
      return;
    }
    if (answer.kind === 'done') {
      // The server may tidy a text (a title's white space); what was sent is what is saved.
      const tidied = { ...truth.current.texts! };
      for (const field of dirty) if (tidied[field] === sent[field]) tidied[field] = answer.value.sheet[field];
      truth.current.texts = tidied;
      truth.current.sheet = { ...truth.current.sheet!, ...sent };
      takeIn(answer.value.sheet);
      for (const field of dirty) if (truth.current.texts[field] === answer.value.sheet[field]) dropDraft(postId, field);
      setProblem(null);
      changed.current(answer.value);
    } else if (answer.refusal.code === 'stale' && answer.current) {
      takeIn(answer.current as PostSheet);
    } else {
      setProblem(answer.refusal);
      return setSaveState('unsaved');
    }
    if (dirtyFields().length > 0) return saveOnce();
    setSaveState(truth.current.conflicts.length > 0 ? 'unsaved' : 'saved');
    // eslint-disable-next-line react-hooks/exhaustive-deps -- save and saveOnce call each other
  }, [postId, takeIn]);

  const save = useCallback((): Promise<void> => {
    saving.current ??= saveOnce().finally(() => (saving.current = null));
    return saving.current;
  }, [saveOnce]);

  const type = useCallback(
    (field: DraftField, text: string) => {
      const { sheet: current, texts: typed } = truth.current;
      if (!current || !typed) return;
      truth.current.texts = { ...typed, [field]: text };
      setTexts(truth.current.texts);
      if (text === current[field]) dropDraft(postId, field);
      else keepDraft({ postId, field, text, base: current[field], version: current.version });
      setSaveState('unsaved');
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void save(), SAVE_AFTER_MS);
    },
    [postId, save],
  );

  const settle = useCallback(
    (conflict: Conflict, keep: 'mine' | 'theirs') => {
      truth.current.conflicts = truth.current.conflicts.filter((other) => other !== conflict);
      setConflicts(truth.current.conflicts);
      type(conflict.field, keep === 'mine' ? truth.current.texts![conflict.field] : conflict.theirs);
      void save();
    },
    [save, type],
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
      const mine = changing.current.then(() => changeNow<T>(method, path, body));
      changing.current = mine;
      return mine;
    },
    [changeNow],
  );

  const load = useCallback(async () => {
    const answer: Answer<PostSheet> = await call('GET', `/api/posts/${postId}`);
    if (answer.kind === 'refused') setProblem(answer.refusal);
    if (answer.kind === 'done') takeIn(answer.value);
    return answer.kind;
  }, [postId, takeIn]);

  const reload = useCallback(() => void load(), [load]);

  useEffect(() => {
    /** Takes up what was typed before a reload. */
    function takeUpDrafts() {
      const current = truth.current.sheet;
      if (!current) return;
      for (const { field, text, base } of listDrafts(postId)) {
        if (text === current[field]) dropDraft(postId, field);
        else {
          truth.current.texts = { ...truth.current.texts!, [field]: text };
          if (base !== current[field])
            truth.current.conflicts = [...truth.current.conflicts, { field, mine: text, theirs: current[field] }];
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

    const online = () => void save();
    window.addEventListener('online', online);
    return () => {
      window.removeEventListener('online', online);
      clearTimeout(timer.current);
      void save();
    };
  }, [postId, load, save]);

  return { sheet, texts, saveState, conflicts, problem, type, settle, change, reload };
}

const pick = (sheet: PostSheet): Texts => ({
  title: sheet.title,
  headline: sheet.headline,
  caption: sheet.caption,
  hashtags: sheet.hashtags,
  link: sheet.link,
});

const isChangedPost = (value: unknown): value is ChangedPost =>
  typeof value === 'object' && value !== null && 'sheet' in value && 'slip' in value;
