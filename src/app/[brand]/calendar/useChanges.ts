'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useRouter } from 'next/navigation';
import { v4 as newId } from 'uuid';
import { applyChange, type Change } from '@/core/calendar/change';
import type { Slip } from '@/core/calendar/slip';
import type { ChangeTarget } from '@/usecases/calendar/changePosts';
import type { CalendarView } from '@/usecases/calendar/loadCalendar';
import { asOfLatestAnswer, call, UNREACHABLE, type Answer } from '@/ui/api';
import { changeMessage } from '@/ui/changeMessage';
import { useSay } from '@/ui/messages';
import { ownKey } from '@/ui/personOnScreen';
import { useUndo, type ChangeAnswer } from '@/ui/undo';

/** A change that is on its way to the server, or waits until it can be reached. */
interface Pending {
  key: string;
  brandId: string;
  targets: ChangeTarget[];
  change: Change;
}

/** How often a change that could not be saved is tried again, in milliseconds. */
const TRY_AGAIN_MS = 4_000;
/** How long after the last change the server's view is read anew, for horizons and openings. */
const SETTLE_MS = 900;
const storeName = (brandId: string) => ownKey(`changes.${brandId}`);

/**
 * The calendar's posts as they show: the server's, with the changes on top that are under way. A change shows at once and is
 * sent after the one before it. One that is refused goes back and says why; one that could not be saved stays marked, is
 * kept in the browser, and is tried until the server answers.
 */
