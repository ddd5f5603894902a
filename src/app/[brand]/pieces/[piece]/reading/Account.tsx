'use client';

import { useState } from 'react';
import { groupLeftOut, type LeftOut, type LeftOutGroup } from '@/core/reading/leftOut';
import { accountWords } from '@/core/reading/accountWords';
import { figure } from '@/core/words';
import type { OtherReading } from '@/usecases/extracts/readOtherwise';
import type { PieceReading } from '@/usecases/extracts/reading';
import type { Piece } from '@/usecases/pieces/reading';
import { call, problemOf } from '@/ui/api';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { Only } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';

/** What of a piece's text is read and what is left out, each to be opened and taken in after all; and as what it is read. */
export function Account({
  piece,
  reading,
  onRead,
}: {
  piece: Pick<Piece, 'id' | 'version'>;
  reading: Pick<PieceReading, 'as' | 'words' | 'leftOut' | 'takenIn' | 'unknownLanguage'>;
  /** It is read otherwise now. */
  onRead: () => void;
}) {
  const { as, words, leftOut, takenIn, unknownLanguage } = reading;
  const [problem, setProblem] = useState<string | null>(null);
  const groups = groupLeftOut(leftOut);
  const said = accountWords({ as, words, leftOut: groups.map(({ label }) => label), unknownLanguage });

  async function readSo(change: OtherReading) {
    const answer = await call('PATCH', `/api/pieces/${piece.id}/source`, change, { seen: piece.version });
    setProblem(problemOf(answer));
    if (answer.kind === 'done') onRead();
  }

  return (
    <div className="account soft">
      {groups.length === 0 ? (
        <span>{said}</span>
      ) : (
        <details>
          <summary>{said}</summary>
          {groups.map((group) => (
            <Stretches
              key={group.reason}
              group={group}
              deed="Take it in"
              onDeed={(takeIn) => void readSo({ takeIn })}
            />
          ))}
        </details>
      )}
      {takenIn.length > 0 && (
        <details>
          <summary>Taken in after all: {labelsOf(takenIn)}.</summary>
          {groupLeftOut(takenIn).map((group) => (
            <Stretches
              key={group.reason}
              group={group}
              deed="Leave it out"
              onDeed={(leaveOut) => void readSo({ leaveOut })}
            />
          ))}
        </details>
      )}
      {as !== 'said' && (
        <Only deed="changePieces">
          <WordButton onClick={() => void readSo({ as: as === 'plain' ? 'markdown' : 'plain' })}>
            {as === 'plain' ? 'Read it as Markdown' : 'Read it as plain text'}
          </WordButton>
        </Only>
      )}
      <FieldRefusal>{problem}</FieldRefusal>
    </div>
  );
}

const labelsOf = (list: readonly LeftOut[]): string =>
  groupLeftOut(list)
    .map(({ label }) => label)
    .join(', ');

/** Stretches that are shown at once. */
const SHOWN = 12;

/** Stretches that are left out for one reason, or were taken in. */
function Stretches({
  group: { label, stretches },
  deed,
  onDeed,
}: {
  group: LeftOutGroup;
  deed: string;
  onDeed: (name: string) => void;
}) {
  const [isWhole, setWhole] = useState(false);
  const shown = isWhole ? stretches : stretches.slice(0, SHOWN);
  return (
    <section>
      <h3>{label}</h3>
      <ul>
        {shown.map(({ name, text, times }) => (
          <li key={name}>
            <span dir="auto" className="account-text">
              {text}
            </span>
            {times > 1 && <span className="figures"> {times} times</span>}{' '}
            <Only deed="changePieces">
              <WordButton aria-label={`${deed}: ${text.slice(0, 60)}`} onClick={() => onDeed(name)}>
                {deed}
              </WordButton>
            </Only>
          </li>
        ))}
      </ul>
      {shown.length < stretches.length && (
        <WordButton onClick={() => setWhole(true)}>Show all {figure(stretches.length)}</WordButton>
      )}
    </section>
  );
}
