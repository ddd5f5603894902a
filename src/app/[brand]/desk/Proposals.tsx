'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useRef, useState, type KeyboardEvent } from 'react';
import { flushSync } from 'react-dom';
import { EXTRACT_LABELS } from '@/core/extracts/extracts';
import { groupBy } from '@/core/group';
import { FOLDED_AFTER_DAYS } from '@/core/proposals/proposal';
import { FORMAT_LABELS, type Format } from '@/core/rulesheets/types';
import { counted } from '@/core/words';
import type { KeptProposal, WaitingProposal } from '@/usecases/proposals/proposals';
import { call, problemOf } from '@/ui/api';
import { CallSign } from '@/ui/CallSign';
import { shortDate } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { Only, useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';

/** What was drawn up by itself and waits for a yes: each accepted, changed or rejected, by one key too. */
export function Proposals({ proposals }: { proposals: readonly WaitingProposal[] }) {
  const [gone, setGone] = useState<readonly string[]>([]);
  const waiting = proposals.filter(({ id }) => !gone.includes(id));
  const [fresh, folded] = [waiting.filter(({ isFolded }) => !isFolded), waiting.filter(({ isFolded }) => isFolded)];
  const { keep, throwAway, busy } = useDeciding(setGone);
  if (waiting.length === 0) return null;
  const listOf = (shown: readonly WaitingProposal[]) => (
    <ProposalList proposals={shown} busy={busy} onKeep={keep} onThrowAway={throwAway} />
  );
  return (
    <section aria-label="Drawn up for you" id="drawn-up">
      <h2>
        Drawn up for you <span className="figures soft">{fresh.length}</span>
        <span className="soft small-text push">
          <kbd>a</kbd> accept <kbd>c</kbd> change <kbd>r</kbd> reject
        </span>
      </h2>
      {[...groupBy(fresh, ({ pieceId }) => pieceId)].map(([pieceId, own]) => (
        <div key={pieceId}>
          <PieceLine proposal={own[0]!} count={own.length} />
          {listOf(own)}
        </div>
      ))}
      {folded.length > 0 && (
        <details>
          <summary>
            {counted(folded.length, 'post')} waiting for more than {FOLDED_AFTER_DAYS} days
          </summary>
          {listOf(folded)}
        </details>
      )}
    </section>
  );
}

function PieceLine({ proposal, count }: { proposal: WaitingProposal; count: number }) {
  const { brand } = useShell();
  return (
    <p className="soft small-text proposals-piece">
      {counted(count, 'post')} from{' '}
      <Link dir="auto" href={`/${brand.slug}/pieces/${proposal.pieceId}`} prefetch={false}>
        {proposal.pieceTitle}
      </Link>
    </p>
  );
}

/** Keeps and throws away; what was decided is gone from the list at once, and comes back where it could not be done. */
function useDeciding(setGone: (change: (gone: readonly string[]) => readonly string[]) => void) {
  const { channels, brand } = useShell();
  const router = useRouter();
  const say = useSay();
  const [busy, setBusy] = useState(false);

  async function decide<T>(id: string, body: object): Promise<T | null> {
    setBusy(true);
    setGone((now) => [...now, id]);
    const answer = await call<T>('POST', `/api/proposals/${id}`, body);
    setBusy(false);
    if (answer.kind === 'done') return answer.value;
    setGone((now) => now.filter((one) => one !== id));
    say({ text: problemOf(answer)!, wrong: true });
    return null;
  }

  async function keep({ id, channelId }: WaitingProposal, caption: string | null) {
    const kept = await decide<KeptProposal>(id, { deed: 'keep', caption });
    if (!kept) return;
    const where = channels.find((channel) => channel.id === channelId)?.name ?? '';
    say({
      text: `Accepted: ${where}, ${kept.date ? `${shortDate(kept.date)} ${kept.time ?? ''}`.trim() : 'no date yet'}.`,
      deed: {
        label: 'Open',
        run: () => router.push(`/${brand.slug}/calendar?post=${kept.postId}${kept.date ? `&date=${kept.date}` : ''}`),
      },
    });
    router.refresh();
  }

  async function throwAway({ id }: WaitingProposal) {
    if (!(await decide<true>(id, { deed: 'throwAway' }))) return;
    say({
      text: 'Rejected.',
      deed: {
        label: 'Undo',
        run: () =>
          void (async () => {
            const answer = await call('POST', `/api/proposals/${id}`, { deed: 'takeBack' });
            const problem = problemOf(answer);
            if (problem) return say({ text: problem, wrong: true });
            setGone((now) => now.filter((one) => one !== id));
            router.refresh();
          })(),
      },
    });
  }

  return { keep, throwAway, busy };
}

function ProposalList({
  proposals,
  busy,
  onKeep,
  onThrowAway,
}: {
  proposals: readonly WaitingProposal[];
  busy: boolean;
  onKeep: (proposal: WaitingProposal, caption: string | null) => Promise<void>;
  onThrowAway: (proposal: WaitingProposal) => Promise<void>;
}) {
  const list = useRef<HTMLUListElement>(null);
  /** After a decision the focus goes to the one that comes next, so that a key decides on each in turn. */
  const decide = (at: number, deed: () => Promise<void>) => {
    const rows = list.current?.querySelectorAll<HTMLElement>('[data-proposal]');
    (rows?.[at + 1] ?? rows?.[at - 1])?.focus();
    void deed();
  };
  return (
    <ul className="proposals" ref={list}>
      {proposals.map((proposal, at) => (
        <ProposalRow
          key={proposal.id}
          proposal={proposal}
          busy={busy}
          onKeep={(caption) => decide(at, () => onKeep(proposal, caption))}
          onThrowAway={() => decide(at, () => onThrowAway(proposal))}
          onStep={(by) => list.current?.querySelectorAll<HTMLElement>('[data-proposal]')[at + by]?.focus()}
        />
      ))}
    </ul>
  );
}

function ProposalRow({
  proposal,
  busy,
  onKeep,
  onThrowAway,
  onStep,
}: {
  proposal: WaitingProposal;
  busy: boolean;
  onKeep: (caption: string | null) => void;
  onThrowAway: () => void;
  onStep: (by: 1 | -1) => void;
}) {
  const { channels } = useShell();
  const { id, channelId, format, headline, caption, parts, kind, hasCard } = proposal;
  const channel = channels.find((one) => one.id === channelId);
  const [changed, setChanged] = useState<string | null>(null);
  const field = useRef<HTMLTextAreaElement>(null);
  const says = caption.split('\n')[0] || headline;
  const name = `${FORMAT_LABELS[format as Format]} for ${channel?.name ?? ''}: ${says.slice(0, 80)}`;
  const change = () => {
    // At once: the keys that follow belong in the field, and on the row each of them is a deed.
    flushSync(() => setChanged((now) => now ?? caption));
    field.current?.focus();
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey) return;
    const deed = {
      a: () => onKeep(changed),
      c: change,
      r: onThrowAway,
      ArrowDown: () => onStep(1),
      ArrowUp: () => onStep(-1),
    }[event.key];
    if (!deed) return;
    event.preventDefault();
    event.stopPropagation();
    deed();
  };
  return (
    <li data-proposal={id} tabIndex={0} aria-keyshortcuts="a c r" onKeyDown={onKey} aria-label={name}>
      {hasCard ? (
        <img src={`/api/proposals/${id}/card`} alt={headline || says} loading="lazy" />
      ) : (
        <span className="no-card" />
      )}
      <div>
        <div className="proposal-head">
          {channel && <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />}
          <span className="soft small-text">
            {FORMAT_LABELS[format as Format]}
            {kind && ` from a ${EXTRACT_LABELS[kind as keyof typeof EXTRACT_LABELS]}`}
            {parts > 0 && `, ${counted(parts, 'part')}`}
          </span>
        </div>
        {headline && (
          <b dir="auto" className="proposal-title">
            {headline}
          </b>
        )}
        {changed === null ? (
          <p dir="auto">{caption}</p>
        ) : (
          <textarea
            ref={field}
            className="form-control"
            dir="auto"
            rows={5}
            aria-label={`Text of “${name}”`}
            value={changed}
            onChange={(event) => setChanged(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== 'Escape') return;
              event.stopPropagation();
              event.currentTarget.closest<HTMLElement>('[data-proposal]')?.focus();
            }}
          />
        )}
      </div>
      <Only deed="changePosts">
        <div className="proposal-deeds">
          <WordButton disabled={busy} onClick={() => onKeep(changed)} aria-label={`Accept the ${name}`}>
            Accept
          </WordButton>
          <WordButton onClick={change} aria-label={`Change the ${name}`}>
            Change
          </WordButton>
          <WordButton disabled={busy} onClick={onThrowAway} aria-label={`Reject the ${name}`}>
            Reject
          </WordButton>
        </div>
      </Only>
    </li>
  );
}
