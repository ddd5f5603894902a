'use client';

import { type ReactNode } from 'react';
import { useDndContext, useDroppable } from '@dnd-kit/core';
import type { DropPlace } from '@/core/calendar/drop';
import { loadOf, refusalFor } from './dragging';
import { useTimetable } from './timetable';

/**
 * Somewhere a post can be dropped. Its content is handed in, so that hovering redraws the cell's own ground and none of
 * the slips in it.
 */
export function DropCell({
  id,
  place,
  as: Tag = 'div',
  className = '',
  children,
  ...rest
}: {
  id: string;
  place: DropPlace;
  as?: 'td' | 'div' | 'section' | 'aside';
  className?: string;
  children?: ReactNode;
  'aria-label'?: string;
  'data-date'?: string;
  'data-channel'?: string;
  style?: React.CSSProperties;
}) {
  const { setNodeRef, isOver } = useDroppable({ id, data: place });
  return (
    <Tag ref={setNodeRef} className={className} data-over={isOver || undefined} {...rest}>
      {children}
      {isOver && <Refusing place={place} />}
    </Tag>
  );
}

/** Marks the cell under what is dragged when it may not be dropped there. */
function Refusing({ place }: { place: DropPlace }) {
  const { active } = useDndContext();
  const { todayOf, channels } = useTimetable();
  const load = active ? loadOf(active) : null;
  const refusal = refusalFor(load, place, { todayOf, brandOfChannel: (id) => channels.get(id)?.brandId });
  return refusal ? <span className="refusing" aria-hidden="true" /> : null;
}
