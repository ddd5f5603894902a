'use client';

import Link from 'next/link';
import { useState } from 'react';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Slip } from '@/core/calendar/slip';
import type { NextOpening } from '@/usecases/rhythm/nextOpenings';
import { call, problemOf } from '@/ui/api';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { shortDate } from '@/ui/format';
import { useShell } from '@/ui/shell';
import { Field } from '@/ui/Field';

/** A first idea, planned into the next opening of a channel, or left among the ideas. */
export function BeginIdea({ openings }: { openings: readonly NextOpening[] }) {
  const { brand, channels, today } = useShell();
  const router = useRouter();
  const [title, setTitle] = useState('');
  const [channelId, setChannelId] = useState(channels[0]?.id ?? '');
  const own = openings.filter((opening) => opening.channelId === channelId);
  const [place, setPlace] = useState(0);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const opening = own[place] ?? null;

  async function plan() {
    setBusy(true);
    const caught = await call<{ id: string }>('POST', '/api/pieces', { brandId: brand.id, title });
    if (caught.kind !== 'done') return say(problemOf(caught));
    if (channelId === '') return router.push(`/${brand.slug}/ideas`);
    const planned = await call<{ slips: Slip[] }>('POST', `/api/pieces/${caught.value.id}/plan`, {
      channelIds: [channelId],
      date: opening?.date ?? null,
      time: opening?.time ?? null,
      ...(opening && { format: opening.format, pillarId: opening.pillarId }),
    });
    if (planned.kind !== 'done') return say(problemOf(planned));
    router.push(`/${brand.slug}/calendar?date=${opening?.date ?? today}&post=${planned.value.slips[0]!.id}`);
  }
  function say(why: string | null) {
    setBusy(false);
    setProblem(why);
  }

  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        void plan();
      }}
      noValidate
    >
      <Field id="first-idea" label="An idea, in a few words" className="mb-3">
        <Form.Control autoFocus dir="auto" value={title} onChange={(event) => setTitle(event.target.value)} />
      </Field>
      {channels.length === 0 ? (
        <p className="soft">
          It is among your ideas. To plan it, <Link href={`/${brand.slug}/begin?step=channels`}>add a channel</Link>.
        </p>
      ) : (
        <div className="begin-fields mb-3">
          <Form.Select
            aria-label="Channel"
            value={channelId}
            onChange={(event) => {
              setChannelId(event.target.value);
              setPlace(0);
            }}
          >
            {channels.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Form.Select>
          {own.length > 0 ? (
            <Form.Select aria-label="When" value={place} onChange={(event) => setPlace(Number(event.target.value))}>
              {own.map(({ date, time }, at) => (
                <option key={date + time} value={at}>
                  {shortDate(date)} {time}
                </option>
              ))}
            </Form.Select>
          ) : (
            <span className="soft">without a date: this channel has no rhythm yet</span>
          )}
        </div>
      )}
      <FieldRefusal>{problem}</FieldRefusal>
      <div className="deeds">
        <Button type="submit" disabled={isBusy || title.trim() === ''}>
          {channelId === '' ? 'Catch this idea' : 'Plan it and write the post'}
        </Button>
        <Link className="btn btn-outline" href={`/${brand.slug}/calendar`} prefetch={false}>
          Go to the calendar
        </Link>
      </div>
    </Form>
  );
}
