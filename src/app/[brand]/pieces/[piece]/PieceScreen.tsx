'use client';

import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Slip } from '@/core/calendar/slip';
import type { LocalDate } from '@/core/time/plan';
import type { Piece } from '@/data/pieces';
import { call, UNREACHABLE, type Answer } from '@/ui/api';
import { CallSign } from '@/ui/CallSign';
import { ChannelChoice } from '@/ui/ChannelChoice';
import { shortDate } from '@/ui/format';
import { Notches } from '@/ui/Notches';
import { useShell } from '@/ui/shell';

const PlanDialog = dynamic(() => import('../../PlanDialog').then((module) => module.PlanDialog), { ssr: false });

type Field = 'title' | 'note' | 'link' | 'sourceText';

/** The piece's texts on the left, saved when a field is left; its posts on the right. */
export function PieceScreen({
  piece: initial,
  slips,
  today,
}: {
  piece: Piece;
  slips: readonly Slip[];
  today: LocalDate;
}) {
  const { channels } = useShell();
  const router = useRouter();
  const [piece, setPiece] = useState(initial);
  const [typed, setTyped] = useState<Record<Field, string>>(initial);
  const [problem, setProblem] = useState<{ field?: string; message: string; theirs?: string } | null>(null);
  const [planning, setPlanning] = useState(false);

  async function save(change: Partial<Record<Field, string>> & { channelIds?: string[] }) {
    const answer: Answer<Piece> = await call('PATCH', `/api/pieces/${piece.id}`, { version: piece.version, ...change });
    if (answer.kind === 'done') {
      setPiece(answer.value);
      setProblem(null);
      return;
    }
    if (answer.kind === 'unreachable')
      return setProblem({ message: `${UNREACHABLE} Leave the field once more to try again.` });
    const current = answer.current as Piece | undefined;
    const field = answer.refusal.field ?? (Object.keys(change)[0] as Field);
    if (answer.refusal.code === 'stale' && current) setPiece(current);
    setProblem({
      field,
      message: answer.refusal.message,
      ...(answer.refusal.code === 'stale' && current && field !== 'channelIds'
        ? { theirs: current[field as Field] }
        : {}),
    });
  }

  const field = (name: Field) => ({
    value: typed[name],
    onChange: (event: { target: { value: string } }) => setTyped({ ...typed, [name]: event.target.value }),
    onBlur: () => {
      if (typed[name] !== piece[name]) void save({ [name]: typed[name] });
    },
  });

  const refusal = (name: Field) =>
    problem?.field === name && (
      <div className="field-refusal" role="alert">
        {problem.message}
        {problem.theirs !== undefined && (
          <div className="both-texts">
            <div>
              <b>Yours</b>
              <pre>{typed[name]}</pre>
              <button
                type="button"
                className="btn btn-outline-primary btn-sm"
                onClick={() => void save({ [name]: typed[name] })}
              >
                Keep yours
              </button>
            </div>
            <div>
              <b>Theirs</b>
              <pre>{problem.theirs}</pre>
              <button
                type="button"
                className="btn btn-outline-primary btn-sm"
                onClick={() => {
                  setTyped({ ...typed, [name]: problem.theirs! });
                  setProblem(null);
                }}
              >
                Take theirs
              </button>
            </div>
          </div>
        )}
      </div>
    );

  return (
    <>
      <header className="place-head">
        <h1>{piece.title}</h1>
        <span className="soft">{slips.length === 1 ? '1 post' : `${slips.length} posts`}</span>
        <button type="button" className="btn btn-primary push" onClick={() => setPlanning(true)}>
          Plan it…
        </button>
      </header>
      <div className="place-body">
        <div className="piece-page">
          <div>
            <div className="words">
              <label htmlFor="piece-title">Title</label>
              <input id="piece-title" className="form-control" {...field('title')} />
              {refusal('title')}
            </div>
            <div className="words">
              <label htmlFor="piece-note">Note</label>
              <textarea id="piece-note" className="form-control" rows={3} {...field('note')} />
              {refusal('note')}
            </div>
            <div className="words">
              <label htmlFor="piece-link">Link</label>
              <input id="piece-link" className="form-control" placeholder="https://" {...field('link')} />
              {refusal('link')}
            </div>
            <div className="words">
              <label htmlFor="piece-source">Source text</label>
              <textarea
                id="piece-source"
                className="form-control"
                rows={18}
                placeholder="The talk, the article, the script: what the posts are made from."
                {...field('sourceText')}
              />
              {refusal('sourceText')}
            </div>
            {problem && !problem.field && (
              <div className="field-refusal" role="alert">
                {problem.message}
              </div>
            )}
          </div>
          <div>
            <h2>Posts of it</h2>
            {slips.length === 0 && (
              <p className="soft">None yet. Plan it, and a post is made for each channel you choose.</p>
            )}
            <PostList slips={slips} />
            <ChannelChoice
              legend="Suggested for, without a post yet"
              chosen={piece.suggestedChannelIds}
              onChange={(channelIds) => {
                setPiece({ ...piece, suggestedChannelIds: channelIds });
                void save({ channelIds });
              }}
            />
          </div>
        </div>
      </div>
      {planning && (
        <PlanDialog
          piece={{
            ...piece,
            suggestedChannelIds: piece.suggestedChannelIds.filter((id) => channels.some((c) => c.id === id)),
          }}
          date={today}
          onPlanned={(made) => {
            const planned = made.map((slip) => slip.channelId);
            setPiece({
              ...piece,
              suggestedChannelIds: piece.suggestedChannelIds.filter((id) => !planned.includes(id)),
            });
            router.refresh();
          }}
          onClose={() => setPlanning(false)}
        />
      )}
    </>
  );
}

function PostList({ slips }: { slips: readonly Slip[] }) {
  const { brand, channels } = useShell();
  return (
    <ul className="posts-of-piece">
      {slips.map((slip) => (
        <li key={slip.id} data-post={slip.id}>
          <CallSign
            sign={slip.callSign}
            color={channels.find((channel) => channel.id === slip.channelId)?.color ?? ''}
          />
          <span className="figures">
            {slip.date ? shortDate(slip.date) : 'no date'} {slip.time}
          </span>
          <span>
            <Link
              href={`/${brand.slug}/calendar?post=${slip.id}${slip.date ? `&date=${slip.date}` : ''}`}
              prefetch={false}
            >
              {slip.title}
            </Link>{' '}
            {slip.missing && <span className="attention small-text">{slip.missing}</span>}
          </span>
          <Notches stage={slip.stage} failed={slip.delivery?.state === 'failed'} />
        </li>
      ))}
    </ul>
  );
}
