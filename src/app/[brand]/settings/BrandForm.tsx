'use client';

import { useState, type FormEvent } from 'react';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { WORDS_PER_MINUTE } from '@/core/captions/spoken';
import { USUAL_WEEKDAYS } from '@/core/prep/workdays';
import { weekdayWord } from '@/core/rhythm/entry';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import type { ScheduledKeeps } from '@/usecases/brands/zoneChange';
import { ZoneChange } from './ZoneChange';
import { Weekdays } from '@/ui/Weekdays';
import { Problem } from './Problem';
import { SpanList, type Span } from './SpanList';
import { useSetting } from './useSetting';

const ZONES = Intl.supportedValuesOf('timeZone');

/** What can be set of a brand; without one, makes a new brand. */
export function BrandForm({
  brand,
  daysOff: startDaysOff,
  version,
}: {
  brand: {
    id: string;
    name: string;
    zone: string;
    weekStart: number;
    weekdays: number[];
    wordsPerMinute: number;
    asksSignOff: boolean;
  } | null;
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
    asksSignOff: brand?.asksSignOff ?? false,
    daysOff: startDaysOff,
  };
  const [fields, setFields] = useState(kept);
  const { name, zone, weekStart, weekdays, wordsPerMinute, asksSignOff, daysOff } = fields;
  const set = (part: Partial<typeof kept>) => setFields((now) => ({ ...now, ...part }));
  const [keeps, setKeeps] = useState<ScheduledKeeps | null>(null);
  const setting = useSetting(version);
  const prefix = brand ? 'brand' : 'new-brand';

  async function save(event: FormEvent) {
    event.preventDefault();
    const answer = await setting.save<{ slug?: string }>('POST', '/api/settings/brands', {
      id: brand?.id ?? null,
      ...fields,
      scheduled: keeps,
      daysOff: daysOff.map(({ name: what, from, to }) => ({ name: what, from, to })),
    });
    if (answer.kind !== 'done') return;
    setKeeps(null);
    say({ text: brand ? 'Saved.' : `Made “${name.trim()}”.` });
    if (answer.value.slug) router.push(`/${answer.value.slug}/settings/channels`);
  }

  return (
    <Form onSubmit={(event) => void save(event)} noValidate>
      <Form.Group controlId={`${prefix}-name`} className="mb-3">
        <Form.Label>Name</Form.Label>
        <Form.Control value={name} onChange={(event) => set({ name: event.target.value })} />
      </Form.Group>
      <div className="d-flex-row mb-3">
        <Form.Group controlId={`${prefix}-zone`}>
          <Form.Label>Time zone</Form.Label>
          <Form.Select value={zone} onChange={(event) => set({ zone: event.target.value })}>
            {[...new Set([zone, ...ZONES])].map((known) => (
              <option key={known}>{known}</option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group controlId={`${prefix}-week`}>
          <Form.Label>The week starts on</Form.Label>
          <Form.Select value={weekStart} onChange={(event) => set({ weekStart: Number(event.target.value) })}>
            {[1, 2, 3, 4, 5, 6, 7].map((day) => (
              <option key={day} value={day}>
                {weekdayWord(day)}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group controlId={`${prefix}-pace`}>
          <Form.Label>Words a minute, spoken</Form.Label>
          <Form.Control
            type="number"
            min={WORDS_PER_MINUTE.least}
            max={WORDS_PER_MINUTE.most}
            value={wordsPerMinute}
            onChange={(event) => set({ wordsPerMinute: Number(event.target.value) })}
          />
        </Form.Group>
      </div>
      <Form.Check
        id={`${prefix}-sign-off`}
        className="mb-3"
        label="Posts are signed off by a reviewer or manager before they are ready"
        checked={asksSignOff}
        onChange={(event) => set({ asksSignOff: event.target.checked })}
      />
      {brand && zone !== brand.zone && <ZoneChange brandId={brand.id} zone={zone} keeps={keeps} onKeep={setKeeps} />}
      <Weekdays
        legend="Working days, for steps nobody is named for"
        chosen={weekdays}
        onChange={(next) => set({ weekdays: next })}
      />
      <SpanList legend="Days off: no openings on them" spans={daysOff} onChange={(next) => set({ daysOff: next })} />
      <Problem of={setting} onTheirs={() => setFields(kept)} />
      <Button type="submit" variant={brand ? 'primary' : 'outline'} className="mt-2">
        {brand ? 'Save the brand' : 'Make the brand'}
      </Button>
    </Form>
  );
}
