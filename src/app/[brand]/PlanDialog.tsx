'use client';

import { useState, type FormEvent } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Dialog } from '@/ui/Dialog';
import { channelsForKind, type PieceKind } from '@/core/pieces/kinds';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import type { PlannedPosts } from './calendar/usePlanning';
import { call, UNREACHABLE } from '@/ui/api';
import { ChannelChoice } from '@/ui/ChannelChoice';
import { useShell } from '@/ui/shell';
import { useOpeningChoice } from './OpeningChoice';
import { planWords, useWhen } from './WhenFields';
import { FieldRefusal } from '@/ui/FieldRefusal';

/** Asks for which channels, when, and makes one post for each. */
export function PlanDialog({
  piece,
  date: suggestedDate,
  time: suggestedTime,
  isDayGiven = false,
  onPlanned,
  onClose,
}: {
  piece: { id: string; title: string; kind: PieceKind; suggestedChannelIds: string[] };
  date: LocalDate;
  time?: LocalTime | undefined;
  /** Somebody named that day, as by dropping the idea on it: openings are offered second. */
  isDayGiven?: boolean;
  onPlanned: (planned: PlannedPosts) => void;
  onClose: () => void;
}) {
  const { channels } = useShell();
  const [channelIds, setChannelIds] = useState<string[]>(
    piece.suggestedChannelIds.length > 0 ? piece.suggestedChannelIds : channelsForKind(piece.kind, channels),
  );
  const when = useWhen('plan', suggestedDate, suggestedTime);
  const openings = useOpeningChoice(channelIds);
  const hasOpenings = openings.places.length > 0;
  const [wants, setWants] = useState<'openings' | 'day' | null>(null);
  const isInto = hasOpenings && (wants ?? (isDayGiven ? 'day' : 'openings')) === 'openings';
  const [problem, setProblem] = useState<string | null>(null);

  async function plan(event: FormEvent) {
    event.preventDefault();
    const answer = await call<PlannedPosts>('POST', `/api/pieces/${piece.id}/plan`, {
      channelIds,
      ...(isInto ? { date: null, time: null, places: openings.places } : when.plan),
    });
    if (answer.kind === 'refused') return setProblem(answer.refusal.message);
    if (answer.kind === 'unreachable') return setProblem(UNREACHABLE);
    onPlanned(answer.value);
    onClose();
  }

  const posts = channelIds.length === 1 ? '1 post' : `${channelIds.length} posts`;
  return (
    <Dialog
      title={`Plan “${piece.title}”`}
      onClose={onClose}
      onSubmit={(event) => void plan(event)}
      deeds={
        <Button type="submit" disabled={channelIds.length === 0 || when.isBadTime}>
          {channelIds.length === 0
            ? 'Choose a channel first'
            : `Plan ${posts} ${isInto ? (channelIds.length === 1 ? 'in its opening' : 'in their openings') : planWords(when)}`}
        </Button>
      }
      onCancel={onClose}
    >
      <div className="mb-3">
        <ChannelChoice legend="Create a post for each channel" chosen={channelIds} onChange={setChannelIds} />
      </div>
      {hasOpenings && (
        <fieldset className="mb-3">
          <legend className="form-label">When</legend>
          <Form.Check
            type="radio"
            name="plan-when"
            id="plan-openings"
            label="each in the next opening of its channel"
            checked={isInto}
            onChange={() => setWants('openings')}
          />
          {isInto && openings.fields}
          <Form.Check
            type="radio"
            name="plan-when"
            id="plan-day"
            label="all on one day"
            checked={!isInto}
            onChange={() => setWants('day')}
          />
        </fieldset>
      )}
      {!isInto && when.fields}
      <FieldRefusal>{problem}</FieldRefusal>
    </Dialog>
  );
}
