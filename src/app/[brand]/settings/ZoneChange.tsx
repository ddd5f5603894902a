'use client';

import { useEffect, useState } from 'react';
import Form from 'react-bootstrap/Form';
import type { ScheduledKeeps, ZoneMove } from '@/usecases/brands/zoneChange';
import { call } from '@/ui/api';
import { shortDate } from '@/ui/format';
import Table from 'react-bootstrap/Table';

/** What is scheduled when a brand changes its zone: listed, with the decision what it keeps. */
export function ZoneChange({
  brandId,
  zone,
  keeps,
  onKeep,
}: {
  brandId: string;
  zone: string;
  keeps: ScheduledKeeps | null;
  onKeep: (keeps: ScheduledKeeps) => void;
}) {
  const [moves, setMoves] = useState<readonly ZoneMove[] | null>(null);
  useEffect(() => {
    let isCurrent = true;
    const query = new URLSearchParams({ brand: brandId, zone });
    void call<ZoneMove[]>('GET', `/api/settings/brands?${query}`).then((answer) => {
      if (isCurrent && answer.kind === 'done') setMoves(answer.value);
    });
    return () => {
      isCurrent = false;
    };
  }, [brandId, zone]);
  if (!moves) return <p className="soft">Looking up what is scheduled…</p>;
  if (moves.length === 0) return <p className="soft">Nothing is scheduled, so nothing has to be decided.</p>;
  return (
    <fieldset className="zone-change mb-3">
      <legend>{moves.length === 1 ? 'One post is scheduled' : `${moves.length} posts are scheduled`}</legend>
      <Form.Check
        type="radio"
        name="scheduled-keeps"
        id="keep-moment"
        checked={keeps === 'moment'}
        onChange={() => onKeep('moment')}
        label="They are sent at the same moment; their times change"
      />
      <Form.Check
        type="radio"
        name="scheduled-keeps"
        id="keep-clock"
        checked={keeps === 'clock'}
        onChange={() => onKeep('clock')}
        label="They keep their times, and are sent by the new zone’s clock"
      />
      <Table bsPrefix="settings-table">
        <thead>
          <tr>
            <th scope="col">Post</th>
            <th scope="col">Planned</th>
            <th scope="col">Same moment in {zone}</th>
          </tr>
        </thead>
        <tbody>
          {moves.map(({ id, callSign, title, date, time, sameMoment, sameClock }) => (
            <tr key={id}>
              <td>
                <b>{callSign}</b> {title}
              </td>
              <td className="figures">
                {shortDate(date)} {time}
                {sameClock === null && <div className="attention">past or skipped by that clock</div>}
              </td>
              <td className="figures">
                {shortDate(sameMoment.date)} {sameMoment.time}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </fieldset>
  );
}
