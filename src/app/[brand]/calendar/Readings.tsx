'use client';

import { useState, type FormEvent } from 'react';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import Dropdown from 'react-bootstrap/Dropdown';
import type { Reading } from '@/usecases/calendar/reading';
import { call, problemOf } from '@/ui/api';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';

/** The kept readings of the calendar: go to one, keep the present one under a name. */
export function Readings({ readings, present }: { readings: readonly Reading[]; present: string }) {
  const { brand, me } = useShell();
  const router = useRouter();
  const say = useSay();
  const [name, setName] = useState('');
  const [shared, setShared] = useState(false);
  const current = readings.find((reading) => reading.address === present);

  async function keep(event: FormEvent) {
    event.preventDefault();
    const answer = await call('POST', '/api/calendar/readings', { brandId: brand.id, name, shared, address: present });
    const problem = problemOf(answer);
    if (problem) return say({ text: problem, wrong: true });
    say({ text: `Kept as “${name.trim()}”${shared ? ' for all' : ''}.` });
    setName('');
    router.refresh();
  }

  async function forget(reading: Reading) {
    const problem = problemOf(await call('DELETE', '/api/calendar/readings', { id: reading.id }));
    if (problem) return say({ text: problem, wrong: true });
    say({
      text: `Forgot “${reading.name}”.`,
      deed: {
        label: 'Undo',
        run: () =>
          void call('POST', '/api/calendar/readings', {
            brandId: brand.id,
            name: reading.name,
            shared: reading.shared,
            address: reading.address,
          }).then(() => router.refresh()),
      },
    });
    router.refresh();
  }

  return (
    <Dropdown autoClose="outside" align="end">
      <Dropdown.Toggle as="button" type="button" className="word">
        {current ? `Reading: ${current.name}` : 'Readings'}
      </Dropdown.Toggle>
      <Dropdown.Menu className="readings">
        {readings.length === 0 && (
          <p className="soft small-text">
            A reading keeps arrangement, filters and facts under a name. None is kept yet.
          </p>
        )}
        {readings.map((reading) => (
          <div key={reading.id} className="reading">
            <button
              type="button"
              className="word"
              aria-current={reading === current || undefined}
              onClick={() => router.push(`/${brand.slug}/calendar?${reading.address}`)}
            >
              {reading.name}
            </button>
            <span className="soft small-text">{reading.shared ? 'for all' : 'yours'}</span>
            {reading.ownerId === me.id && (
              <button
                type="button"
                className="word soft"
                aria-label={`Forget “${reading.name}”`}
                onClick={() => void forget(reading)}
              >
                forget
              </button>
            )}
          </div>
        ))}
        <form onSubmit={(event) => void keep(event)}>
          <input
            aria-label="Name of this reading"
            placeholder="Keep this as …"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <label>
            <input type="checkbox" checked={shared} onChange={(event) => setShared(event.target.checked)} /> for all
          </label>
          <Button type="submit" size="sm" variant="outline" disabled={name.trim() === ''}>
            Keep
          </Button>
        </form>
        <p className="take-out soft small-text">
          Take out what shows:{' '}
          {[
            ['csv', 'CSV'],
            ['ics', 'iCalendar'],
          ].map(([file, label]) => (
            <a key={file} href={`/api/calendar/export?brand=${brand.slug}&file=${file}&${present}`} download>
              {label}
            </a>
          ))}{' '}
          <button type="button" className="word" onClick={() => print()}>
            print
          </button>
        </p>
      </Dropdown.Menu>
    </Dropdown>
  );
}
