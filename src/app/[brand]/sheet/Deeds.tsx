'use client';

import { SaidOutForm } from './SaidOutForm';
import { TakeDownForm } from './TakeDownForm';
import dynamic from 'next/dynamic';
import { useState } from 'react';
import { deletedWords } from '@/core/posts/deleted';
import { departureWords } from '@/core/posts/outcome';
import { partsWith } from '@/core/posts/parts';
import type { Block } from '@/core/posts/readiness';
import type { Want } from '@/core/posts/wants';
import type { PostSheet } from '@/core/posts/sheet';
import { problemOf } from '@/ui/api';
import { shortDate } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { Only, useMay, useShell, type Shell } from '@/ui/shell';
import type { ChangedPost } from '../calendar/changed';
import { usePostDeed } from './usePostDeed';
import type { PostEditor } from './usePostEditor';
import { WordButton } from '@/ui/WordButton';
import Button from 'react-bootstrap/Button';
import { TERMS } from '@/core/terms';

const AgainDialog = dynamic(() => import('../again/AgainDialog').then((module) => module.AgainDialog), { ssr: false });

type Asked = 'address' | 'reason' | 'takeDown' | null;

/** What can be decided about a post as it stands: the one main deed first, the others as words. */
export function Deeds({
  editor,
  sheet,
  channel,
  blocks,
  wants,
  onGone,
  onUndo,
}: {
  editor: PostEditor;
  sheet: PostSheet;
  channel: Shell['channels'][number];
  blocks: readonly Block[];
  wants: readonly Want[];
  onGone: () => void;
  onUndo: (changeId: string) => void;
}) {
  const say = useSay();
  const [asked, setAsked] = useState<Asked>(null);
  const [typed, setTyped] = useState('');
  const [isAgain, setAgain] = useState(false);
  const deeds = usePostDeed(editor, sheet.id);
  const { busy } = deeds;
  const { brand } = useShell();
  const may = useMay();

  async function doIt(deed: string, more: object = {}): Promise<ChangedPost | null> {
    const changed = await deeds.doIt(deed, more);
    if (changed) {
      setAsked(null);
      setTyped('');
    }
    return changed;
  }

  async function reportUndoable(text: string, deed: string, more: object = {}) {
    const changed = await doIt(deed, more);
    if (!changed) return;
    onGone();
    const { changeId } = changed.outcome;
    say({
      text: [text, ...departureWords(changed.outcome)].join(' '),
      ...(changeId ? { deed: { label: 'Undo', run: () => onUndo(changeId) } } : {}),
    });
  }

  const when = sheet.date && sheet.time ? `${shortDate(sheet.date)} ${sheet.time}` : null;
  const { stage, delivery } = sheet;
  const isScheduled = stage === 'scheduled';
  const isFit = blocks.length === 0 && wants.length === 0;
  const canSchedule = isFit && when !== null;
  const again = (
    <Only deed="changePosts">
      <Word busy={busy} onDo={() => setAgain(true)}>
        Use again…
      </Word>
      {isAgain && (
        <AgainDialog post={{ ...sheet, isPublished: stage === 'published' }} onClose={() => setAgain(false)} />
      )}
    </Only>
  );

  const isOutByWord = delivery === null || delivery.mode === 'byHand';
  if (stage === 'published')
    return (
      <>
        <div className="deeds" data-deeds>
          {sheet.address && !sheet.takenDown?.doneAt && (
            <a className="btn btn-primary" href={sheet.address} target="_blank" rel="noreferrer">
              See it on {channel.sheet.name}
            </a>
          )}
          <Only deed="changePosts">
            {sheet.archived ? (
              <Word busy={busy} onDo={() => void doIt('unarchive')}>
                Restore from archive
              </Word>
            ) : (
              <Word
                busy={busy}
                onDo={() => void reportUndoable('Archived. The calendar no longer shows it.', 'archive')}
              >
                Archive
              </Word>
            )}
          </Only>
          {again}
          {sheet.takenDown === null && (
            <Only deed="send">
              <Word busy={busy} onDo={() => setAsked('takeDown')}>
                Take down…
              </Word>
            </Only>
          )}
          {isOutByWord && (
            <Only deed="send">
              <Word busy={busy} onDo={() => setAsked('address')}>
                Correct where and when…
              </Word>
            </Only>
          )}
        </div>
        {asked === 'takeDown' && (
          <TakeDownForm
            channel={channel}
            busy={busy}
            onSay={(reason) => void doIt('takeDown', { reason })}
            onCancel={() => setAsked(null)}
          />
        )}
        {asked === 'address' && sheet.publishedAt !== null && (
          <SaidOutForm
            before={{ address: sheet.address, publishedAt: sheet.publishedAt }}
            busy={busy}
            onSay={(said) => void doIt('correctOut', said)}
            onCancel={() => setAsked(null)}
          />
        )}
      </>
    );
  if (!may('changePosts')) return <p className="soft small-text">You can look at this post, not change it.</p>;
  if (stage === 'setAside')
    return (
      <div className="deeds" data-deeds>
        <Button disabled={busy} onClick={() => void doIt('bringBack')}>
          Bring back
        </Button>
        <Word
          busy={busy}
          onDo={() => void reportUndoable(deletedWords({ ...sheet, pictures: sheet.pictures.length }), 'delete')}
        >
          Delete
        </Word>
        {again}
      </div>
    );
  return (
    <>
      <div className="deeds" data-deeds>
        {!may('send') ? (
          <span className="soft">
            {isScheduled && when
              ? `${howSent(sheet)} ${when}${whatFirst(sheet)}.`
              : 'A manager schedules it once it is ready.'}
          </span>
        ) : isScheduled && delivery?.state === 'failed' ? (
          <Button disabled={busy} onClick={() => void doIt('tryAgain')}>
            Try again now
          </Button>
        ) : isScheduled && delivery?.state === 'held' ? (
          <Button disabled={busy} onClick={() => void doIt('tryAgain')}>
            Send it now
          </Button>
        ) : isScheduled && !delivery?.differs ? (
          <span className="soft">
            {howSent(sheet)} {when} ({brand.zone.split('/').at(-1)} time){whatFirst(sheet)}.
          </span>
        ) : (
          <Button disabled={busy || !canSchedule} onClick={() => void doIt('schedule')}>
            {isScheduled ? 'Schedule with these words' : when ? `Schedule for ${when}` : 'Schedule'}
          </Button>
        )}
        {isScheduled && delivery?.differs && (
          <Button variant="outline-primary" disabled={busy} onClick={() => void takeOldBack()}>
            Restore the scheduled text
          </Button>
        )}
        <Only deed="send">
          {isScheduled && (delivery?.state === 'failed' || delivery?.state === 'held') && (
            <Word busy={busy} onDo={() => void doIt('giveToHand')}>
              Post it by hand
            </Word>
          )}
          {isScheduled && (
            <Word busy={busy} onDo={() => void doIt('stage', { stage: 'ready' })}>
              Unschedule
            </Word>
          )}
          {!isScheduled && channel.sheet.automatic && (
            <Word busy={busy || !isFit} onDo={() => void doIt('publishNow')}>
              Publish now
            </Word>
          )}
          <Word busy={busy} onDo={() => setAsked('address')}>
            Mark as published…
          </Word>
        </Only>
        <Word busy={busy} title={TERMS.setAside} onDo={() => setAsked('reason')}>
          Set aside…
        </Word>
        <Word
          busy={busy}
          onDo={() => void reportUndoable(deletedWords({ ...sheet, pictures: sheet.pictures.length }), 'delete')}
        >
          Delete
        </Word>
        {again}
      </div>
      {!isScheduled && when === null && may('send') && (
        <p className="soft small-text">To schedule it, give it a date and a time.</p>
      )}
      {asked === 'address' && (
        <SaidOutForm busy={busy} onSay={(said) => void doIt('declareOut', said)} onCancel={() => setAsked(null)} />
      )}
      {asked === 'reason' && (
        <form
          className="words asked"
          onKeyDown={(event) => {
            if (event.key !== 'Escape') return;
            event.stopPropagation();
            setAsked(null);
          }}
          onSubmit={(event) => {
            event.preventDefault();
            void reportUndoable(`Set aside “${sheet.title}”.`, 'setAside', { reason: typed });
          }}
        >
          <label htmlFor="asked">Why it is set aside</label>
          <input
            dir="auto"
            id="asked"
            className="form-control"
            autoFocus
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
          <div className="deeds" data-deeds>
            <Button type="submit" variant="outline-primary" disabled={busy}>
              Set aside
            </Button>
            <Word busy={busy} onDo={() => setAsked(null)}>
              Cancel
            </Word>
          </div>
        </form>
      )}
    </>
  );

  /** Only what is sent was copied: notes and script stay as they are. */
  async function takeOldBack() {
    const { parts = [], ...words } = sheet.delivery!.copy;
    const answer = await editor.change('PATCH', `/api/posts/${sheet.id}`, (version) => ({
      version,
      ...words,
      parts: partsWith(parts, sheet.pictures),
    }));
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
  }
}

function Word({ busy, title, onDo, children }: { busy: boolean; title?: string; onDo: () => void; children: string }) {
  return (
    <WordButton disabled={busy} title={title} onClick={onDo}>
      {children}
    </WordButton>
  );
}

/** How a scheduled post leaves, as far as the words before its time say it. */
const howSent = ({ delivery }: PostSheet): string =>
  delivery?.mode === 'byHand'
    ? 'To be posted by hand'
    : delivery?.isPractice
      ? 'Practice: will be sent to a made-up network'
      : 'Will be sent';

/** What stands between a post and its time. */
const whatFirst = ({ delivery }: PostSheet): string => (delivery?.awaitsRelease ? ', once it is released' : '');
