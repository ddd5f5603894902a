'use client';

import { memo } from 'react';
import { useDraggable } from '@dnd-kit/core';
import type { Slip } from '@/core/calendar/slip';
import { SlipFace, slipClass } from '@/ui/SlipFace';
import type { Load } from './dragging';

/** A slip that opens when pressed and can be lifted by pointer or Space. */
export const LiftableSlip = memo(function LiftableSlip({
  slip,
  color,
  open,
  unsaved,
  onOpen,
}: {
  slip: Slip;
  color: string;
  open: boolean;
  unsaved: boolean;
  onOpen: (id: string) => void;
}) {
  const load: Load = { kind: 'post', slip };
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id: `post:${slip.id}`, data: load });
  return (
    <button
      type="button"
      ref={setNodeRef}
      className={slipClass(slip, { open, lifted: isDragging, unsaved })}
      data-post={slip.id}
      {...listeners}
      aria-describedby={attributes['aria-describedby']}
      aria-current={open || undefined}
      onClick={() => onOpen(slip.id)}
    >
      <SlipFace slip={slip} color={color} />
    </button>
  );
});
