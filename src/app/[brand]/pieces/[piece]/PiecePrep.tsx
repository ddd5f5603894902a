'use client';

import { KIND_LABELS, PIECE_KINDS, type PieceKind } from '@/core/pieces/kinds';
import { earliestDay } from '@/core/pieces/piece';
import { withArticle } from '@/core/words';
import type { SheetStep } from '@/core/posts/sheet';
import type { Piece } from '@/usecases/pieces/reading';
import { call, problemOf } from '@/ui/api';
import { shortDate } from '@/ui/format';
import { InPlace } from '@/ui/InPlace';
import { useSay } from '@/ui/messages';
import { PrepSteps } from '../../sheet/PrepSteps';
import { WordButton } from '@/ui/WordButton';

/** The piece’s own prep: its kind decides which; it counts back from a day of its own, or from its earliest post. */
export function PiecePrep({
  piece,
  steps,
  postDays,
  onSteps,
  onEdit,
}: {
  piece: Piece;
  steps: readonly SheetStep[];
  /** The days of its live posts; null for those without one. */
  postDays: readonly (string | null)[];
  onSteps: (steps: readonly SheetStep[]) => void;
  onEdit: (change: { kind: PieceKind } | { prepDay: string | null }) => void;
}) {
  const say = useSay();
  const path = `/api/pieces/${piece.id}/steps`;
  const earliest = earliestDay(postDays);

  async function ask(method: 'POST' | 'PATCH' | 'DELETE' | 'PUT', to: string, body: object): Promise<boolean> {
    const answer = await call<{ steps: SheetStep[] }>(method, to, body);
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
    if (answer.kind === 'done') onSteps(answer.value.steps);
    return answer.kind === 'done';
  }

  return (
    <>
      <p className="piece-kind">
        <label>
          This piece is{' '}
          <select
            value={piece.kind}
            aria-label="Kind of piece"
            onChange={(event) => onEdit({ kind: event.target.value as PieceKind })}
          >
            {PIECE_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {withArticle(KIND_LABELS[kind])}
              </option>
            ))}
          </select>
        </label>
        <span className="soft">
          Its prep counts back from{' '}
          <InPlace
            label="Day its prep counts back from"
            type="date"
            className="figures"
            value={piece.prepDay ?? ''}
            shown={
              piece.prepDay
                ? shortDate(piece.prepDay)
                : earliest
                  ? `its earliest post, ${shortDate(earliest)}`
                  : 'its earliest post, once it has one'
            }
            onCommit={(day) => onEdit({ prepDay: day || null })}
          />
          {piece.prepDay && (
            <WordButton onClick={() => onEdit({ prepDay: null })}>Use its earliest post instead</WordButton>
          )}
        </span>
      </p>
      <PrepSteps
        steps={steps}
        path={path}
        write={ask}
        renew={{ label: 'Use those of its kind', run: () => void ask('PUT', path, {}) }}
      />
    </>
  );
}
