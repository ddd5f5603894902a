'use client';

import Link from 'next/link';
import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { groupBy } from '@/core/group';
import { stepState } from '@/core/prep/countBack';
import { CRAFT_LABELS } from '@/core/prep/step';
import { withArticle } from '@/core/words';
import type { LocalDate } from '@/core/time/plan';
import type { BatchDayLine, CalendarStep } from '@/usecases/prep/reading';
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

/**
 * The steps due on a day: of a channel's posts, with `null` those of pieces, without either all. A square, what and who;
 * the post’s or piece’s title on focus. A post opens beside the calendar, a piece on its own page.
 */
export function StepsHere({
  date,
  channelId,
  line = false,
}: {
  date: LocalDate;
  channelId?: string | null;
  line?: boolean;
}) {
  const { on } = useContext(Context);
  const here = on(date).filter((step) => channelId === undefined || step.channelId === channelId);
  return here.map((step) => <StepChip key={step.id} step={step} line={line} withSign={channelId === undefined} />);
}

function StepChip({ step, line, withSign }: { step: CalendarStep; line: boolean; withSign: boolean }) {
  const { open } = useContext(Context);
  const { channels, ownerName, today } = useTimetable();
  const channel = step.channelId === null ? undefined : channels.get(step.channelId);
  const who = step.ownerId ? ownerName(step.ownerId) : step.craft ? withArticle(CRAFT_LABELS[step.craft]) : 'nobody';
  const state = stepState({ ...step, doneOn: null }, today);
  const same = {
    className: `step-chip is-${state}`,
    title: `${step.title} for “${step.holderTitle}”, ${who}${state === 'late' || state === 'squeezed' ? `, ${state}` : ''}`,
  };
  const face = (
    <>
      <i aria-hidden="true" />
      {withSign && channel && <CallSign sign={channel.callSign} color={channel.color} />}
      <span dir="auto" className="what">
        {step.title}
      </span>
      {!line && <span className="who soft">{who}</span>}
    </>
  );
  return step.postId === null ? (
    <Link {...same} href={`/${step.brandSlug}/pieces/${step.pieceId}`} prefetch={false}>
      {face}
    </Link>
  ) : (
    <button {...same} type="button" onClick={() => open(step.postId!)}>
      {face}
    </button>
  );
}
