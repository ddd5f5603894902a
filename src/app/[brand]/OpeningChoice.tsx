'use client';

import { useEffect, useState, type ReactNode } from 'react';
import type { NextOpening } from '@/usecases/rhythm/nextOpenings';
import { call } from '@/ui/api';
import { CallSign } from '@/ui/CallSign';
import { shortDate } from '@/ui/format';
import { useShell } from '@/ui/shell';

/**
 * The next openings of channels, one of them chosen for each: its soonest unless told otherwise.
 *
 * @returns the openings chosen, for channels that have any; and the fields to choose with
 */
export function useOpeningChoice(channelIds: readonly string[]): { places: NextOpening[]; fields: ReactNode } {
  const { brand, channels } = useShell();
  const [openings, setOpenings] = useState<readonly NextOpening[]>([]);
  const [chosen, setChosen] = useState<Record<string, number>>({});
  useEffect(() => {
    let isCurrent = true;
    void call<NextOpening[]>('GET', `/api/channels/openings?brand=${brand.id}`).then((answer) => {
      if (isCurrent && answer.kind === 'done' && Array.isArray(answer.value)) setOpenings(answer.value);
    });
    return () => void (isCurrent = false);
  }, [brand.id]);

  const of = (channelId: string) => openings.filter((opening) => opening.channelId === channelId);
  const places = channelIds.flatMap((id) => of(id)[chosen[id] ?? 0] ?? []);
  const fields = (
    <ul className="opening-choice">
      {channels
        .filter(({ id }) => channelIds.includes(id))
        .map(({ id, name, callSign, color }) => (
          <li key={id}>
            <CallSign sign={callSign} color={color} name={name} />{' '}
            {of(id).length === 0 ? (
              <span className="soft">no opening within 60 days: without a date</span>
            ) : (
              <select
                aria-label={`Opening of ${name}`}
                value={chosen[id] ?? 0}
                onChange={(event) => setChosen({ ...chosen, [id]: Number(event.target.value) })}
              >
                {of(id).map(({ date, time }, at) => (
                  <option key={date + time} value={at}>
                    {shortDate(date)} {time}
                  </option>
                ))}
              </select>
            )}
          </li>
        ))}
    </ul>
  );
  return { places, fields };
}
