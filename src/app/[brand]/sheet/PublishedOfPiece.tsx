'use client';

import { useEffect, useState } from 'react';
import type { Said } from '@/usecases/captions/publishedOf';
import { call, problemOf } from '@/ui/api';
import { CallSign } from '@/ui/CallSign';
import { shortDate } from '@/ui/format';
import { WordButton } from '@/ui/WordButton';

/** What was published of a piece, beside a post of it that is written: opened where one wants to see it. */
export function PublishedOfPiece({ pieceId, count }: { pieceId: string; count: number }) {
  const [isOpen, setOpen] = useState(false);
  if (count === 0) return null;
  return (
    <section className="published-of-piece" aria-label="Published of this piece">
      <WordButton aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        Published of this piece <span className="figures">{count}</span>
      </WordButton>
      {isOpen && <SaidOfPiece pieceId={pieceId} />}
    </section>
  );
}

/** The published posts of a piece with their texts, the newest first. */
export function SaidOfPiece({ pieceId }: { pieceId: string }) {
  const [said, setSaid] = useState<readonly Said[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let isCurrent = true;
    void call<Said[]>('GET', `/api/pieces/${pieceId}/published`).then((answer) => {
      if (!isCurrent) return;
      setProblem(problemOf(answer));
      if (answer.kind === 'done') setSaid(answer.value);
    });
    return () => {
      isCurrent = false;
    };
  }, [pieceId]);

  if (problem) return <p className="wrong">{problem}</p>;
  if (said === null) return <p className="soft">Loading…</p>;
  if (said.length === 0) return <p className="soft">Nothing of this piece is published yet.</p>;
  return (
    <ol className="said">
      {said.map(({ id, channelName, callSign, color, date, time, address, texts }) => (
        <li key={id}>
          <div className="said-head">
            <CallSign sign={callSign} color={color} name={channelName} />
            <span className="figures soft">{[date && shortDate(date), time].filter(Boolean).join(' ')}</span>
            {address && (
              <a href={address} target="_blank" rel="noreferrer">
                See it<span className="visually-hidden"> on {channelName}</span>
              </a>
            )}
          </div>
          {texts.map((text, index) => (
            <p key={index} dir="auto">
              {text}
            </p>
          ))}
          {texts.length === 0 && <p className="soft">It had no text.</p>}
        </li>
      ))}
    </ol>
  );
}
