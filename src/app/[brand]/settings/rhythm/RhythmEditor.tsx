'use client';

import { useFromServer } from '@/ui/useFromServer';
import { useEffect, useRef, useState, type FormEvent } from 'react';
import Button from 'react-bootstrap/Button';
import { v4 as newId } from 'uuid';
import { nextEntry } from '@/core/rhythm/nextEntry';
import { MAX_WEEKS, readRhythm, recurrenceWords, weekdaysOf, type RhythmEntry } from '@/core/rhythm/entry';
import { sameRhythm } from '@/core/rhythm/sameRhythm';
import type { Habit, Practised } from '@/core/rhythm/propose';
import { FORMAT_LABELS, type Format } from '@/core/rulesheets/types';
import { readTypedTime } from '@/core/time/typed';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { Problem } from '../Problem';
import { useSetting } from '../useSetting';
import { RecurrenceFields } from '../../repeats/RecurrenceFields';
import { SpanList, type Span } from '../SpanList';
import { PracticeGrid } from './PracticeGrid';
import { DateField } from '@/ui/DateField';
import { useUnsaved } from '@/ui/LeaveGuard';
import { WordButton } from '@/ui/WordButton';
import Table from 'react-bootstrap/Table';
import { FieldRefusal } from '@/ui/FieldRefusal';

