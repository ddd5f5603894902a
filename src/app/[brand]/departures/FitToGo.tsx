'use client';

import { useRouter } from 'next/navigation';
import type { Departure } from '@/usecases/delivery/loadDepartures';
import { clockTime, dayAndTime } from '@/ui/format';
import { useShell } from '@/ui/shell';
import { useDeed } from '@/ui/useDeed';

/** Whether a departure is fit to go, or how it went, with what can be done about it. */
export function FitToGo({ departure, onHandOver }: { departure: Departure; onHandOver: () => void }) {
  const { brand } = useShell();
  const router = useRouter();
  const { run, busy } = useDeed();
  const { fitness, reason, slip } = departure;

  async function tryAgain() {
    const answer = await run('POST', `/api/posts/${slip.id}/deeds`, { deed: 'tryAgain', version: slip.version });
    if (answer.kind === 'done') router.refresh();
  }
  const tryWord = (label: string) => (
    <button
      type="button"
      className="word"
      disabled={busy}
      onClick={() => void tryAgain()}
      aria-label={`${label}: ${slip.title}`}
    >
      {label}
    </button>
  );

  switch (fitness) {
    case 'out':
      return (
        <span className="soft">
          out {departure.publishedAt ? clockTime(departure.publishedAt, brand.zone, true) : ''}
          {departure.address && (
            <>
              {' · '}
              <a href={departure.address} target="_blank" rel="noreferrer" aria-label={`See it: ${slip.title}`}>
                see it
              </a>
            </>
          )}
        </span>
      );
    case 'fit':
      return <b>fit</b>;
    case 'sending':
      return <b>leaving now…</b>;
    case 'retrying':
      return (
        <>
          <span className="wrong">tried {departure.attempts === 1 ? 'once' : `${departure.attempts} times`}</span> ·{' '}
          {reason}
          <div className="soft small-text">
            again {departure.nextTryAt ? dayAndTime(departure.nextTryAt, brand.zone) : 'soon'}
          </div>
        </>
      );
    case 'failed':
      return (
        <>
          <span className="wrong">failed</span> · {reason}
          <div className="soft small-text">{tryWord('try again')}</div>
        </>
      );
    case 'held':
      return (
        <>
          <span className="wrong">on hold</span> · {reason || 'it missed its time'}
          <div className="soft small-text">{tryWord('send it now')} · or open it to move it or set it aside</div>
        </>
      );
    case 'unknown':
      return (
        <>
          <span className="wrong">perhaps out</span> · {reason}
          <div className="soft small-text">
            {departure.isAsked ? 'Bimlo goes on asking its network' : 'its network does not say: please look'} · open it
            to say whether it is out
          </div>
        </>
      );
    case 'handOver':
    case 'handOverToCome':
      return (
        <button type="button" className={`word ${fitness === 'handOver' ? 'attention' : ''}`} onClick={onHandOver}>
          {fitness === 'handOver' ? 'to be posted now' : 'hand-over ready'}
        </button>
      );
    case 'notScheduled':
      return <span className="attention">not scheduled: will not leave</span>;
    case 'notFit':
      return <span className="attention">{reason}</span>;
  }
}
