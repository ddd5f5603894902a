'use client';

import Link from 'next/link';
import { usePathname, useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import dynamic from 'next/dynamic';
import Button from 'react-bootstrap/Button';
import Dropdown from 'react-bootstrap/Dropdown';
import { useHotkeys } from 'react-hotkeys-hook';
import { call, problemOf } from '@/ui/api';
import { useFreshNotices } from '@/ui/useFreshNotices';
import type { FreshNotices } from '@/core/notices/notice';
import { clockTime } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { Only, useMay, useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';

const loadIdeaDialog = () => import('./IdeaDialog').then((module) => module.IdeaDialog);
const loadFindAndDo = () => import('./FindAndDo').then((module) => module.FindAndDo);
const IdeaDialog = dynamic(loadIdeaDialog, { ssr: false });
const FindAndDo = dynamic(loadFindAndDo, { ssr: false });
/** How long after a page is there the dialogs are fetched that one types into at once, in milliseconds. */
const FETCH_AFTER_MS = 1_500;
const Shortcuts = dynamic(() => import('./Shortcuts').then((module) => module.Shortcuts), { ssr: false });

const PLACES = [
  { path: 'desk', label: 'Desk' },
  { path: 'ideas', label: 'Ideas' },
  { path: 'calendar', label: 'Calendar' },
  { path: 'pieces', label: 'Pieces' },
  { path: 'departures', label: 'Departures' },
  { path: 'library', label: 'Library' },
  { path: 'shelf', label: 'Shelf' },
  { path: 'notices', label: 'Notices' },
];

const GROUNDS = [
  { value: '', label: 'Theme: as the system' },
  { value: 'light', label: 'Theme: light' },
  { value: 'dark', label: 'Theme: dark' },
];

/** The rail scrolls where it is higher than the window, and would cut off what is wider than itself (`.rail .dropdown-menu`). */
const BESIDE_THE_RAIL = { strategy: 'fixed' } as const;

/**
 * The places in the order of the work; the brand at the head, who one is at the foot.
 *
 * @param dueByHand how many posts wait to be posted by hand now
 * @param inTrouble how many were not sent on their day, or need to be looked at
 * @param fresh what whoever looks was told of and has still to look at
 */
export function Rail({ dueByHand, inTrouble, fresh }: { dueByHand: number; inTrouble: number; fresh: FreshNotices }) {
  const { brand, brands, people, me, entry, now } = useShell();
  const may = useMay();
  const pathname = usePathname();
  const router = useRouter();
  const say = useSay();
  const toRead = useFreshNotices(fresh);
  const [catching, setCatching] = useState(false);
  const [finding, setFinding] = useState(false);
  const [helping, setHelping] = useState(false);
  useHotkeys('i', () => setCatching(true), { preventDefault: true, enabled: may('catchIdeas') });
  useHotkeys('mod+k', () => setFinding(true), { preventDefault: true, enableOnFormTags: true });
  // What is typed right after their keys must find them there.
  useEffect(() => {
    const timer = setTimeout(() => void Promise.all([loadFindAndDo(), loadIdeaDialog()]), FETCH_AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
  // By the sign, not by the key: where “?” lies differs from keyboard to keyboard.
  useEffect(() => {
    const help = (event: KeyboardEvent) => {
      const isTyping = (event.target as HTMLElement).closest('input, textarea, select, [contenteditable]');
      if (event.key === '?' && !isTyping) setHelping(true);
    };
    addEventListener('keydown', help);
    return () => removeEventListener('keydown', help);
  }, []);

  async function become(personId: string) {
    const answer = await call('POST', '/api/who', { personId });
    if (answer.kind === 'done') router.refresh();
    else say({ text: problemOf(answer)! });
  }

  async function signOut() {
    const answer = await call('POST', '/api/sign-out', { everywhere: false });
    if (answer.kind === 'done') location.assign('/sign-in');
    else say({ text: problemOf(answer)! });
  }

  function choose(ground: string) {
    document.cookie = `bimlo_ground=${ground}; path=/; max-age=${ground ? 31_536_000 : 0}; samesite=strict`;
    if (ground) document.documentElement.dataset.ground = ground;
    else delete document.documentElement.dataset.ground;
  }

  return (
    <header className="rail">
      <div className="rail-brand">
        <Dropdown>
          <Dropdown.Toggle as="button" type="button" aria-label={`Brand: ${brand.name}. Switch`}>
            {brand.name}
          </Dropdown.Toggle>
          <Dropdown.Menu popperConfig={BESIDE_THE_RAIL}>
            {brands.map(({ slug, name }) => (
              <Dropdown.Item key={slug} href={`/${slug}/calendar`} active={slug === brand.slug}>
                {name}
              </Dropdown.Item>
            ))}
            <Only deed="manageHouse">
              <Dropdown.Divider />
              <Dropdown.Item href="/begin">New brand…</Dropdown.Item>
            </Only>
          </Dropdown.Menu>
        </Dropdown>
        <div className="soft small-text" suppressHydrationWarning>
          {brand.zone.split('/').at(-1)!.replace('_', ' ')} time,{' '}
          <span className="figures">{clockTime(now, brand.zone)}</span>
        </div>
      </div>
      <nav aria-label="Places">
        {PLACES.map(({ path, label }) => {
          const href = `/${brand.slug}/${path}`;
          return (
            <Link key={path} href={href} aria-current={pathname.startsWith(href) ? 'page' : undefined} prefetch={false}>
              {label}
              {path === 'departures' && inTrouble > 0 && (
                <span className="figures wrong" title="not sent">
                  {inTrouble}
                  <span className="visually-hidden"> not sent</span>
                </span>
              )}
              {path === 'notices' && toRead > 0 && (
                <span className="figures attention" title="to be read">
                  {toRead}
                  <span className="visually-hidden"> to be read</span>
                </span>
              )}
              {path === 'departures' && dueByHand > 0 && (
                <span className="figures attention" title="to be posted by hand now">
                  {dueByHand}
                  <span className="visually-hidden"> to be posted by hand now</span>
                </span>
              )}
            </Link>
          );
        })}
      </nav>
      <div className="rail-foot">
        <Link
          className="rail-settings"
          href={`/${brand.slug}/settings${may('manageBrand') ? '' : '/people'}`}
          prefetch={false}
        >
          Settings
        </Link>
        <Only deed="catchIdeas">
          <Button variant="outline" onClick={() => setCatching(true)} aria-keyshortcuts="i">
            Catch an idea <span className="figures">i</span>
          </Button>
        </Only>
        <WordButton className="rail-find" onClick={() => setFinding(true)}>
          Find and do <span className="figures soft">^K</span>
        </WordButton>
        <WordButton className="rail-find" onClick={() => setHelping(true)} aria-keyshortcuts="?">
          Shortcuts <span className="figures soft">?</span>
        </WordButton>
        <Dropdown className="rail-who" drop="up">
          <Dropdown.Toggle
            as="button"
            type="button"
            aria-label={entry === 'chosen' ? `You are ${me.name}. Switch` : `You are ${me.name}`}
          >
            {me.name}
          </Dropdown.Toggle>
          <Dropdown.Menu popperConfig={BESIDE_THE_RAIL}>
            {entry === 'chosen' ? (
              <>
                <Dropdown.Header>Work as</Dropdown.Header>
                {people.map((person) => (
                  <Dropdown.Item
                    key={person.id}
                    as="button"
                    active={person.id === me.id}
                    onClick={() => void become(person.id)}
                  >
                    {person.name} <span className="soft">{person.role}</span>
                  </Dropdown.Item>
                ))}
              </>
            ) : (
              <>
                <Dropdown.Item as={Link} href={`/${brand.slug}/you`}>
                  {entry === 'alone' ? 'Set a password…' : 'Your password and sign-ins'}
                </Dropdown.Item>
                {entry === 'signedIn' && (
                  <Dropdown.Item as="button" onClick={() => void signOut()}>
                    Sign out
                  </Dropdown.Item>
                )}
              </>
            )}
            <Dropdown.Divider />
            {GROUNDS.map(({ value, label }) => (
              <Dropdown.Item key={value} as="button" onClick={() => choose(value)}>
                {label}
              </Dropdown.Item>
            ))}
          </Dropdown.Menu>
        </Dropdown>
      </div>
      {catching && <IdeaDialog onClose={() => setCatching(false)} />}
      {finding && (
        <FindAndDo
          onCatch={() => setCatching(true)}
          onHelp={() => setHelping(true)}
          onGround={choose}
          onClose={() => setFinding(false)}
        />
      )}
      {helping && <Shortcuts onClose={() => setHelping(false)} />}
    </header>
  );
}
