'use client';

import { useMemo, type KeyboardEvent, type MouseEvent, type ReactNode, type TouchEvent } from 'react';
import { useDndMonitor, useDraggable } from '@dnd-kit/core';
import type { Carried, Load } from './dragging';

/** The id of the calendar's dragging, which dnd-kit gives to the text that tells how to lift something as well. */
export const LIFT_HELP_ID = 'calendar-lifting';

/**
 * Lets everything inside that carries `data-lift` be lifted. One draggable carries whatever is taken hold of, so that
 * a month of 2,000 slips costs no more than one: each slip is a plain button.
 */
export function Carrier({
  loadFor,
  children,
  className,
  onClick,
}: {
  /** What is lifted with an element: null for what may not be. */
  loadFor: (element: HTMLElement) => Load | null;
  children: ReactNode;
  className?: string;
  onClick: (event: MouseEvent<HTMLDivElement>) => void;
}) {
  const carried = useMemo<Carried>(() => ({ load: null, element: null }), []);
  const { listeners, setNodeRef } = useDraggable({ id: 'carrier', data: carried });

  const mark = (isLifted: boolean) => carried.element?.toggleAttribute('data-lifted', isLifted);
  useDndMonitor({
    onDragStart: () => mark(true),
    onDragEnd: () => mark(false),
    onDragCancel: () => mark(false),
  });

  function takeHold(event: MouseEvent | TouchEvent | KeyboardEvent): boolean {
    const target = event.target as HTMLElement;
    const element = target.closest<HTMLElement>('[data-lift]');
    if (!element || (event.type === 'keydown' && target !== element)) return false;
    const load = loadFor(element);
    if (!load) return false;
    carried.load = load;
    carried.element = element;
    setNodeRef(element);
    return true;
  }

  return (
    <div
      className={className}
      onMouseDown={(event) => {
        if (event.button === 0 && !event.ctrlKey && !event.metaKey && !event.shiftKey && takeHold(event))
          listeners?.onMouseDown?.(event);
      }}
      onTouchStart={(event) => {
        if (event.touches.length === 1 && takeHold(event)) listeners?.onTouchStart?.(event);
      }}
      onKeyDown={(event) => {
        if (event.code === 'Space' && takeHold(event)) listeners?.onKeyDown?.(event);
      }}
      onClick={onClick}
    >
      {children}
    </div>
  );
}
