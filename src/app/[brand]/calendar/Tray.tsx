'use client';

import { memo, useMemo, useState } from 'react';
import type { Slip } from '@/core/calendar/slip';
import { byTimeOfDay } from '@/core/calendar/order';
import type { TrayIdea } from '@/usecases/calendar/loadCalendar';
import { CallSign } from '@/ui/CallSign';
import { CalendarSlip } from './CalendarSlip';
import { LIFT_HELP_ID } from './Carrier';
import { DropCell } from './DropCell';
import { TRAY_ID } from './places';
import { useMarks, useTimetable } from './timetable';
import { Only, useMay } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';
import { TermHint } from '@/ui/TermHint';

/** Ideas and posts without a date, to be dragged into the calendar, and posts to be dragged out of it. */
export const Tray = memo(function Tray({
  ideas,
  slips,
  onPlan,
}: {
  ideas: readonly TrayIdea[];
  /** All posts; those without a date lie here. */
  slips: readonly Slip[];
  onPlan: (idea: TrayIdea) => void;
}) {
  const { channels } = useTimetable();
  const marksOf = useMarks();
  const [words, setWords] = useState('');
  const [channelId, setChannelId] = useState('');
  const { undated, some } = useMemo(() => {
    const asked = words.toLocaleLowerCase().split(/\s+/).filter(Boolean);
    const holds = (text: string) => asked.every((word) => text.toLocaleLowerCase().includes(word));
    return {
      undated: slips
        .filter((slip) => slip.date === null && holds(slip.title) && (!channelId || slip.channelId === channelId))
        .sort(byTimeOfDay),
      some: ideas.filter(
        (idea) => holds(`${idea.title} ${idea.note}`) && (!channelId || idea.suggestedChannelIds.includes(channelId)),
      ),
    };
  }, [slips, ideas, words, channelId]);
  const all = ideas.length + slips.filter((slip) => slip.date === null).length;
  const shown = some.length + undated.length;
  return (
    <DropCell as="aside" id={TRAY_ID} place={{ kind: 'tray' }} className="tray" aria-label="Tray">
      <header>
        <div>
          <h2>
            <TermHint term="tray">Tray</TermHint>
          </h2>
          <span className="figures soft">{shown === all ? all : `${shown} of ${all}`}</span>
        </div>
        <span className="soft small-text">Ideas and posts without a date</span>
        {all > 0 && (
          <div className="tray-find">
            <input
              dir="auto"
              type="search"
              aria-label="Find in the tray"
              placeholder="Find"
              value={words}
              onChange={(event) => setWords(event.target.value)}
            />
            <select
              aria-label="Channel of what is in the tray"
              className="plain-select"
              value={channelId}
              onChange={(event) => setChannelId(event.target.value)}
            >
              <option value="">all</option>
              {[...channels.values()].map((channel) => (
                <option key={channel.id} value={channel.id}>
                  {channel.callSign}
                </option>
              ))}
            </select>
          </div>
        )}
      </header>
      {undated.length > 0 && <h3 className="tray-section">Posts without a date</h3>}
      {undated.map((slip) => (
        <CalendarSlip key={slip.id} slip={slip} marks={marksOf(slip.id)} />
      ))}
      {some.length > 0 && undated.length > 0 && <h3 className="tray-section">Ideas</h3>}
      {some.map((idea) => (
        <TrayRow key={idea.id} idea={idea} onPlan={onPlan} />
      ))}
      {all === 0 && (
        <p className="soft small-text">
          Empty.<Only deed="catchIdeas"> Press i to catch an idea; then drag it onto a day.</Only>
        </p>
      )}
      {all > 0 && shown === 0 && <p className="soft small-text">Nothing here matches.</p>}
    </DropCell>
  );
});

function TrayRow({ idea, onPlan }: { idea: TrayIdea; onPlan: (idea: TrayIdea) => void }) {
  const { channels } = useTimetable();
  const may = useMay();
  const suggested = idea.suggestedChannelIds.flatMap((id) => channels.get(id) ?? []);
  return (
    <div className="tray-idea" data-piece={idea.id}>
      <button
        type="button"
        className="lift"
        data-lift="idea"
        data-idea={idea.id}
        aria-describedby={LIFT_HELP_ID}
        disabled={!may('changePosts')}
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
        <Only deed="changePosts">
          <WordButton onClick={() => onPlan(idea)} aria-label={`Plan “${idea.title}”`}>
            Plan…
          </WordButton>
        </Only>
      </div>
    </div>
  );
}
