'use client';

import { departureWords } from '@/core/posts/outcome';
import { FORMAT_LABELS, type Format } from '@/core/rulesheets/types';
import type { PostSheet } from '@/core/posts/sheet';
import { problemOf } from '@/ui/api';
import { shortDate } from '@/ui/format';
import { InPlace } from '@/ui/InPlace';
import { ZoneWord } from '@/ui/ZoneWord';
import { useSay } from '@/ui/messages';
import { useShell, type Shell } from '@/ui/shell';
import { OfRepeat } from '../repeats/OfRepeat';
import type { ChangedPost } from '../calendar/changed';
import type { PostEditor } from './usePostEditor';

/** When, as what, by whom: one line, each part editable in place. */
export function Facts({
  editor,
  sheet,
  channel,
  disabled,
}: {
  editor: PostEditor;
  sheet: PostSheet;
  channel: Shell['channels'][number];
  disabled: boolean;
}) {
  const { people, pillars, campaigns } = useShell();
  const say = useSay();

  async function move(date: string | null, time: string | null, until?: string | null) {
    const answer = await editor.change<ChangedPost>('POST', `/api/posts/${sheet.id}/move`, (version) => ({
      version,
      date,
      time,
      ...(until !== undefined && { until }),
    }));
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
    if (answer.kind === 'done') for (const text of departureWords(answer.value.outcome)) say({ text });
    if (answer.kind === 'done' && answer.value.outcome.retimed)
      say({ text: 'It stays scheduled and will be sent at its new time.' });
  }

  async function edit(change: {
    format?: Format;
    ownerId?: string;
    pillarId?: string | null;
    campaignId?: string | null;
  }) {
    const answer = await editor.change('PATCH', `/api/posts/${sheet.id}`, (version) => ({ version, ...change }));
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
  }

  return (
    <div className="facts-line">
      <InPlace
        label="Date"
        type="date"
        className="figures"
        value={sheet.date ?? ''}
        shown={sheet.date ? shortDate(sheet.date) : 'no date'}
        disabled={disabled}
        onCommit={(date) => void move(date || null, date ? sheet.time : null)}
      />
      {sheet.date && (
        <InPlace
          label="Time"
          type="time"
          className="figures"
          value={sheet.time ?? ''}
          shown={sheet.time ?? 'no time'}
          disabled={disabled}
          onCommit={(time) => void move(sheet.date, time || null)}
        />
      )}
      {sheet.time && (
        <InWindow sheet={sheet} disabled={disabled} onSay={(until) => void move(sheet.date, sheet.time, until)} />
      )}
      {sheet.time && <ZoneWord />}
      <span aria-hidden="true">·</span>
      <PlainSelect
        label="Format"
        value={sheet.format}
        options={channel.sheet.formats.map(({ format }) => ({ value: format, label: FORMAT_LABELS[format] }))}
        disabled={disabled}
        onChoose={(format) => void edit({ format: format as Format })}
      />
      <span aria-hidden="true">·</span>
      <PlainSelect
        label="Owner"
        value={sheet.ownerId}
        options={people.map((person) => ({ value: person.id, label: person.name }))}
        disabled={disabled}
        onChoose={(ownerId) => void edit({ ownerId })}
      />
      <span className="soft">on {channel.name}</span>
      <OfRepeat sheet={sheet} onDone={editor.reload} />
      {pillars.length > 0 && (
        <PlainSelect
          label="Pillar"
          value={sheet.pillarId ?? ''}
          options={[{ value: '', label: 'no pillar' }, ...pillars.map(({ id, name }) => ({ value: id, label: name }))]}
          disabled={disabled}
          onChoose={(pillarId) => void edit({ pillarId: pillarId || null })}
        />
      )}
      {campaigns.length > 0 && (
        <PlainSelect
          label="Campaign"
          value={sheet.campaignId ?? ''}
          options={[
            { value: '', label: 'no campaign' },
            ...campaigns.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          disabled={disabled}
          onChoose={(campaignId) => void edit({ campaignId: campaignId || null })}
        />
      )}
    </div>
  );
}

/** Some time between two minutes: said of a post that is not scheduled, and shown of one whose minute was chosen. */
function InWindow({
  sheet: { time, window, stage },
  disabled,
  onSay,
}: {
  sheet: PostSheet;
  disabled: boolean;
  onSay: (until: string | null) => void;
}) {
  if (window?.isChosen)
    return (
      <span className="soft">
        chosen between {window.from} and {window.until}
      </span>
    );
  if (stage === 'scheduled' || stage === 'published') return null;
  return (
    <InPlace
      label="Until"
      type="time"
      className={window ? 'figures' : 'soft'}
      value={window?.until ?? ''}
      shown={window ? `– ${window.until}, some time` : 'exactly'}
      disabled={disabled}
      onCommit={(until) => onSay(until || time)}
    />
  );
}

function PlainSelect({
  label,
  value,
  options,
  disabled,
  onChoose,
}: {
  label: string;
  value: string;
  options: { value: string; label: string }[];
  disabled: boolean;
  onChoose: (value: string) => void;
}) {
  return (
    <select
      aria-label={label}
      className="plain-select"
      value={value}
      disabled={disabled}
      onChange={(event) => onChoose(event.target.value)}
    >
      {options.map((option) => (
        <option key={option.value} value={option.value}>
          {option.label}
        </option>
      ))}
    </select>
  );
}
