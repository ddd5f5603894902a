'use client';

import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { LocalDate } from '@/core/time/plan';
import type { Piece } from '@/usecases/pieces/reading';
import { CallSign } from '@/ui/CallSign';
import { dayAndTime } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { plannedWords } from '../plannedWords';
import { useMadeMessage } from '../useMadeMessage';
import { Only, useShell } from '@/ui/shell';
import { useDeed } from '@/ui/useDeed';
import { WordButton } from '@/ui/WordButton';
import Table from 'react-bootstrap/Table';

const IdeaDialog = dynamic(() => import('../IdeaDialog').then((module) => module.IdeaDialog), { ssr: false });
const PlanDialog = dynamic(() => import('../PlanDialog').then((module) => module.PlanDialog), { ssr: false });

type PieceDeed = 'setAside' | 'bringBack' | 'delete' | 'restore';

/** The ideas as rows: what, for which channels, and what can be done with them. */
export function IdeaList({
  ideas,
  aside,
  today,
}: {
  ideas: readonly Piece[];
  aside: readonly Piece[];
  today: LocalDate;
}) {
  const router = useRouter();
  const say = useSay();
  const sayMade = useMadeMessage();
  const { run } = useDeed();
  const [editing, setEditing] = useState<Piece | null>(null);
  const [planning, setPlanning] = useState<Piece | null>(null);

  async function doDeed(piece: Piece, deed: PieceDeed, report: string, undo: PieceDeed | null) {
    const answer = await run('POST', `/api/pieces/${piece.id}/deeds`, { deed });
    if (answer.kind !== 'done') return;
    router.refresh();
    say({
      text: report,
      ...(undo
        ? { deed: { label: 'Undo', run: () => void doDeed(piece, undo, `“${piece.title}” is back.`, null) } }
        : {}),
    });
  }

  return (
    <>
      <header className="place-head">
        <h1>Ideas</h1>
        <span className="soft">
          {ideas.length === 1 ? '1 idea without a date' : `${ideas.length} ideas without a date`}
        </span>
      </header>
      <div className="place-body">
        {ideas.length === 0 && (
          <div className="empty">
            <h2>No ideas yet</h2>
            <p>
              What could be said goes here until it has a date.
              <Only deed="catchIdeas"> Press i anywhere: a title and Enter is enough.</Only>
            </p>
          </div>
        )}
        {ideas.length > 0 && (
          <IdeaTable
            pieces={ideas}
            deeds={(piece) => (
              <Only deed="changePieces">
                <WordButton onClick={() => setPlanning(piece)} aria-label={`Plan “${piece.title}”`}>
                  Plan…
                </WordButton>
                <WordButton onClick={() => setEditing(piece)} aria-label={`Edit “${piece.title}”`}>
                  Edit
                </WordButton>
                <WordButton
                  onClick={() => void doDeed(piece, 'setAside', `Set aside “${piece.title}”.`, 'bringBack')}
                  aria-label={`Set aside “${piece.title}”`}
                >
                  Set aside
                </WordButton>
                <WordButton
                  onClick={() => void doDeed(piece, 'delete', `Deleted “${piece.title}”.`, 'restore')}
                  aria-label={`Delete “${piece.title}”`}
                >
                  Delete
                </WordButton>
              </Only>
            )}
          />
        )}
        {aside.length > 0 && (
          <>
            <h2 className="section-head">Set aside</h2>
            <IdeaTable
              pieces={aside}
              deeds={(piece) => (
                <Only deed="changePieces">
                  <WordButton
                    onClick={() =>
                      void doDeed(piece, 'bringBack', `“${piece.title}” is back among the ideas.`, 'setAside')
                    }
                    aria-label={`Bring back “${piece.title}”`}
                  >
                    Bring back
                  </WordButton>
                </Only>
              )}
            />
          </>
        )}
      </div>
      {editing && <IdeaDialog idea={editing} onClose={() => setEditing(null)} />}
      {planning && (
        <PlanDialog
          piece={planning}
          date={today}
          onPlanned={({ slips, changeId }) => {
            sayMade({ label: plannedWords(planning.title, slips), changeId });
          }}
          onClose={() => setPlanning(null)}
        />
      )}
    </>
  );
}

function IdeaTable({ pieces, deeds }: { pieces: readonly Piece[]; deeds: (piece: Piece) => React.ReactNode }) {
  const { brand, channels, people } = useShell();
  return (
    <Table bsPrefix="timetable" className="ideas">
      <thead>
        <tr>
          <th scope="col">Idea</th>
          <th scope="col">Suggested for</th>
          <th scope="col">Caught</th>
          <th scope="col">
            <span className="visually-hidden">Actions</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {pieces.map((piece) => (
          <tr key={piece.id} data-piece={piece.id}>
            <td>
              <Link dir="auto" href={`/${brand.slug}/pieces/${piece.id}`} prefetch={false}>
                {piece.title}
              </Link>
              {piece.note && (
                <div dir="auto" className="soft small-text clip">
                  {piece.note}
                </div>
              )}
              {piece.link && <div className="soft small-text clip">{piece.link.replace(/^https?:\/\//, '')}</div>}
            </td>
            <td>
              <span className="plates">
                {channels
                  .filter((channel) => piece.suggestedChannelIds.includes(channel.id))
                  .map((channel) => (
                    <CallSign key={channel.id} sign={channel.callSign} color={channel.color} name={channel.name} />
                  ))}
              </span>
            </td>
            <td className="soft small-text">
              {dayAndTime(piece.createdAt, brand.zone)}
              <br />
              {people.find((person) => person.id === piece.ownerId)?.name}
            </td>
            <td>
              <span className="row-deeds">{deeds(piece)}</span>
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
