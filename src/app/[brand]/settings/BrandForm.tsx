'use client';

import { useState } from 'react';
import { Controller, useWatch } from 'react-hook-form';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { ZONES } from '@/ui/zones';
import { WORDS_PER_MINUTE } from '@/core/captions/spoken';
import { DELIVERS, type Delivers } from '@/core/delivery/carrier';
import { rulesWords, type RulesOutcome } from '@/core/posts/outcome';
import { ENCORE_DAYS } from '@/core/encores/encores';
import { USUAL_WEEKDAYS } from '@/core/prep/workdays';
import { weekdayWord } from '@/core/rhythm/entry';
import type { MakersRules } from '@/core/rights/may';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import type { ScheduledKeeps } from '@/usecases/brands/zoneChange';
import { ZoneChange } from './ZoneChange';
import { Weekdays } from '@/ui/Weekdays';
import { SpanList, type Span } from './SpanList';
import { useSettingForm } from './useSettingForm';
import { Field } from '@/ui/Field';
import { FieldRefusal } from '@/ui/FieldRefusal';

const DELIVERS_WORDS: Record<Delivers, string> = {
  byHand: 'People, by hand: Bimlo says when and has everything ready to copy',
  practice: 'Practice: Bimlo sends to made-up networks, where nobody can read it',
  networks: 'Bimlo, on the made-up networks of this demo',
};

/** Whether makers send, as it is chosen. */
const MAKERS_SEND = [
  { name: 'usual', value: null, label: 'yes, unless posts are signed off' },
  { name: 'yes', value: true, label: 'yes' },
  { name: 'no', value: false, label: 'no, managers do' },
] as const;