export function useChanges(brandId: string, { slips: fromServer, asOf }: Pick<CalendarView, 'slips' | 'asOf'>) {
  const say = useSay();
  const router = useRouter();
  /** What was answered since the page was opened, by post: a view that was read before an answer does not draw over it. */
  const [answered, setAnswered] = useState<ReadonlyMap<string, Answered>>(NOTHING);
  const [pending, setPending] = useState<readonly Pending[]>([]);
  /** The same for callbacks that run later than the render they were made in: what was added meanwhile is in it. */
  const queue = useRef<readonly Pending[]>([]);
  const [waits, setWaits] = useState(false);
  // Once a try found nobody, what waits stays marked until it is saved, also while it is tried again.
  const [isMarked, setMarked] = useState(false);
  const busy = useRef(false);
  /** How often something was undone: an open post is read anew then. */
  const [undone, setUndone] = useState(0);
  /** The versions that our own changes made of others: a change behind them in the queue was decided on an older one. */
  const raised = useRef(new Map<string, number>());
  const slips = useMemo(
    () => pending.reduce(withChange, withAnswered(fromServer, answered, asOf)),
    [fromServer, answered, asOf, pending],
  );

  const learn = useCallback((shown: readonly Slip[], gone: readonly string[]) => {
    const now = asOfLatestAnswer();
    setAnswered(
      (known) =>
        new Map([
          ...known,
          ...shown.map((slip) => [slip.id, { slip, asOf: now }] as const),
          ...gone.map((id) => [id, { slip: null, asOf: now }] as const),
        ]),
    );
  }, []);
  const put = useCallback((slip: Slip) => learn([slip], []), [learn]);
  const remove = useCallback((id: string) => learn([], [id]), [learn]);

  useEffect(() => {
    const kept = readKept(brandId);
    if (kept.length === 0) return;
    queue.current = kept;
    setPending(kept);
  }, [brandId]);

  const settle = useRef<ReturnType<typeof setTimeout>>(undefined);
  const readAnew = useCallback(() => {
    clearTimeout(settle.current);
    settle.current = setTimeout(() => router.refresh(), SETTLE_MS);
  }, [router]);

  const keep = useCallback(
    (next: readonly Pending[]) => {
      queue.current = next;
      setPending(next);
      try {
        if (next.length > 0) localStorage.setItem(storeName(brandId), JSON.stringify(next));
        else localStorage.removeItem(storeName(brandId));
      } catch (error) {
        // A full or forbidden store only loses the copy that survives a reload.
        console.warn('changes are not kept for a reload', error);
      }
    },
    [brandId],
  );

  const { undo } = useUndo(
    useCallback(
      ({ slips: shown, gone }) => {
        learn(shown, gone);
        setUndone((times) => times + 1);
        readAnew();
      },
      [learn, readAnew],
    ),
  );

  /** What a change is based on by now. */
  const present = useCallback((target: ChangeTarget): ChangeTarget => {
    let { version } = target;
    for (;;) {
      const next = raised.current.get(versionKey({ ...target, version }));
      if (next === undefined) break;
      version = next;
    }
    return { ...target, version };
  }, []);

  /** Shows what came of a change, and takes it off in the same breath, or it would show twice. */
  const settled = useCallback(
    (key: string, posts: readonly ChangeTarget[], answer: Exclude<Answer<ChangeAnswer>, { kind: 'unreachable' }>) => {
      keep(queue.current.filter((change) => change.key !== key));
      if (answer.kind === 'refused') {
        say({ text: answer.refusal.message, wrong: true });
        return router.refresh();
      }
      const { slips: shown, gone, outcome } = answer.value;
      const { changeId, refused } = outcome;
      for (const post of posts) {
        const now = shown.find(({ id }) => id === post.id);
        // What was refused has a version that others made: what waits for it was not decided on that.
        const isDone = !refused.some(({ postId }) => postId === post.id);
        if (now && isDone && now.version > post.version) raised.current.set(versionKey(post), now.version);
      }
      learn(shown, gone);
      say({
        text: changeMessage(answer.value.outcome),
        wrong: refused.length > 0,
        ...(changeId ? { deed: { label: 'Undo', run: () => undo(changeId) } } : {}),
      });
      readAnew();
    },
    [say, router, keep, learn, undo, readAnew],
  );

  useEffect(() => {
    const next = pending[0];
    if (!next || busy.current || waits) return;
    busy.current = true;
    const { key, brandId: ofBrand, change } = next;
    const posts = next.targets.map(present);
    const sent = call<ChangeAnswer>('POST', '/api/calendar/changes', { brandId: ofBrand, posts, change }, { key });
    void sent.then((answer) => {
      busy.current = false;
      setMarked(answer.kind === 'unreachable');
      if (answer.kind !== 'unreachable') return settled(key, posts, answer);
      setWaits(true);
      say({ text: UNREACHABLE, wrong: true });
    });
  }, [pending, waits, present, settled, say]);

  useEffect(() => {
    if (!waits) return;
    const again = () => setWaits(false);
    const timer = setTimeout(again, TRY_AGAIN_MS);
    addEventListener('online', again);
    return () => {
      clearTimeout(timer);
      removeEventListener('online', again);
    };
  }, [waits]);

  const change = useCallback(
    (targets: readonly Pick<Slip, 'id' | 'version'>[], what: Change) => {
      if (targets.length === 0) return;
      const next: Pending = {
        key: newId(),
        brandId,
        targets: targets.map(({ id, version }) => ({ id, version })),
        change: what,
      };
      keep([...queue.current, next]);
    },
    [brandId, keep],
  );

  /** Posts with changes that the server has not taken yet. */
  const unsaved = isMarked ? new Set(pending.flatMap(({ targets }) => targets.map(({ id }) => id))) : NONE;
  return { slips, unsaved, isSaving: pending.length > 0, waits, put, remove, change, undo, undone, readAnew };
}

const versionKey = ({ id, version }: ChangeTarget): string => `${id} ${version}`;

const NONE: ReadonlySet<string> = new Set();
const NOTHING: ReadonlyMap<string, Answered> = new Map();

/** What an answer said of a post: its slip, or that it is gone; and how far the database had got. */
interface Answered {
  slip: Slip | null;
  asOf: number;
}

function withAnswered(slips: readonly Slip[], answered: ReadonlyMap<string, Answered>, asOf: number): readonly Slip[] {
  const newer = [...answered].filter(([, answer]) => answer.asOf > asOf);
  if (newer.length === 0) return slips;
  const ids = new Set(newer.map(([id]) => id));
  return [...slips.filter(({ id }) => !ids.has(id)), ...newer.flatMap(([, { slip }]) => slip ?? [])];
}

function withChange(slips: readonly Slip[], { targets, change }: Pending): readonly Slip[] {
  const ids = new Set(targets.map(({ id }) => id));
  return slips.map((slip) => (ids.has(slip.id) ? applyChange(slip, change) : slip));
}

function readKept(brandId: string): Pending[] {
  try {
    return JSON.parse(localStorage.getItem(storeName(brandId)) ?? '[]') as Pending[];
  } catch (error) {
    console.warn('changes kept before the reload cannot be read', error);
    return [];
  }
}
