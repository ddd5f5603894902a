'use client';

import { counted } from '@/core/words';
import { useState, type ChangeEvent } from 'react';
import { Controller, useWatch } from 'react-hook-form';
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
import { useSettingForm } from '../useSettingForm';
import { RecurrenceFields } from '../rhythm/RhythmEditor';
import { FirstChannel } from '@/ui/FirstChannel';
import { DateField } from '@/ui/DateField';
import { WordButton } from '@/ui/WordButton';
import { FieldRefusal } from '@/ui/FieldRefusal';

/** Every series in its row, to be changed from here on, and a row to start one. */
export function SeriesList({ series, today }: { series: readonly (Series & { version: number })[]; today: string }) {
  const { channels } = useShell();
  return (
    <>
      <p className="soft">
        A series makes its next posts ahead, numbered. They have no words yet, so they fill no horizon until somebody
        writes them. Changing a series changes the posts nobody wrote yet; each can be changed on its own as well.
      </p>
      {series.map((one) => (
        <SeriesForm key={one.id} series={one} version={one.version} today={today} />
      ))}
      <FirstChannel whatFor="A series makes its posts for channels." />
      {channels.length > 0 && <SeriesForm key={`new ${series.length}`} series={null} version={0} today={today} />}
    </>
  );
}

function SeriesForm({ series, version, today }: { series: Series | null; version: number; today: string }) {
  const { brand, channels } = useShell();
  const router = useRouter();
  const say = useSay();
  const first = channels.find(({ id }) => id === series?.channelId) ?? channels[0];
  const kept = {
    name: series?.name ?? '',
    channelId: series?.channelId ?? first?.id ?? '',
    format: series?.format ?? first?.sheet.formats[0]?.format ?? ('text' as Format),
    recurrence: series?.recurrence ?? ({ kind: 'weekly', weekday: 5, every: 1 } as Recurrence),
    time: series?.time ?? '10:00',
    from: series?.from ?? today,
    to: series?.to ?? '',
    ahead: series?.ahead ?? DEFAULT_AHEAD,
    firstNumber: 1,
  };
  const { register, control, handleSubmit, setValue, save, problem } = useSettingForm(kept, version);
  const [channelId, format] = useWatch({ control, name: ['channelId', 'format'] });
  const channel = channels.find(({ id }) => id === channelId);
  const [notEnded, setNotEnded] = useState<string | null>(null);
  const whose = series?.name ?? 'the new series';

  const submit = handleSubmit(({ channelId: chosen, firstNumber, ...fields }) => {
    const typed = { ...fields, time: readTypedTime(fields.time) ?? fields.time, to: fields.to || null };
    return series
      ? save<{ moved: number; kept: number }>(`/api/series/${series.id}`, typed, ({ moved, kept: left }) =>
          say({
            text: `Changed from here on: ${counted(moved, 'post follows', 'posts follow')}, ${counted(left, 'keeps what it is', 'keep what they are')}.`,
          }),
        )
      : save<{ made: number }>(
          '/api/series',
          { brandId: brand.id, channelId: chosen, firstNumber, ...typed },
          ({ made }) => say({ text: `Started “${fields.name.trim()}”: ${counted(made, 'post')} ahead.` }),
        );
  });

  async function end() {
    const answer = await call('DELETE', `/api/series/${series!.id}`);
    setNotEnded(problemOf(answer));
    if (answer.kind !== 'done') return;
    say({ text: `Ended “${series!.name}”. Its posts stay.` });
    router.refresh();
  }

  return (
    <form className="series-row" onSubmit={(event) => void submit(event)}>
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
      <input dir="auto" aria-label={`Name of ${whose}`} placeholder="A question every Friday" {...register('name')} />
      {!series && (
        <select
          aria-label="Channel of the new series"
          {...register('channelId', {
            onChange: (event: ChangeEvent<HTMLSelectElement>) => {
              const next = channels.find(({ id }) => id === event.target.value);
              if (next && !next.sheet.formats.some((rule) => rule.format === format))
                setValue('format', next.sheet.formats[0]!.format);
            },
          })}
        >
          {channels.map(({ id, name: channelName }) => (
            <option key={id} value={id}>
              {channelName}
            </option>
          ))}
        </select>
      )}
      <select aria-label={`Format of ${whose}`} {...register('format')}>
        {channel?.sheet.formats.map((rule) => (
          <option key={rule.format} value={rule.format}>
            {FORMAT_LABELS[rule.format]}
          </option>
        ))}
      </select>
      <Controller
        name="recurrence"
        control={control}
        render={({ field: { value, onChange } }) => (
          <RecurrenceFields name={whose} recurrence={value} onChange={onChange} />
        )}
      />
      <label>
        at <input size={5} className="figures" aria-label={`Time of ${whose}`} {...register('time')} />
      </label>
      <span>
        from{' '}
        <Controller
          name="from"
          control={control}
          render={({ field: { value, onChange } }) => (
            <DateField label={`First day of ${whose}`} value={value} onChange={onChange} />
          )}
        />
      </span>
      <span>
        to{' '}
        <Controller
          name="to"
          control={control}
          render={({ field: { value, onChange } }) => (
            <DateField label={`Last day of ${whose}`} value={value} onChange={onChange} />
          )}
        />
      </span>
      <label>
        <input
          type="number"
          min={1}
          max={26}
          aria-label={`Posts ahead of ${whose}`}
          {...register('ahead', { valueAsNumber: true })}
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
            {...register('firstNumber', { valueAsNumber: true })}
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
      {problem()}
      <FieldRefusal>{notEnded}</FieldRefusal>
    </form>
  );
}
