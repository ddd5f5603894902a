'use client';

import { useState, type FormEvent } from 'react';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import Dropdown from 'react-bootstrap/Dropdown';
import type { SavedView } from '@/usecases/calendar/reading';
import { call, problemOf } from '@/ui/api';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';

/** The saved views of the calendar: go to one, save the present one under a name. */
export function SavedViews({ savedViews, present }: { savedViews: readonly SavedView[]; present: string }) {
  const { brand, me } = useShell();
  const router = useRouter();
  const say = useSay();
  const [name, setName] = useState('');
  const [shared, setShared] = useState(false);
  const current = savedViews.find((savedView) => savedView.address === present);

  async function keep(event: FormEvent) {
    event.preventDefault();
    const answer = await call('POST', '/api/calendar/views', { brandId: brand.id, name, shared, address: present });
    const problem = problemOf(answer);
    if (problem) return say({ text: problem, wrong: true });
    say({ text: `Saved as “${name.trim()}”${shared ? ', shared with everybody' : ''}.` });
    setName('');
    router.refresh();
  }

  async function remove(savedView: SavedView) {
    const problem = problemOf(await call('DELETE', '/api/calendar/views', { id: savedView.id }));
    if (problem) return say({ text: problem, wrong: true });
    say({
      text: `Deleted “${savedView.name}”.`,
      deed: {
        label: 'Undo',
        run: () =>
          void call('POST', '/api/calendar/views', {
            brandId: brand.id,
            name: savedView.name,
            shared: savedView.shared,
            address: savedView.address,
          }).then(() => router.refresh()),
      },
    });
    router.refresh();
  }

  return (
    <Dropdown autoClose="outside" align="end">
      <Dropdown.Toggle as="button" type="button" className="word">
        {current ? `Saved view: ${current.name}` : 'Saved views'}
      </Dropdown.Toggle>
      <Dropdown.Menu className="saved-views">
        {savedViews.length === 0 && (
          <p className="soft small-text">
            A saved view keeps the arrangement, filters and facts under a name. There is none yet.
          </p>
        )}
        {savedViews.map((savedView) => (
          <div key={savedView.id} className="saved-view">
            <WordButton
              aria-current={savedView === current || undefined}
              onClick={() => router.push(`/${brand.slug}/calendar?${savedView.address}`)}
            >
              {savedView.name}
            </WordButton>
            <span className="soft small-text">{savedView.shared ? 'Shared with everybody' : 'yours'}</span>
            {savedView.ownerId === me.id && (
              <WordButton
                className="soft"
                aria-label={`Delete “${savedView.name}”`}
                onClick={() => void remove(savedView)}
              >
                Delete
              </WordButton>
            )}
          </div>
        ))}
        <form onSubmit={(event) => void keep(event)}>
          <input
            dir="auto"
            aria-label="Name of this view"
            placeholder="Save this view as …"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <label>
            <input type="checkbox" checked={shared} onChange={(event) => setShared(event.target.checked)} /> Shared with
            everybody
          </label>
          <Button type="submit" size="sm" variant="outline" disabled={name.trim() === ''}>
            Save view
          </Button>
        </form>
        <p className="export soft small-text">
          Export what is shown:{' '}
          {[
            ['csv', 'CSV'],
            ['ics', 'iCalendar'],
          ].map(([file, label]) => (
            <a key={file} href={`/api/calendar/export?brand=${brand.slug}&file=${file}&${present}`} download>
              {label}
            </a>
          ))}{' '}
          <WordButton onClick={() => print()}>Print</WordButton>
        </p>
      </Dropdown.Menu>
    </Dropdown>
  );
}
