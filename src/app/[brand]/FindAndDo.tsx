'use client';

import { Command, defaultFilter } from 'cmdk';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { Palette } from '@/ui/Dialog';
import type { Found } from '@/usecases/search/reading';
import { call } from '@/ui/api';
import { shortDate } from '@/ui/format';
import { useMay, useShell } from '@/ui/shell';
import { useUndo } from '@/ui/undo';
import { deedsOf, deedsOfOpenPost, rankDeeds, type Deed } from './goAndDo';

/** How long after the last letter posts are looked for, in milliseconds. */
const TYPING_PAUSE_MS = 150;

/** What is done on the calendar is done where it stands, with the post open that is, if it is on screen already. */
function onThisCalendar(path: string): string {
  const asked = new URL(path, location.href);
  if (location.pathname !== asked.pathname) return path;
  const present = new URLSearchParams(location.search);
  for (const [name, value] of asked.searchParams) present.set(name, value);
  return `${asked.pathname}?${present}`;
}

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
  /** Null for the best. */
  const [chosen, setChosen] = useState<string | null>(null);
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
    router.push(path.startsWith(`${here}/calendar?do=`) ? onThisCalendar(path) : path);
  };
  const act = (deed: () => void) => {
    onClose();
    // The dialog gives the focus back as it closes; what is done then may take it.
    setTimeout(deed);
  };
  const { undo, redo } = useUndo();
  const [next, setNext] = useState<Record<'undo' | 'redo', string | null>>({ undo: null, redo: null });
  useEffect(() => {
    void call<typeof next>('GET', `/api/calendar/undo?brand=${brand.id}`).then((answer) => {
      if (answer.kind === 'done') setNext(answer.value);
    });
  }, [brand.id]);
  const may = useMay();
  const [ofPost] = useState(() => deedsOfOpenPost(document));
  const deeds: Deed[] = [
    ...ofPost.map((deed) => ({ ...deed, run: () => act(deed.run) })),
    ...deedsOf(
      here,
      today,
      go,
      {
        onCatch: () => act(onCatch),
        onHelp: () => act(onHelp),
        onGround: (ground) => act(() => onGround(ground)),
        onUndo: () => act(() => undo(null)),
        onRedo: () => act(redo),
      },
      next,
      may,
    ),
    ...brands
      .filter(({ slug }) => slug !== brand.slug)
      .map(({ slug, name }) => ({ label: `Switch to ${name}`, run: () => go(`/${slug}/calendar`) })),
  ];
  const ranked = rankDeeds(deeds, words, (text, typed) => defaultFilter(text, typed));
  // A deed that begins with what was typed is meant; else the posts and pieces that hold it come first.
  const deedsFirst = words.trim() === '' || (ranked[0]?.worth ?? 0) >= 1;
  const bestFound = found[0] && `${found[0].kind} ${found[0].id}`;
  const bestDeed = ranked[0]?.deed.label;
  const best = (deedsFirst ? (bestDeed ?? bestFound) : (bestFound ?? bestDeed)) ?? '';
  const groups = [
    found.length > 0 && (
      <Command.Group key="found" heading="Posts and pieces">
        {found.map((item) => (
          <Command.Item
            key={`${item.kind} ${item.id}`}
            value={`${item.kind} ${item.id}`}
            onSelect={() =>
              go(
                item.kind === 'piece'
                  ? `${here}/pieces/${item.id}`
                  : `${here}/calendar?${item.date ? `date=${item.date}&` : ''}post=${item.id}`,
              )
            }
          >
            <span className="figures">{item.callSign ?? '··'}</span> <bdi>{item.title}</bdi>{' '}
            <span className="soft">
              {item.kind === 'piece' ? 'piece' : item.date ? shortDate(item.date) : 'no date'}
            </span>
          </Command.Item>
        ))}
      </Command.Group>
    ),
    ranked.length > 0 && (
      <Command.Group key="deeds" heading="Go and do">
        {ranked.map(({ deed: { label, run } }) => (
          <Command.Item key={label} value={label} onSelect={run}>
            {label}
          </Command.Item>
        ))}
      </Command.Group>
    ),
  ];

  return (
    <Palette label="Find and do" onClose={onClose}>
      <Command label="Find and do" shouldFilter={false} value={chosen ?? best} onValueChange={setChosen}>
        <Command.Input
          autoFocus
          value={words}
          onValueChange={(typed) => {
            setWords(typed);
            // The best is chosen again with each letter.
            setChosen(null);
          }}
          placeholder="Find a post or piece, go somewhere, do something"
        />
        <Command.List>
          <Command.Empty>No matches.</Command.Empty>
          {deedsFirst ? groups.toReversed() : groups}
        </Command.List>
      </Command>
    </Palette>
  );
}
