'use client';

import { Command } from 'cmdk';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import Modal from 'react-bootstrap/Modal';
import type { Found } from '@/usecases/search/reading';
import { call } from '@/ui/api';
import { shortDate } from '@/ui/format';
import { useShell } from '@/ui/shell';

/** How long after the last letter posts are looked for, in milliseconds. */
const TYPING_PAUSE_MS = 150;

/** One field that finds posts and pieces, goes anywhere and does most things. */
export function FindAndDo({
  onCatch,
  onHelp,
  onGround,
  onClose,
}: {
  onCatch: () => void;
  onHelp: () => void;
  onGround: (ground: string) => void;
  onClose: () => void;
}) {
  const { brand, brands, today } = useShell();
  const router = useRouter();
  const [words, setWords] = useState('');
  const [found, setFound] = useState<readonly Found[]>([]);
  const here = `/${brand.slug}`;

  useEffect(() => {
    let isCurrent = true;
    const timer = setTimeout(
      () => {
        if (words.trim() === '') return setFound([]);
        void call<Found[]>('GET', `/api/find?brand=${brand.id}&words=${encodeURIComponent(words)}`).then((answer) => {
          if (isCurrent && answer.kind === 'done') setFound(answer.value);
        });
      },
      words.trim() === '' ? 0 : TYPING_PAUSE_MS,
    );
    return () => {
      isCurrent = false;
      clearTimeout(timer);
    };
  }, [words, brand.id]);

  const go = (path: string) => {
    onClose();
    router.push(path);
  };
  const act = (deed: () => void) => {
    onClose();
    deed();
  };
  const deeds: { label: string; run: () => void }[] = [
    { label: 'Catch an idea', run: () => act(onCatch) },
    { label: 'Calendar: lanes', run: () => go(`${here}/calendar?as=lanes`) },
    { label: 'Calendar: lanes, two weeks', run: () => go(`${here}/calendar?as=lanes&weeks=2`) },
    { label: 'Calendar: month', run: () => go(`${here}/calendar?as=month`) },
    { label: 'Calendar: today by the hour', run: () => go(`${here}/calendar?as=day&date=${today}`) },
    { label: 'Calendar: by stage', run: () => go(`${here}/calendar?as=stages`) },
    { label: 'Calendar: list', run: () => go(`${here}/calendar?as=list`) },
    { label: 'Calendar: posts without a picture', run: () => go(`${here}/calendar?as=list&lacks=picture`) },
    { label: 'Calendar: posts without a caption', run: () => go(`${here}/calendar?as=list&lacks=caption`) },
    { label: 'Calendar: not ready within 3 days', run: () => go(`${here}/calendar?as=list&lacks=readyNear`) },
    { label: 'Desk', run: () => go(`${here}/desk`) },
    { label: 'Ideas', run: () => go(`${here}/ideas`) },
    { label: 'Pieces', run: () => go(`${here}/pieces`) },
    { label: 'Departures', run: () => go(`${here}/departures`) },
    { label: 'Library', run: () => go(`${here}/library`) },
    { label: 'Shelf', run: () => go(`${here}/shelf`) },
    { label: 'Settings: brand, zone, days off', run: () => go(`${here}/settings`) },
    { label: 'Settings: channels', run: () => go(`${here}/settings/channels`) },
    { label: 'Settings: rhythm', run: () => go(`${here}/settings/rhythm`) },
    { label: 'Settings: series', run: () => go(`${here}/settings/series`) },
    { label: 'Settings: pillars and campaigns', run: () => go(`${here}/settings/themes`) },
    { label: 'Settings: rule sheets', run: () => go(`${here}/settings/sheets`) },
    { label: 'Settings: known dates, iCalendar', run: () => go(`${here}/settings/dates`) },
    { label: 'Bring posts in, take posts out (CSV)', run: () => go(`${here}/settings/exchange`) },
    { label: 'Shortcuts', run: () => act(onHelp) },
    { label: 'Theme: light', run: () => act(() => onGround('light')) },
    { label: 'Theme: dark', run: () => act(() => onGround('dark')) },
    ...brands
      .filter(({ slug }) => slug !== brand.slug)
      .map(({ slug, name }) => ({ label: `Switch to ${name}`, run: () => go(`/${slug}/calendar`) })),
  ];

  return (
    <Modal show onHide={onClose} animation={false} aria-label="Find and do" className="find-and-do">
      <Command label="Find and do">
        <Command.Input
          autoFocus
          value={words}
          onValueChange={setWords}
          placeholder="Find a post or piece, go somewhere, do something"
        />
        <Command.List>
          <Command.Empty>No matches.</Command.Empty>
          {found.length > 0 && (
            <Command.Group heading="Posts and pieces" forceMount>
              {found.map((item) => (
                <Command.Item
                  key={`${item.kind} ${item.id}`}
                  value={`${words} ${item.kind} ${item.id}`}
                  forceMount
                  onSelect={() =>
                    go(
                      item.kind === 'piece'
                        ? `${here}/pieces/${item.id}`
                        : `${here}/calendar?${item.date ? `date=${item.date}&` : ''}post=${item.id}`,
                    )
                  }
                >
                  <span className="figures">{item.callSign ?? '··'}</span> {item.title}{' '}
                  <span className="soft">
                    {item.kind === 'piece' ? 'piece' : item.date ? shortDate(item.date) : 'no date'}
                  </span>
                </Command.Item>
              ))}
            </Command.Group>
          )}
          <Command.Group heading="Go and do">
            {deeds.map(({ label, run }) => (
              <Command.Item key={label} value={label} onSelect={run}>
                {label}
              </Command.Item>
            ))}
          </Command.Group>
        </Command.List>
      </Command>
    </Modal>
  );
}
