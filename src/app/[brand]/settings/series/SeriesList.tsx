'use client';

import { counted } from '@/core/words';
import { useState, type FormEvent } from 'react';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import { recurrenceWords, type Recurrence } from '@/core/rhythm/entry';
import { DEFAULT_AHEAD } from '@/core/rhythm/series';
import { FORMAT_LABELS, type Format } from '@/core/rulesheets/types';
import { readTypedTime } from '@/core/time/typed';
import type { Series } from '@/usecases/rhythm/reading';
import { call, problemOf } from '@/ui/api';
import { CallSign } from '@/ui/CallSign';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { Problem } from '../Problem';
import { useSetting } from '../useSetting';
import { RecurrenceFields } from '../rhythm/RhythmEditor';
import { DateField } from '@/ui/DateField';
import { WordButton } from '@/ui/WordButton';

/** Every series in its row, to be changed from here on, and a row to start one. */
export function SeriesList({ series, today }: { series: readonly (Series & { version: number })[]; today: string }) {
  return (
    <>
      <p className="soft">
        A series makes its next posts ahead, numbered. They have no words yet, so they fill no horizon until somebody
        writes them. Changing a series changes the posts nobody wrote yet; each can be changed on its own as well.
      </p>
      {series.map((one) => (
        <SeriesForm key={one.id} series={one} version={one.version} today={today} />
      ))}
      <SeriesForm key={`new ${series.length}`} series={null} version={0} today={today} />
    </>
  );
}

function SeriesForm({ series, version, today }: { series: Series | null; version: number; today: string }) {
  const { brand, channels } = useShell();
  const router = useRouter();
  const say = useSay();
  const [channelId, setChannelId] = useState(series?.channelId ?? channels[0]?.id ?? '');
  const channel = channels.find(({ id }) => id === channelId);
  const kept = {
    name: series?.name ?? '',
    format: series?.format ?? channel?.sheet.formats[0]?.format ?? ('text' as Format),
    recurrence: series?.recurrence ?? ({ kind: 'weekly', weekday: 5, every: 1 } as Recurrence),
    time: series?.time ?? '10:00',
    from: series?.from ?? today,
    to: series?.to ?? '',
    ahead: series?.ahead ?? DEFAULT_AHEAD,
  };
  const [fields, setFields] = useState(kept);
  const { name, format, recurrence, time, from, to, ahead } = fields;
  const set = (part: Partial<typeof kept>) => setFields((now) => ({ ...now, ...part }));
  const [firstNumber, setFirstNumber] = useState(1);
  const setting = useSetting(version);
  const [problem, setProblem] = useState<string | null>(null);
  const whose = series?.name ?? 'the new series';

  async function save(event: FormEvent) {
    event.preventDefault();
    const typed = { ...fields, time: readTypedTime(time) ?? time, to: to || null };
    const answer = series
      ? await setting.save<{ moved: number; kept: number }>('POST', `/api/series/${series.id}`, typed)
      : await setting.save<{ made: number }>('POST', '/api/series', {
          brandId: brand.id,
          channelId,
          firstNumber,
          ...typed,
        });
    setProblem(null);
    if (answer.kind !== 'done') return;
    say({
      text:
        'made' in answer.value
          ? `Started “${name.trim()}”: ${counted(answer.value.made, 'post')} ahead.`
          : `Changed from here on: ${counted(answer.value.moved, 'post follows', 'posts follow')}, ${counted(answer.value.kept, 'keeps what it is', 'keep what they are')}.`,
    });
  }

  async function end() {
    const answer = await call('DELETE', `/api/series/${series!.id}`);
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    say({ text: `Ended “${series!.name}”. Its posts stay.` });
    router.refresh();
  }

  return (
    <form className="series-row" onSubmit={(event) => void save(event)}>
      {series && channel ? (
        <span className="series-name">
          <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />
          <span className="soft">
            {recurrenceWords(series.recurrence)}, next is number {series.nextNumber}
          </span>
        </span>
      ) : (
        <h2>Start a series</h2>
      )}
      <input
        aria-label={`Name of ${whose}`}
        placeholder="A question every Friday"
        value={name}
        onChange={(event) => set({ name: event.target.value })}
      />
      {!series && (
        <select
          aria-label="Channel of the new series"
          value={channelId}
          onChange={(event) => {
            setChannelId(event.target.value);
            const next = channels.find(({ id }) => id === event.target.value);
            if (next && !next.sheet.formats.some((rule) => rule.format === format))
              set({ format: next.sheet.formats[0]!.format });
          }}
        >
          {channels.map(({ id, name: channelName }) => (
            <option key={id} value={id}>
              {channelName}
            </option>
          ))}
        </select>
      )}
      <select
        aria-label={`Format of ${whose}`}
        value={format}
        onChange={(event) => set({ format: event.target.value as Format })}
      >
        {channel?.sheet.formats.map((rule) => (
          <option key={rule.format} value={rule.format}>
            {FORMAT_LABELS[rule.format]}
          </option>
        ))}
      </select>
      <RecurrenceFields name={whose} recurrence={recurrence} onChange={(next) => set({ recurrence: next })} />
      <label>
        at{' '}
        <input
          size={5}
          className="figures"
          aria-label={`Time of ${whose}`}
          value={time}
          onChange={(event) => set({ time: event.target.value })}
        />
      </label>
      <span>
        from <DateField label={`First day of ${whose}`} value={from} onChange={(date) => set({ from: date })} />
      </span>
      <span>
        to <DateField label={`Last day of ${whose}`} value={to} onChange={(date) => set({ to: date })} />
      </span>
      <label>
        <input
          type="number"
          min={1}
          max={26}
          aria-label={`Posts ahead of ${whose}`}
          value={ahead}
          onChange={(event) => set({ ahead: Number(event.target.value) })}
        />{' '}
        ahead
      </label>
      {!series && (
        <label>
          from number{' '}
          <input
            type="number"
            min={1}
            aria-label="First number"
            value={firstNumber}
            onChange={(event) => setFirstNumber(Number(event.target.value))}
          />
        </label>
      )}
      <Button type="submit" size="sm" variant={series ? 'outline' : 'primary'}>
        {series ? 'Change from here on' : 'Start it'}
      </Button>
      {series && (
        <WordButton className="soft" onClick={() => void end()} aria-label={`End ${series.name}`}>
          End
        </WordButton>
      )}
      <Problem of={setting} onTheirs={() => setFields(kept)} />
      {problem && (
        <span className="field-refusal" role="alert">
          {problem}
        </span>
      )}
    </form>
  );
}
