'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { counted } from '@/core/words';
import type { FanOutAsk } from '@/usecases/fanOut/planFanOut';
import type { WritingOffer as Offer, WritingOutcome } from '@/usecases/writing/writeFanOut';
import { call, problemOf } from '@/ui/api';
import { CallSign } from '@/ui/CallSign';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';

/** Has the posts of a fan-out written by the team's own service: what is sent is shown first, and what it did not write is named. */
export function WritingOffer({
  pieceId,
  ask,
  keys,
  onWritten,
}: {
  pieceId: string;
  ask: FanOutAsk;
  /** The posts that are to be made. */
  keys: readonly string[];
  onWritten: () => void;
}) {
  const { channels } = useShell();
  const path = `/api/pieces/${pieceId}/fan-out/writing`;
  const [offer, setOffer] = useState<Offer | null>(null);
  const [outcome, setOutcome] = useState<WritingOutcome | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [isAsking, setAsking] = useState(false);
  const signOf = (channelId: string) => {
    const channel = channels.find(({ id }) => id === channelId);
    return channel && <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />;
  };

  async function show() {
    setOutcome(null);
    const answer = await call<Offer>('POST', path, { ask, keys });
    setProblem(problemOf(answer));
    if (answer.kind === 'done') setOffer(answer.value);
  }
  async function send({ address }: Offer) {
    setAsking(true);
    const answer = await call<WritingOutcome>('POST', path, { ask, keys, sendTo: address });
    setAsking(false);
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    setOffer(null);
    setOutcome(answer.value);
    onWritten();
  }

  return (
    <section className="writing-offer" aria-label="Writing service">
      {!offer && <WordButton onClick={() => void show()}>Have them written by your writing service…</WordButton>}
      {offer && (
        <div className="notice">
          <p>
            <b>This would be sent to {offer.address}</b>, once for each of {counted(offer.requests.length, 'post')}:
          </p>
          <div className="writing-requests">
            {offer.requests.map(({ key, channelId, request }) => (
              <details key={key}>
                <summary>
                  {signOf(channelId)} {request.task}
                </summary>
                <pre dir="auto">{JSON.stringify(request, null, 2)}</pre>
              </details>
            ))}
          </div>
          <Button size="sm" disabled={isAsking || offer.requests.length === 0} onClick={() => void send(offer)}>
            {isAsking ? 'Asking …' : `Send ${counted(offer.requests.length, 'request')}`}
          </Button>{' '}
          {!isAsking && <WordButton onClick={() => setOffer(null)}>Cancel</WordButton>}
        </div>
      )}
      {outcome && (
        <div className="small-text" role="status">
          Written for {counted(outcome.written, 'post')}, each marked until somebody has read it.
          {outcome.failed.length > 0 && (
            <>
              {' '}
              {counted(outcome.failed.length, 'post keeps', 'posts keep')} Bimlo’s own draft:
              <ul>
                {outcome.failed.map(({ key, channelId, reason }) => (
                  <li key={key}>
                    {signOf(channelId)} {reason}.
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
      )}
      <FieldRefusal>{problem}</FieldRefusal>
    </section>
  );
}
