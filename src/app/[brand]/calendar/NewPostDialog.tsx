'use client';

import { useState, type FormEvent } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Dialog } from '@/ui/Dialog';
import type { Slip } from '@/core/calendar/slip';
import { askedFor } from '@/core/rhythm/entry';
import type { Opening } from '@/core/rhythm/openings';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import { call, UNREACHABLE } from '@/ui/api';
import { ChannelChoice } from '@/ui/ChannelChoice';
import { useKept } from '@/ui/useKept';
import { useShell } from '@/ui/shell';
import { planWords, useWhen } from '../WhenFields';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { WordButton } from '@/ui/WordButton';
import { Field } from '@/ui/Field';

/** Ideas offered at once, the last caught first. */
const IDEAS_OFFERED = 6;

/**
 * Makes a post in place: what it says becomes its piece; channel, date and time are set already where it was started from a
 * lane or an opening.
 */
export function NewPostDialog({
  date: startDate,
  time: startTime,
  channelId,
  opening,
  ideas = [],
  onMade,
  onClose,
}: {
  date: LocalDate;
  time?: LocalTime | undefined;
  channelId?: string | undefined;
  /** The opening it shall fill, with the format and theme it asks for. */
  opening?: Opening | undefined;
  /** Ideas that are suggested for its channel. */
  ideas?: readonly { id: string; title: string }[];
  onMade: (slips: Slip[]) => void;
  onClose: () => void;
}) {
  const { brand, channels } = useShell();
  const { typed, set, forget } = useKept(`newPost.${brand.id}`, { title: '' });
  const { title } = typed;
  const [channelIds, setChannelIds] = useState<string[]>(channelId ? [channelId] : []);
  const when = useWhen('new-post', startDate, startTime);
  const [pieceId, setPieceId] = useState<string | null>(null);
  const [idea, setIdea] = useState<{ id: string; title: string } | null>(null);
  const [problem, setProblem] = useState<{ field?: string; message: string } | null>(null);
  const channel = channels.find(({ id }) => id === channelId);
  const asked = opening ? askedFor(opening) : '';

  async function make(event: FormEvent) {
    event.preventDefault();
    if (channelIds.length === 0)
      return setProblem({ field: 'channels', message: 'Choose at least one channel: a post is made for each.' });
    let piece = idea?.id ?? pieceId;
    if (piece === null) {
      const caught = await call<{ id: string }>('POST', '/api/pieces', {
        brandId: channel?.brandId ?? brand.id,
        title,
      });
      if (caught.kind === 'unreachable') return setProblem({ message: UNREACHABLE });
      if (caught.kind === 'refused') return setProblem(caught.refusal);
      piece = caught.value.id;
      // Kept, so that trying again after a refusal below does not catch it twice.
      setPieceId(piece);
    }
    const answer = await call<{ slips: Slip[] }>('POST', `/api/pieces/${piece}/plan`, {
      channelIds,
      ...when.plan,
      format: opening?.format ?? null,
      pillarId: opening?.pillarId ?? null,
      isMadeForIt: idea === null,
    });
    if (answer.kind === 'refused') return setProblem(answer.refusal);
    if (answer.kind === 'unreachable') return setProblem({ message: UNREACHABLE });
    forget();
    onMade(answer.value.slips);
    onClose();
  }

  return (
    <Dialog
      title={`New post${channel ? ` on ${channel.name}` : ''}`}
      onClose={onClose}
      onSubmit={(event) => void make(event)}
      deeds={
        <Button type="submit" disabled={when.isBadTime}>
          Plan {planWords(when)}
        </Button>
      }
      onCancel={() => {
        forget();
        onClose();
      }}
    >
      {asked && <p className="soft">The rhythm asks for: {asked}.</p>}
      {idea ? (
        <p className="mb-3">
          From the idea <b dir="auto">{idea.title}</b>{' '}
          <WordButton onClick={() => setIdea(null)}>Start with a title instead</WordButton>
        </p>
      ) : (
        <Field
          id="new-post-what"
          label="Working title"
          refusal={problem?.field === 'title' && problem.message}
          className="mb-3"
        >
          <Form.Control
            dir="auto"
            autoFocus
            value={title}
            onChange={(event) => set({ title: event.target.value })}
            autoComplete="off"
          />
        </Field>
      )}
      {!idea && ideas.length > 0 && (
        <div className="mb-3" role="group" aria-label="Ideas for this channel">
          <span className="soft small-text">Or from an idea for {channel?.name ?? 'this channel'}:</span>
          <ul className="idea-choice">
            {ideas.slice(0, IDEAS_OFFERED).map((one) => (
              <li key={one.id}>
                <WordButton dir="auto" onClick={() => setIdea(one)}>
                  {one.title}
                </WordButton>
              </li>
            ))}
          </ul>
        </div>
      )}
      {!channel && (
        <div className="mb-3">
          <ChannelChoice legend="Create a post for each channel" chosen={channelIds} onChange={setChannelIds} />
        </div>
      )}
      {when.fields}
      {problem?.field !== 'title' && <FieldRefusal>{problem?.message}</FieldRefusal>}
    </Dialog>
  );
}
