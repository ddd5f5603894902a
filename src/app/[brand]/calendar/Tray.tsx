'use client';

import { useDraggable, useDroppable } from '@dnd-kit/core';
import type { Slip } from '@/core/calendar/slip';
import type { TrayIdea } from '@/usecases/views';
import { CallSign } from '@/ui/CallSign';
import { useShell } from '@/ui/shell';
import { LiftableSlip } from './LiftableSlip';
import { TRAY_ID, type Load } from './dragging';

/** Ideas and posts without a date, to be dragged into the calendar, and posts to be dragged out of it. */
export function Tray({
  ideas,
  undated,
  colors,
  openId,
  unsaved,
  onOpen,
  onPlan,
}: {
  ideas: readonly TrayIdea[];
  undated: readonly Slip[];
  colors: ReadonlyMap<string, string>;
  openId: string | null;
  unsaved: ReadonlySet<string>;
  onOpen: (id: string) => void;
  onPlan: (idea: TrayIdea) => void;
}) {
  const { setNodeRef, isOver } = useDroppable({ id: TRAY_ID });
  return (
    <aside ref={setNodeRef} className={`tray${isOver ? ' is-over' : ''}`} aria-label="Tray">
      <header>
        <div>
          <h2>Tray</h2>
          <span className="figures soft">{ideas.length + undated.length}</span>
        </div>
        <span className="soft small-text">Ideas and posts without a date</span>
      </header>
      {undated.length > 0 && <h3 className="tray-section">Posts without a date</h3>}
      {undated.map((slip) => (
        <LiftableSlip
          key={slip.id}
          slip={slip}
          color={colors.get(slip.channelId) ?? 'currentcolor'}
          open={slip.id === openId}
          unsaved={unsaved.has(slip.id)}
          onOpen={onOpen}
        />
      ))}
      {ideas.length > 0 && undated.length > 0 && <h3 className="tray-section">Ideas</h3>}
      {ideas.map((idea) => (
        <TrayRow key={idea.id} idea={idea} onPlan={onPlan} />
      ))}
      {ideas.length + undated.length === 0 && (
        <p className="soft small-text">Empty. Press i to catch an idea; then drag it onto a day.</p>
      )}
    </aside>
  );
}

function TrayRow({ idea, onPlan }: { idea: TrayIdea; onPlan: (idea: TrayIdea) => void }) {
  const { channels } = useShell();
  const load: Load = { kind: 'idea', idea };
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id: `idea:${idea.id}`, data: load });
  const suggested = channels.filter((channel) => idea.suggestedChannelIds.includes(channel.id));
  return (
    <div className={`tray-idea${isDragging ? ' is-lifted' : ''}`} data-piece={idea.id}>
      <button
        type="button"
        ref={setNodeRef}
        className="lift"
        {...listeners}
        aria-describedby={attributes['aria-describedby']}
        onClick={() => onPlan(idea)}
      >
        {idea.title}
      </button>
      <div className="facts soft">
        {suggested.map((channel) => (
          <CallSign key={channel.id} sign={channel.callSign} color={channel.color} name={channel.name} />
        ))}
        {idea.note && <span>note</span>}
        {idea.link && <span>link</span>}
        <button type="button" className="word" onClick={() => onPlan(idea)} aria-label={`Plan “${idea.title}”`}>
          plan
        </button>
      </div>
    </div>
  );
}
