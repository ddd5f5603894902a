'use client';

import { useDndContext } from '@dnd-kit/core';
import type { DropGround } from '@/core/calendar/drop';
import { SlipFace, slipClass } from '@/ui/SlipFace';
import { placeOf, refusalFor, type Load } from './dragging';
import type { Timetable } from './timetable';

/** What is in the hand, with the reason where it may not be dropped. */
export function DragPreview({ load, ground, timetable }: { load: Load; ground: DropGround; timetable: Timetable }) {
  const { over } = useDndContext();
  const refusal = over ? refusalFor(load, placeOf(over), ground) : null;
  const first = load.kind === 'posts' ? load.slips[0]! : null;
  return (
    <div className="slip-overlay">
      {first ? (
        <div className={slipClass(first)}>
          <SlipFace slip={first} color={timetable.channels.get(first.channelId)?.color ?? 'currentcolor'} />
        </div>
      ) : (
        <div className="slip">
          <span className="slip-title">{load.kind === 'idea' && load.idea.title}</span>
        </div>
      )}
      {load.kind === 'posts' && load.slips.length > 1 && <div className="in-hand">{load.slips.length} posts</div>}
      {refusal && <div className="drop-refusal">{refusal}</div>}
    </div>
  );
}
