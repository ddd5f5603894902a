'use client';

import Link from 'next/link';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { weekdayWord } from '@/core/rhythm/entry';
import { MOST_A_WEEK, suggestRhythm } from '@/core/rhythm/suggest';
import { call } from '@/ui/api';
import { CallSign } from '@/ui/CallSign';
import { useShell } from '@/ui/shell';
import { BeginDeeds } from './BeginDeeds';
import { useSteps } from './useSteps';

/** How often each channel shall be posted on, with the days and times that come of it. */
export function BeginRhythm() {
  const { brand, channels } = useShell();
  const { goOn, problem, isBusy } = useSteps('idea');
  const [often, setOften] = useState<Record<string, number>>({});
  const entriesOf = (channelId: string, place: number) => suggestRhythm(often[channelId] ?? 0, place);
  const set = channels.filter(({ id }) => (often[id] ?? 0) > 0);

  if (channels.length === 0)
    return (
      <p>
        This brand has no channels yet. <Link href={`/${brand.slug}/begin?step=channels`}>Add the first channel</Link>
      </p>
    );
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        void goOn(
          channels.flatMap(({ id, name }, place) =>
            (often[id] ?? 0) > 0
              ? [
                  {
                    name,
                    save: () =>
                      call(
                        'POST',
                        `/api/channels/${id}/rhythm`,
                        { entries: entriesOf(id, place), pauses: [] },
                        { seen: 0 },
                      ),
                  },
                ]
              : [],
          ),
        );
      }}
      noValidate
    >
      <ul className="begin-list">
        {channels.map(({ id, name, callSign, color }, place) => (
          <li key={id} className="begin-fields">
            <span>
              <CallSign sign={callSign} color={color} name={name} /> <b dir="auto">{name}</b>
            </span>
            <Form.Select
              aria-label={`How often on ${name}`}
              value={often[id] ?? 0}
              onChange={(event) => setOften({ ...often, [id]: Number(event.target.value) })}
            >
              {Array.from({ length: MOST_A_WEEK + 1 }, (_, count) => (
                <option key={count} value={count}>
                  {oftenWords(count)}
                </option>
              ))}
            </Form.Select>
            <span className="soft small-text">
              {entriesOf(id, place)
                .map(({ recurrence, time }) =>
                  recurrence.kind === 'weekly' ? `${weekdayWord(recurrence.weekday).slice(0, 3)} ${time}` : time,
                )
                .join(', ')}
            </span>
          </li>
        ))}
      </ul>
      <p className="soft small-text">Days, times and formats are changed later under Settings, Rhythm.</p>
      <BeginDeeds
        label={set.length === 0 ? 'Next: a first idea' : 'Save this rhythm'}
        next={set.length === 0 ? null : 'idea'}
        {...{ problem, isBusy }}
      />
    </Form>
  );
}

const oftenWords = (count: number): string =>
  count === 0
    ? 'now and then'
    : count === 1
      ? 'once a week'
      : count === 7
        ? 'every day'
        : count === 14
          ? 'twice a day'
          : `${count} times a week`;
