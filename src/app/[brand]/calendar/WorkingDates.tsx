'use client';

import Link from 'next/link';
import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { groupBy } from '@/core/group';
import { stepState } from '@/core/prep/countBack';
import { CRAFT_LABELS } from '@/core/prep/step';
import type { LocalDate } from '@/core/time/plan';
import type { BatchDayLine } from '@/data/batchDays';
import type { CalendarStep } from '@/data/steps';
import { CallSign } from '@/ui/CallSign';
import { useTimetable } from './timetable';

interface WorkingDates {
  on: (date: LocalDate) => readonly CalendarStep[];
  batchOn: (date: LocalDate) => readonly BatchDayLine[];
  open: (postId: string) => void;
}

const Context = createContext<WorkingDates>({ on: () => [], batchOn: () => [], open: () => undefined });

/** Tells the days below which steps are due on them. */
export function WorkingDatesProvider({
  steps,
  batchDays,
  onOpen,
  children,
}: {
  steps: readonly CalendarStep[];
  batchDays: readonly BatchDayLine[];
  onOpen: (postId: string) => void;
  children: ReactNode;
}) {
  const value = useMemo(() => {
    const byDay = groupBy(steps, ({ day }) => day);
    return {
      on: (date: LocalDate) => byDay.get(date) ?? [],
      batchOn: (date: LocalDate) => batchDays.filter(({ day }) => day === date),
      open: onOpen,
    };
  }, [steps, batchDays, onOpen]);
  return <Context value={value}>{children}</Context>;
}

/** The batch days held on a day, each with what is done of it. */
export function BatchDaysHere({ date }: { date: LocalDate }) {
  const { batchOn } = useContext(Context);
  return batchOn(date).map(({ id, brandSlug, name, steps, done, startsAt }) => (
    <Link
      key={id}
      className="batch-chip"
      href={`/${brandSlug}/batch/${id}`}
      prefetch={false}
      title={`${name}, from ${startsAt}: ${done} of ${steps} done`}
    >
      {name} <span className="figures">{`${done}/${steps}`}</span>
    </Link>
  ));
}

/** The steps due on a day, of a channel or of all: a square to tick, what and who; the post’s title beside it or on focus. */
export function StepsHere({ date, channelId, line = false }: { date: LocalDate; channelId?: string; line?: boolean }) {
  const { on, open } = useContext(Context);
  const { channels, ownerName, today } = useTimetable();
  const here = on(date).filter((step) => channelId === undefined || step.channelId === channelId);
  if (here.length === 0) return null;
  return here.map((step) => {
    const channel = channels.get(step.channelId);
    const who = step.ownerId ? ownerName(step.ownerId) : step.craft ? `a ${CRAFT_LABELS[step.craft]}` : 'nobody';
    const state = stepState({ ...step, doneOn: null }, today);
    return (
      <button
        key={step.id}
        type="button"
        className={`step-chip is-${state}`}
        title={`${step.title} for “${step.postTitle}”, ${who}${state === 'late' || state === 'squeezed' ? `, ${state}` : ''}`}
        onClick={() => open(step.postId)}
      >
        <i aria-hidden="true" />
        {channelId === undefined && channel && <CallSign sign={channel.callSign} color={channel.color} />}
        <span className="what">{step.title}</span>
        {!line && <span className="who soft">{who}</span>}
      </button>
    );
  });
}
