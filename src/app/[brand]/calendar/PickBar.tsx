'use client';

import { daysBetween, startOfWeek } from '@/core/time/days';
import type { LocalDate } from '@/core/time/plan';
import { DateField } from '@/ui/DateField';
import { useState, type ReactNode } from 'react';
import Dropdown from 'react-bootstrap/Dropdown';
import type { Change } from '@/core/calendar/change';
import { STAGES, STAGE_LABELS } from '@/core/stages/stages';
import { readTypedTime } from '@/core/time/typed';
import { WordButton } from '@/ui/WordButton';

interface Choice {
  id: string;
  name: string;
}

/** What can be done to all picked posts at once. */
export function PickBar({
  count,
  shownCount,
  channels,
  owners,
  pillars,
  campaigns,
  firstDate,
  weekStart,
  onChange,
  onPickAll,
  onCopyWeek,
  onClear,
}: {
  count: number;
  shownCount: number;
  channels: readonly Choice[];
  owners: readonly Choice[];
  pillars: readonly Choice[];
  campaigns: readonly Choice[];
  /** The first day of the picked posts; null where none has one. */
  firstDate: LocalDate | null;
  weekStart: number;
  onChange: (change: Change) => void;
  onPickAll: () => void;
  onCopyWeek: (weeks: number) => void;
  onClear: () => void;
}) {
  const [days, setDays] = useState('1');
  const [time, setTime] = useState('');
  const [reason, setReason] = useState('');
  const [onto, setOnto] = useState<readonly string[]>([]);
  const [week, setWeek] = useState('');
  const weeksOn =
    week === '' || firstDate === null
      ? 0
      : Math.round(daysBetween(startOfWeek(firstDate, weekStart), startOfWeek(week, weekStart)) / 7);
  const wholeDays = /^[+-]?\d{1,3}$/.test(days.trim()) ? Number(days) : null;
  const readTime = readTypedTime(time);
  return (
    <div className="pick-bar" role="toolbar" aria-label="Change the picked posts">
      <b>{count} picked</b>
      {count < shownCount && <WordButton onClick={onPickAll}>pick all {shownCount}</WordButton>}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (wholeDays) onChange({ kind: 'shift', days: wholeDays });
        }}
      >
        <WordButton type="submit" disabled={!wholeDays}>
          Move by
        </WordButton>
        <input
          dir="auto"
          aria-label="Days, earlier when negative"
          size={3}
          value={days}
          onChange={(event) => setDays(event.target.value)}
        />
        days
      </form>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (readTime) onChange({ kind: 'time', time: readTime });
        }}
      >
        <WordButton type="submit" disabled={!readTime}>
          Set time
        </WordButton>
        <input
          dir="auto"
          aria-label="Time"
          size={5}
          placeholder="14:30"
          value={time}
          onChange={(event) => setTime(event.target.value)}
        />
      </form>
      <Pick
        label="Stage"
        choices={STAGES.filter((stage) => stage !== 'published').map((id) => ({ id, name: STAGE_LABELS[id] }))}
        onPick={(stage) => onChange({ kind: 'stage', stage: stage as 'ready' })}
      />
      <Pick label="Owner" choices={owners} onPick={(ownerId) => onChange({ kind: 'owner', ownerId })} />
      <Pick
        label="Pillar"
        choices={[...pillars, { id: '', name: 'no pillar' }]}
        onPick={(id) => onChange({ kind: 'pillar', pillarId: id || null })}
      />
      <Pick
        label="Campaign"
        choices={[...campaigns, { id: '', name: 'no campaign' }]}
        onPick={(id) => onChange({ kind: 'campaign', campaignId: id || null })}
      />
      <Menu label="Duplicate">
        <p className="soft small-text">A copy, drafting, on each of</p>
        {channels.map(({ id, name }) => (
          <label key={id} className="dropdown-item">
            <input
              type="checkbox"
              checked={onto.includes(id)}
              onChange={(event) => setOnto(event.target.checked ? [...onto, id] : onto.filter((other) => other !== id))}
            />{' '}
            {name}
          </label>
        ))}
        <Dropdown.Item
          as="button"
          disabled={onto.length === 0}
          onClick={() => {
            onChange({ kind: 'copy', days: 0, channelIds: [...onto] });
            setOnto([]);
          }}
        >
          <b>Duplicate to {onto.length === 1 ? '1 channel' : `${onto.length} channels`}</b>
        </Dropdown.Item>
        <Dropdown.Divider />
        {[1, 2, 4].map((weeks) => (
          <Dropdown.Item key={weeks} as="button" onClick={() => onCopyWeek(weeks)}>
            Copy them {weeks === 1 ? 'one week' : `${weeks} weeks`} later
          </Dropdown.Item>
        ))}
        {firstDate && (
          <form
            className="px-3"
            onSubmit={(event) => {
              event.preventDefault();
              if (weeksOn) onCopyWeek(weeksOn);
            }}
          >
            <DateField label="A day of the week to copy them to" value={week} onChange={setWeek} />{' '}
            <WordButton type="submit" disabled={weeksOn === 0}>
              Copy them to that week
            </WordButton>
          </form>
        )}
      </Menu>
      <Menu label="Set aside">
        <form
          className="px-3"
          onSubmit={(event) => {
            event.preventDefault();
            onChange({ kind: 'setAside', reason });
            setReason('');
          }}
        >
          <input
            dir="auto"
            aria-label="Reason"
            placeholder="Why?"
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />{' '}
          <WordButton type="submit" disabled={reason.trim() === ''}>
            Set {count} aside
          </WordButton>
        </form>
      </Menu>
      <WordButton className="push" onClick={onClear}>
        Done
      </WordButton>
    </div>
  );
}

function Pick({ label, choices, onPick }: { label: string; choices: readonly Choice[]; onPick: (id: string) => void }) {
  return (
    <Menu label={label}>
      {choices.map(({ id, name }) => (
        <Dropdown.Item key={id} as="button" onClick={() => onPick(id)}>
          {name}
        </Dropdown.Item>
      ))}
    </Menu>
  );
}

function Menu({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Dropdown drop="up" autoClose="outside">
      <Dropdown.Toggle as="button" type="button" className="word">
        {label}
      </Dropdown.Toggle>
      <Dropdown.Menu renderOnMount={false}>{children}</Dropdown.Menu>
    </Dropdown>
  );
}
