'use client';

import dynamic from 'next/dynamic';
import { useState } from 'react';
import type { Change } from '@/core/calendar/change';
import type { Slip } from '@/core/calendar/slip';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import type { Shell } from '@/ui/shell';
import type { TrayIdea } from '@/usecases/calendar/loadCalendar';
import type { Movable } from './MoveDialog';
import type { Planned, PlannedPosts } from './usePlanning';

const loadPlanDialog = () => import('../PlanDialog').then((module) => module.PlanDialog);
const loadNewPostDialog = () => import('./NewPostDialog').then((module) => module.NewPostDialog);
const loadMoveDialog = () => import('./MoveDialog').then((module) => module.MoveDialog);
const PlanDialog = dynamic(loadPlanDialog, { ssr: false });
const NewPostDialog = dynamic(loadNewPostDialog, { ssr: false });
const MoveDialog = dynamic(loadMoveDialog, { ssr: false });
/** What loads the dialogs of the calendar. */
export const CALENDAR_DIALOGS = [loadNewPostDialog, loadMoveDialog, loadPlanDialog];

/** An idea that is about to be planned. */
export interface Planning {
  idea: TrayIdea;
  date: LocalDate;
  time?: LocalTime;
  /** It was dropped on that day. */
  isDropped?: boolean;
}

/** Which dialog of the calendar is open, and about what. */
export function useCalendarDialogs() {
  const [planning, setPlanning] = useState<Planning | null>(null);
  const [adding, setAdding] = useState<Planned | null>(null);
  const [moving, setMoving] = useState<Movable | null>(null);
  const isOpen = planning !== null || adding !== null || moving !== null;
  return { planning, setPlanning, adding, setAdding, moving, setMoving, isOpen };
}

/** The dialogs of the calendar: an idea is planned, a post is made, a post is moved. */
export function CalendarDialogs({
  asked: { planning, setPlanning, adding, setAdding, moving, setMoving },
  ideas,
  channels,
  onChange,
  onPlanned,
  onMade,
}: {
  asked: ReturnType<typeof useCalendarDialogs>;
  ideas: readonly TrayIdea[];
  channels: Shell['channels'];
  onChange: (slips: readonly Movable[], change: Change) => void;
  onPlanned: (idea: TrayIdea, made: PlannedPosts) => void;
  /** Told of the posts that were made. */
  onMade: (made: readonly Slip[]) => void;
}) {
  return (
    <>
      {planning && (
        <PlanDialog
          piece={planning.idea}
          date={planning.date}
          time={planning.time}
          isDayGiven={planning.isDropped === true}
          onPlanned={(made) => onPlanned(planning.idea, made)}
          onClose={() => setPlanning(null)}
        />
      )}
      {adding && (
        <NewPostDialog
          date={adding.date}
          time={adding.time}
          channelId={adding.channelId}
          opening={adding.opening}
          ideas={adding.channelId ? ideas.filter(isFor(adding.channelId)) : []}
          onMade={onMade}
          onClose={() => setAdding(null)}
        />
      )}
      {moving && (
        <MoveDialog
          slip={moving}
          channels={channels.filter(({ brandId }) => brandId === moving.brandId)}
          onMove={(change) => onChange([moving], change)}
          onClose={() => setMoving(null)}
        />
      )}
    </>
  );
}

/** Whether an idea is suggested for a channel. */
const isFor =
  (channelId: string) =>
  ({ suggestedChannelIds }: TrayIdea): boolean =>
    suggestedChannelIds.includes(channelId);