/** What can be set of a brand; without one, makes a new brand. */
export function BrandForm({
  brand,
  daysOff: startDaysOff,
  version,
}: {
  brand:
    | ({
        id: string;
        name: string;
        zone: string;
        weekStart: number;
        weekdays: number[];
        wordsPerMinute: number;
        encoreDays: number;
        asksSignOff: boolean;
        delivers: Delivers;
      } & MakersRules)
    | null;
  daysOff: readonly Span[];
  version: number;
}) {
  const shell = useShell();
  const router = useRouter();
  const say = useSay();
  const kept = {
    name: brand?.name ?? '',
    zone: brand?.zone ?? shell.brand.zone,
    weekStart: brand?.weekStart ?? 1,
    weekdays: (brand?.weekdays ?? USUAL_WEEKDAYS) as readonly number[],
    wordsPerMinute: brand?.wordsPerMinute ?? WORDS_PER_MINUTE.usual,
    encoreDays: brand?.encoreDays ?? ENCORE_DAYS.usual,
    asksSignOff: brand?.asksSignOff ?? false,
    delivers: brand?.delivers ?? ('byHand' as Delivers),
    makersSend: MAKERS_SEND.find(({ value }) => value === (brand?.makersSend ?? null))!.name as string,
    makersExchange: brand?.makersExchange ?? false,
    daysOff: startDaysOff,
  };
  const { register, control, handleSubmit, save, refusalOf, problem } = useSettingForm(kept, version);
  const zone = useWatch({ control, name: 'zone' });
  const [keeps, setKeeps] = useState<ScheduledKeeps | null>(null);
  const prefix = brand ? 'brand' : 'new-brand';

  const submit = handleSubmit((fields) =>
    save<{ slug?: string } & Partial<RulesOutcome>>(
      '/api/settings/brands',
      {
        id: brand?.id ?? null,
        ...fields,
        makersSend: MAKERS_SEND.find(({ name }) => name === fields.makersSend)!.value,
        scheduled: keeps,
        daysOff: fields.daysOff.map(({ name: what, from, to }) => ({ name: what, from, to })),
      },
      ({ slug, ...rules }) => {
        setKeeps(null);
        say({ text: [brand ? 'Saved.' : `Made “${fields.name.trim()}”.`, ...rulesWords(rules)].join(' ') });
        if (slug) router.push(`/${slug}/settings/channels`);
      },
    ),
  );

  return (
    <Form onSubmit={(event) => void submit(event)} noValidate>
      <Field id={`${prefix}-name`} label="Name" refusal={refusalOf('name')} className="mb-3">
        <Form.Control dir="auto" {...register('name')} />
      </Field>
      <div className="d-flex-row mb-3">
        <Field id={`${prefix}-zone`} label="Time zone" refusal={refusalOf('zone')}>
          <Form.Select {...register('zone')}>
            {[...new Set([zone, ...ZONES])].map((known) => (
              <option key={known}>{known}</option>
            ))}
          </Form.Select>
        </Field>
        <Field id={`${prefix}-week`} label="The week starts on">
          <Form.Select {...register('weekStart', { valueAsNumber: true })}>
            {[1, 2, 3, 4, 5, 6, 7].map((day) => (
              <option key={day} value={day}>
                {weekdayWord(day)}
              </option>
            ))}
          </Form.Select>
        </Field>
        <Field id={`${prefix}-pace`} label="Words a minute, spoken" refusal={refusalOf('wordsPerMinute')}>
          <Form.Control
            type="number"
            min={WORDS_PER_MINUTE.least}
            max={WORDS_PER_MINUTE.most}
            {...register('wordsPerMinute', { valueAsNumber: true })}
          />
        </Field>
        <Field id={`${prefix}-encore`} label="A post may come again after … days" refusal={refusalOf('encoreDays')}>
          <Form.Control
            type="number"
            min={ENCORE_DAYS.least}
            max={ENCORE_DAYS.most}
            {...register('encoreDays', { valueAsNumber: true })}
          />
        </Field>
      </div>
      <Form.Check
        id={`${prefix}-sign-off`}
        className="mb-3"
        label="Posts are signed off by a reviewer or manager before they are ready"
        {...register('asksSignOff')}
      />
      <Field id={`${prefix}-makers-send`} label="Makers schedule posts and mark them as published" className="mb-3">
        <Form.Select {...register('makersSend')}>
          {MAKERS_SEND.map(({ name, label }) => (
            <option key={name} value={name}>
              {label}
            </option>
          ))}
        </Form.Select>
      </Field>
      <Form.Check
        id={`${prefix}-makers-exchange`}
        className="mb-3"
        label="Makers import and export posts"
        {...register('makersExchange')}
      />
      <fieldset className="mb-3">
        <legend className="form-label">Who posts</legend>
        {DELIVERS.filter((one) => one !== 'networks' || brand?.delivers === 'networks').map((one) => (
          <Form.Check
            key={one}
            type="radio"
            id={`${prefix}-delivers-${one}`}
            value={one}
            label={DELIVERS_WORDS[one]}
            {...register('delivers')}
          />
        ))}
        <FieldRefusal tied>{refusalOf('delivers')}</FieldRefusal>
      </fieldset>
      {brand && zone !== brand.zone && <ZoneChange brandId={brand.id} zone={zone} keeps={keeps} onKeep={setKeeps} />}
      <Controller
        name="weekdays"
        control={control}
        render={({ field: { value, onChange } }) => (
          <Weekdays legend="Working days, for steps nobody is named for" chosen={value} onChange={onChange} />
        )}
      />
      <FieldRefusal tied>{refusalOf('weekdays')}</FieldRefusal>
      <Controller
        name="daysOff"
        control={control}
        render={({ field: { value, onChange } }) => (
          <SpanList legend="Days off: no openings on them" spans={value} onChange={onChange} />
        )}
      />
      <FieldRefusal tied>{refusalOf('daysOff')}</FieldRefusal>
      {problem()}
      <Button type="submit" variant={brand ? 'primary' : 'outline'} className="mt-2">
        {brand ? 'Save the brand' : 'Make the brand'}
      </Button>
    </Form>
  );
}
