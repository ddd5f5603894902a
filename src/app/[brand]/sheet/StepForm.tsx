'use client';

import { useId, useState, type FormEvent, type ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import {
  CRAFT_LABELS,
  CRAFTS,
  WORK_LABELS,
  WORKS,
  type Craft,
  type LeadUnit,
  type PrepLine,
  type Work,
} from '@/core/prep/step';
import { useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';

/** When a step of a sort of work is seen to be done. */
const TICKS_ITSELF: Record<Work, string> = {
  words: 'As soon as there is text that the network takes and somebody has read',
  picture: 'As soon as there is a picture that the network takes',
  recording: 'As soon as there is a video',
  editing: 'As soon as there is a video that the network takes',
  sending: 'As soon as the post is scheduled',
};

/** A step's fields, to add one or to change it. */
export function StepForm({
  step,
  deed,
  onSave,
  onClose,
  children,
}: {
  step: PrepLine;
  /** What the button does: “Add the step”. */
  deed: string;
  onSave: (line: PrepLine) => void;
  onClose: () => void;
  /** Further deeds beside the button. */
  children?: ReactNode;
}) {
  const { people } = useShell();
  const id = useId();
  const { title, work, ownerId, craft, lead, leadIn, minutes, note, needed, ticksItself } = step;
  const [line, setLine] = useState<PrepLine>({
    title,
    work,
    ownerId,
    craft,
    lead,
    leadIn,
    minutes,
    note,
    needed,
    ticksItself,
  });
  const set = (part: Partial<PrepLine>) => setLine((now) => ({ ...now, ...part }));

  function save(event: FormEvent) {
    event.preventDefault();
    event.stopPropagation();
    onSave(line);
  }

  return (
    <form
      className="step-form"
      onSubmit={save}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.stopPropagation();
        onClose();
      }}
    >
      <input
        dir="auto"
        aria-label="What the step is"
        placeholder="What is to be done"
        value={line.title}
        autoFocus
        onChange={(event) => set({ title: event.target.value })}
      />
      <label>
        kind of work{' '}
        <select value={line.work} onChange={(event) => set({ work: event.target.value as Work })}>
          {WORKS.map((one) => (
            <option key={one} value={one}>
              {WORK_LABELS[one]}
            </option>
          ))}
        </select>
      </label>
      <label>
        who{' '}
        <select
          value={line.ownerId ?? (line.craft ? `craft:${line.craft}` : '')}
          onChange={({ target: { value } }) =>
            set(
              value.startsWith('craft:')
                ? { ownerId: null, craft: value.slice(6) as Craft }
                : { ownerId: value || null, craft: null },
            )
          }
        >
          <option value="">whoever owns the post</option>
          <optgroup label="People">
            {people.map((person) => (
              <option key={person.id} value={person.id}>
                {person.name}
              </option>
            ))}
          </optgroup>
          <optgroup label="Skills">
            {CRAFTS.map((one) => (
              <option key={one} value={`craft:${one}`}>
                a {CRAFT_LABELS[one]}
              </option>
            ))}
          </optgroup>
        </select>
      </label>
      <span className="lead">
        <input
          type="number"
          aria-label="Days"
          min={0}
          max={365}
          value={Math.abs(line.lead)}
          onChange={(event) => set({ lead: Number(event.target.value) * (line.lead < 0 ? -1 : 1) })}
        />
        <select
          aria-label="Kind of days"
          value={line.leadIn}
          onChange={(event) => set({ leadIn: event.target.value as LeadUnit })}
        >
          <option value="working">working days</option>
          <option value="calendar">days</option>
        </select>
        <select
          aria-label="Before or after publishing"
          value={line.lead < 0 ? 'after' : 'before'}
          onChange={(event) => set({ lead: Math.abs(line.lead || 1) * (event.target.value === 'after' ? -1 : 1) })}
        >
          <option value="before">before</option>
          <option value="after">after</option>
        </select>
      </span>
      <label>
        minutes{' '}
        <input
          type="number"
          min={1}
          value={line.minutes ?? ''}
          onChange={(event) => set({ minutes: event.target.value === '' ? null : Number(event.target.value) })}
        />
      </label>
      <label htmlFor={`${id}-needed`}>
        <input
          id={`${id}-needed`}
          type="checkbox"
          checked={line.needed}
          onChange={(event) => set({ needed: event.target.checked })}
        />{' '}
        needed before “ready”
      </label>
      <label htmlFor={`${id}-itself`} title={TICKS_ITSELF[line.work]}>
        <input
          id={`${id}-itself`}
          type="checkbox"
          checked={line.ticksItself}
          onChange={(event) => set({ ticksItself: event.target.checked })}
        />{' '}
        ticked automatically
      </label>
      <input
        dir="auto"
        className="note"
        aria-label="Note"
        placeholder="a short note"
        value={line.note}
        onChange={(event) => set({ note: event.target.value })}
      />
      <span className="deeds">
        <Button type="submit" size="sm">
          {deed}
        </Button>
        <WordButton onClick={onClose}>Close</WordButton>
        {children}
      </span>
    </form>
  );
}

/** Moves a step among the others, or takes it away. */
export function StepPlace({
  index,
  count,
  onShift,
  onRemove,
}: {
  index: number;
  count: number;
  onShift: (by: -1 | 1) => void;
  onRemove: () => void;
}) {
  return (
    <>
      <WordButton disabled={index === 0} onClick={() => onShift(-1)}>
        Move earlier
      </WordButton>
      <WordButton disabled={index === count - 1} onClick={() => onShift(1)}>
        Move later
      </WordButton>
      <WordButton className="wrong" onClick={onRemove}>
        Remove
      </WordButton>
    </>
  );
}
