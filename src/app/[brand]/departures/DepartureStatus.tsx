'use client';

import { useRouter } from 'next/navigation';
import type { Departure } from '@/usecases/delivery/loadDepartures';
import { clockTime, dayAndTime } from '@/ui/format';
import { Only, useMay, useShell } from '@/ui/shell';
import { useDeed } from '@/ui/useDeed';
import { WordButton } from '@/ui/WordButton';

/** Whether a departure is ready to send, or how it went, with what can be done about it. */
export function DepartureStatus({ departure, onHandOver }: { departure: Departure; onHandOver: () => void }) {
  const { brand } = useShell();
  const may = useMay();
  const router = useRouter();
  const { run, busy } = useDeed();
  const { fitness, reason, slip } = departure;

  async function doIt(deed: 'tryAgain' | 'giveToHand') {
    const answer = await run('POST', `/api/posts/${slip.id}/deeds`, { deed, version: slip.version });
    if (answer.kind === 'done') router.refresh();
  }
  const word = (label: string, deed: Parameters<typeof doIt>[0]) => (
    <WordButton disabled={busy} onClick={() => void doIt(deed)} aria-label={`${label}: ${slip.title}`}>
      {label}
    </WordButton>
  );
  const byHand = word('Post it by hand', 'giveToHand');
  const practice = slip.delivery?.isPractice && <b> · practice</b>;

  switch (fitness) {
    case 'out':
      return (
        <span className="soft">
          published{practice} {departure.publishedAt ? clockTime(departure.publishedAt, brand.zone, true) : ''}
          {departure.address && (
            <>
              {' · '}
              <a href={departure.address} target="_blank" rel="noreferrer" aria-label={`See it: ${slip.title}`}>
                See it
              </a>
            </>
          )}
        </span>
      );
    case 'fit':
      return <b>ready to send{practice}</b>;
    case 'sending':
      return <b>sending now…</b>;
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
          <Only deed="send">
            <div className="soft small-text">
              {word('Try again', 'tryAgain')} · {byHand}
            </div>
          </Only>
        </>
      );
    case 'held':
      return (
        <>
          <span className="wrong">on hold</span> · {reason || 'it missed its time'}
          <Only deed="send">
            <div className="soft small-text">
              {word('Send it now', 'tryAgain')} · {byHand} · or open it to move it or set it aside
            </div>
          </Only>
        </>
      );
    case 'awaitsRelease':
      return <span className="attention">waits to be released</span>;
    case 'heldWithAll':
      return <span className="attention">on hold with all others</span>;
    case 'unknown':
      return (
        <>
          <span className="wrong">may be published</span> · {reason}
          <div className="soft small-text">
            {departure.isAsked ? 'Bimlo keeps asking its network' : 'its network does not say: please look'}
            {may('send') && ' · open it to say whether it is published'}
          </div>
        </>
      );
    case 'handOver':
    case 'handOverToCome':
      return (
        <WordButton className={`${fitness === 'handOver' ? 'attention' : ''}`} onClick={onHandOver}>
          {fitness === 'handOver' ? 'post it by hand now' : 'to be posted by hand'}
        </WordButton>
      );
    case 'notScheduled':
      return <span className="attention">not scheduled: will not be sent</span>;
    case 'notFit':
      return (
        <span dir="auto" className="attention">
          {reason}
        </span>
      );
  }
}