/** A channel's rhythm: its entries, its pauses, and what was done beside it. Saved as a whole. */
export function RhythmEditor({
  channelId,
  version,
  entries: kept,
  pauses: keptPauses,
  practice,
  proposed,
  since,
  weeks,
  today,
  others,
}: {
  channelId: string;
  version: number;
  entries: readonly RhythmEntry[];
  pauses: readonly Span[];
  practice: readonly (Practised & { title: string })[];
  proposed: readonly Habit[];
  since: string;
  weeks: number;
  today: string;
  others: readonly { id: string; name: string; entries: readonly RhythmEntry[] }[];
}) {
  const { channels, pillars } = useShell();
  const channel = channels.find(({ id }) => id === channelId)!;
  const say = useSay();
  const [entries, setEntries] = useFromServer<readonly RhythmEntry[]>(kept);
  const [pauses, setPauses] = useFromServer<readonly Span[]>(keptPauses);
  const setting = useSetting(version);
  useUnsaved(JSON.stringify([entries, pauses]) !== JSON.stringify([kept, keptPauses]));
  const isChanged = !sameRhythm(
    { entries: withoutIds(entries), pauses },
    { entries: withoutIds(kept), pauses: keptPauses },
  );
  const check = readRhythm(entries);

  const set = (index: number, part: Partial<RhythmEntry>) =>
    setEntries(entries.map((entry, at) => (at === index ? { ...entry, ...part } : entry)));
  const add = (more: readonly RhythmEntry[]) => setEntries([...entries, ...more]);
  const table = useRef<HTMLTableElement>(null);
  const [goesOn, setGoesOn] = useState(0);
  function addNext() {
    add([{ ...nextEntry(entries), id: newId() }]);
    setGoesOn(goesOn + 1);
  }
  useEffect(() => {
    if (goesOn > 0) table.current?.querySelector<HTMLElement>('tbody tr:last-child select')?.focus();
  }, [goesOn]);

  async function save(event: FormEvent) {
    event.preventDefault();
    const answer = await setting.save('POST', `/api/channels/${channelId}/rhythm`, {
      entries: withoutIds(entries),
      pauses,
    });
    if (answer.kind !== 'done') return;
    say({ text: `${channel.name} has its rhythm: ${entries.length === 1 ? '1 entry' : `${entries.length} entries`}.` });
  }

  function propose() {
    const known = new Set(
      entries.flatMap(({ recurrence, time }) => weekdaysOf(recurrence).map((weekday) => `${weekday} ${time}`)),
    );
    const more = proposed
      .filter((habit) => !known.has(`${habit.weekday} ${habit.time}`))
      .map((habit) => ({
        ...nextEntry([]),
        id: newId(),
        recurrence: { kind: 'weekly' as const, weekday: habit.weekday, every: 1 },
        time: habit.time,
        format: habit.format,
      }));
    if (more.length === 0) return say({ text: 'What was posted in these weeks is in the rhythm already.' });
    add(more);
    say({
      text: `Added ${more.length === 1 ? '1 entry' : `${more.length} entries`} from past posts. Save to keep them.`,
    });
  }

  return (
    <form className="rhythm" onSubmit={(event) => void save(event)}>
      <PracticeGrid entries={entries} practice={practice} since={since} weeks={weeks} />
      <Table bsPrefix="settings-table" ref={table}>
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">Time</th>
            <th scope="col">Format</th>
            <th scope="col">Day theme</th>
            <th scope="col">Pillar</th>
            <th scope="col">From</th>
            <th scope="col">To</th>
            <th scope="col">
              <span className="visually-hidden">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {entries.map((entry, index) => (
            <tr key={entry.id}>
              <td data-label="When">
                <RecurrenceFields
                  mostWeeks={MAX_WEEKS}
                  name={`Entry ${index + 1}`}
                  recurrence={entry.recurrence}
                  onChange={(recurrence) =>
                    set(index, {
                      recurrence,
                      ...(recurrence.kind === 'weekly' && recurrence.every > 1 && entry.from === null
                        ? { from: today }
                        : {}),
                    })
                  }
                />
              </td>
              <td data-label="Time">
                <input
                  size={5}
                  aria-label={`Time of entry ${index + 1}`}
                  className="figures"
                  value={entry.time}
                  onChange={(event) => set(index, { time: event.target.value })}
                  onBlur={(event) => set(index, { time: readTypedTime(event.target.value) ?? event.target.value })}
                />
                <input
                  size={5}
                  aria-label={`Until, of entry ${index + 1}`}
                  title="Some time until then: the minute is chosen when a post is scheduled"
                  placeholder="until"
                  className="figures"
                  value={entry.until ?? ''}
                  onChange={(event) => set(index, { until: event.target.value || null })}
                  onBlur={(event) =>
                    set(index, { until: (readTypedTime(event.target.value) ?? event.target.value) || null })
                  }
                />
              </td>
              <td data-label="Format">
                <select
                  aria-label={`Format of entry ${index + 1}`}
                  value={entry.format ?? ''}
                  onChange={(event) => set(index, { format: (event.target.value || null) as Format | null })}
                >
                  <option value="">any</option>
                  {channel.sheet.formats.map(({ format }) => (
                    <option key={format} value={format}>
                      {FORMAT_LABELS[format]}
                    </option>
                  ))}
                </select>
              </td>
              <td data-label="Day theme">
                <input
                  dir="auto"
                  aria-label={`Theme of entry ${index + 1}`}
                  value={entry.theme}
                  maxLength={60}
                  onChange={(event) => set(index, { theme: event.target.value })}
                />
              </td>
              <td data-label="Pillar">
                <select
                  aria-label={`Pillar of entry ${index + 1}`}
                  value={entry.pillarId ?? ''}
                  onChange={(event) => set(index, { pillarId: event.target.value || null })}
                >
                  <option value="">none</option>
                  {pillars.map(({ id, name }) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
                </select>
              </td>
              <td data-label="From">
                <DateField
                  label={`First day of entry ${index + 1}`}
                  value={entry.from ?? ''}
                  onChange={(date) => set(index, { from: date || null })}
                />
              </td>
              <td data-label="To">
                <DateField
                  label={`Last day of entry ${index + 1}`}
                  value={entry.to ?? ''}
                  onChange={(date) => set(index, { to: date || null })}
                />
              </td>
              <td className="row-deeds">
                <WordButton
                  className="soft"
                  aria-label={`Remove entry ${index + 1}: ${recurrenceWords(entry.recurrence)} at ${entry.time}`}
                  onClick={() => setEntries(entries.filter((_, at) => at !== index))}
                >
                  Remove
                </WordButton>
              </td>
            </tr>
          ))}
          {entries.length === 0 && (
            <tr>
              <td colSpan={8} className="soft">
                No rhythm yet: nothing is asked for, and no horizon is shown. Add an entry, or suggest some from past
                posts.
              </td>
            </tr>
          )}
        </tbody>
      </Table>
      <div className="rhythm-deeds">
        <WordButton onClick={addNext}>Add an entry</WordButton>
        <WordButton onClick={propose} disabled={proposed.length === 0}>
          Suggest from past posts
        </WordButton>
        {proposed.length === 0 && (
          <span className="soft small-text">
            Nothing to suggest: no weekday and time comes back in half of those weeks.
          </span>
        )}
        {others.some((other) => other.entries.length > 0) && (
          <label>
            Copy from{' '}
            <select
              className="plain-select"
              value=""
              onChange={(event) => {
                const from = others.find(({ id }) => id === event.target.value);
                if (from)
                  add(
                    from.entries.map((entry) =>
                      copyFor(
                        entry,
                        channel.sheet.formats.map(({ format }) => format),
                      ),
                    ),
                  );
              }}
            >
              <option value="">another channel</option>
              {others
                .filter((other) => other.entries.length > 0)
                .map(({ id, name, entries: its }) => (
                  <option key={id} value={id}>
                    {name} ({its.length})
                  </option>
                ))}
            </select>
          </label>
        )}
      </div>
      <SpanList legend="Pauses: spans of days that ask for nothing" spans={pauses} onChange={setPauses} />
      {check.ok ? (
        <Problem
          of={setting}
          onTheirs={() => {
            setEntries(kept);
            setPauses(keptPauses);
          }}
        />
      ) : (
        <FieldRefusal>{check.refusal.message}</FieldRefusal>
      )}
      <Button type="submit" disabled={!isChanged || !check.ok}>
        {isChanged ? `Save the rhythm of ${channel.name}` : 'Nothing to save'}
      </Button>
    </form>
  );
}

/** Entries as they are saved: they get their ids anew each time. */
const withoutIds = (entries: readonly RhythmEntry[]): Omit<RhythmEntry, 'id'>[] =>
  entries.map(({ id: _id, ...entry }) => entry);

/** An entry for another channel; a format its network does not take becomes any. */
const copyFor = (entry: RhythmEntry, formats: readonly Format[]): RhythmEntry => ({
  ...entry,
  id: newId(),
  format: entry.format && formats.includes(entry.format) ? entry.format : null,
});
