import type { Deed as Right } from '@/core/rights/may';

/** Somewhere to go or something to do that “Find and do” knows. */
export interface Deed {
  label: string;
  /** Other words that people type for it. */
  words?: readonly string[];
  run: () => void;
}

/** What is known to those alone who may do something: by its label, or how that begins. */
const ONLY_FOR: readonly (readonly [begins: string, deed: Right])[] = [
  ['New post', 'changePosts'],
  ['Catch an idea', 'catchIdeas'],
  ['New piece', 'catchIdeas'],
  ['New brand', 'manageHouse'],
  ['Undo', 'changePosts'],
  ['Redo', 'changePosts'],
  ['Redo', 'changePosts'],
  ['Batch day', 'planBatchDays'],
  ['Settings: people', 'look'],
  ['Settings: rhythm', 'setRhythm'],
  ['Settings: repeats', 'runRepeats'],
  ['Settings: rule sheets', 'manageHouse'],
  ['Settings: known dates', 'keepKnownDates'],
  ['Settings', 'manageBrand'],
  ['Import and export', 'exchange'],
  ['Deleted posts', 'changePosts'],
  ['Audit list', 'manageHouse'],
];

const isOffered = ({ label }: Deed, may: (deed: Right) => boolean): boolean =>
  may(ONLY_FOR.find(([begins]) => label.startsWith(begins))?.[1] ?? 'look');

/** What is done on the calendar once it is there, as its address says it. */
export const CALENDAR_DEEDS = ['new', 'print'] as const;
export type CalendarDeed = (typeof CALENDAR_DEEDS)[number];

/** What is done where one is. */
interface HereDeeds {
  onCatch: () => void;
  onHelp: () => void;
  onGround: (ground: string) => void;
  onUndo: () => void;
  onRedo: () => void;
}

/**
 * The places, settings and deeds of a brand.
 *
 * @param may whether whoever looks may do something
 * @param next what this person would undo and redo next, in words; null where there is nothing
 */
export function deedsOf(
  here: string,
  today: string,
  go: (path: string) => void,
  { onCatch, onHelp, onGround, onUndo, onRedo }: HereDeeds,
  next: { undo: string | null; redo: string | null },
  may: (deed: Right) => boolean,
): Deed[] {
  const to = (label: string, path: string, ...words: string[]): Deed => ({
    label,
    words,
    run: () => go(path.startsWith('/') ? path : `${here}/${path}`),
  });
  const all = [
    to('New post…', 'calendar?do=new', 'add post', 'create post', 'write', 'draft', 'plan'),
    { label: 'Catch an idea', words: ['new idea', 'add idea', 'note'], run: onCatch },
    to('New piece…', 'pieces?new=true', 'add piece', 'talk', 'article', 'transcript', 'bring in', 'repurpose'),
    to('New brand…', '/begin', 'add brand', 'client'),
    ...(next.undo === null ? [] : [{ label: `Undo: ${next.undo}`, words: ['take back', 'revert'], run: onUndo }]),
    ...(next.redo === null ? [] : [{ label: `Redo: ${next.redo}`, words: ['do again', 'repeat'], run: onRedo }]),
    to('Print the calendar', 'calendar?do=print', 'paper', 'pdf'),
    to('Calendar: lanes', 'calendar?as=lanes', 'channels', 'week', 'schedule'),
    to('Calendar: lanes, two weeks', 'calendar?as=lanes&weeks=2', 'fortnight'),
    to('Calendar: month', 'calendar?as=month'),
    to('Calendar: today by the hour', `calendar?as=day&date=${today}`, 'day'),
    to('Calendar: by stage', 'calendar?as=stages', 'board', 'status', 'workflow'),
    to('Calendar: list', 'calendar?as=list', 'table'),
    to('Calendar: posts without a picture', 'calendar?as=list&lacks=picture', 'missing picture'),
    to('Calendar: posts without a caption', 'calendar?as=list&lacks=caption', 'missing caption', 'empty'),
    to('Calendar: not ready within 3 days', 'calendar?as=list&lacks=readyNear', 'urgent', 'late'),
    to('Desk', 'desk', 'my steps', 'tasks', 'to do', 'today'),
    to('Batch day: plan one', 'batch', 'several at once', 'sitting'),
    to('Ideas', 'ideas', 'backlog'),
    to('Pieces: coverage', 'pieces', 'talks', 'articles', 'content', 'repurpose'),
    to('Encores', 'pieces/encores', 'again', 'repeat', 'recycle', 'evergreen', 'duplicate'),
    to('Departures', 'departures', 'queue', 'send', 'failed', 'post by hand', 'publish'),
    to('Departures: set aside', 'departures/set-aside', 'not published', 'reasons', 'cancelled'),
    to('Library', 'library', 'pictures', 'videos', 'media', 'files'),
    to('Shelf', 'shelf', 'hashtags', 'links', 'snippets', 'replies'),
    to('Notices', 'notices', 'reminders', 'what happened', 'due by hand'),
    to('Settings: brand, zone, days off', 'settings', 'time zone', 'holidays', 'practice', 'sign-off'),
    to('Settings: people', 'settings/people', 'team', 'users', 'roles'),
    to('Settings: channels', 'settings/channels', 'accounts', 'networks', 'add channel'),
    to('Settings: rhythm', 'settings/rhythm', 'how often', 'openings', 'slots', 'schedule'),
    to('Settings: repeats', 'settings/repeats', 'recurring', 'series', 'evergreen', 'seasonal'),
    to('Settings: pillars and campaigns', 'settings/themes', 'topics', 'tags', 'labels'),
    to('Settings: prep sheets', 'settings/prep', 'steps', 'checklist', 'workflow', 'lead time'),
    to('Settings: fan-outs', 'settings/fan-outs', 'templates', 'repurpose'),
    to('Settings: rule sheets', 'settings/sheets', 'limits', 'characters', 'networks'),
    to('Settings: known dates', 'settings/dates', 'holidays', 'iCalendar', 'import dates', 'events'),
    to(
      'Import and export posts',
      'settings/exchange',
      'CSV',
      'upload',
      'download',
      'backup',
      'iCalendar',
      'spreadsheet',
    ),
    to('Deleted posts', 'settings/deleted', 'trash', 'bring back', 'restore', 'undelete', 'bin'),
    { label: 'Shortcuts', words: ['keys', 'keyboard', 'help'], run: onHelp },
    { label: 'Theme: light', words: ['bright', 'appearance'], run: () => onGround('light') },
    { label: 'Theme: dark', words: ['night', 'appearance'], run: () => onGround('dark') },
  ];
  return all.filter((deed) => isOffered(deed, may));
}

/** Where the deeds of the post that is open stand. */
const OPEN_POST = '.sheet [data-deeds]';

/** What can be done with the post that is open: what the buttons of its sheet say and do. */
export function deedsOfOpenPost(document: Document): Deed[] {
  const buttons = [
    ...document.querySelectorAll<HTMLElement>(`${OPEN_POST} button:not(:disabled), ${OPEN_POST} a[href]`),
  ];
  return buttons.flatMap((button) => {
    const label = (button.textContent ?? '').trim();
    return label === '' || label === 'Close' ? [] : [{ label: `This post: ${label}`, run: () => button.click() }];
  });
}

/**
 * The deeds that what was typed means, the best first: those that begin with it, or one of whose words does, before those that
 * hold it somewhere.
 *
 * @param rate how well a text fits what was typed, 0 for not at all
 */
export function rankDeeds<D extends Deed>(
  deeds: readonly D[],
  typed: string,
  rate: (text: string, typed: string) => number,
): { deed: D; worth: number }[] {
  const wanted = typed.trim().toLowerCase();
  if (wanted === '') return deeds.map((deed) => ({ deed, worth: 0 }));
  return deeds
    .map((deed) => {
      const worthOf = (texts: readonly string[], begun: number) =>
        texts.map((text) => (text.toLowerCase().startsWith(wanted) ? begun : 0) + rate(text, wanted) * 0.9);
      const worth = Math.max(
        ...worthOf([deed.label], 3),
        ...worthOf(deed.label.split(/: |, /).slice(1), 2),
        ...worthOf(deed.words ?? [], 1),
      );
      return { deed, worth };
    })
    .filter(({ worth }) => worth > LEAST_WORTH)
    .sort((one, other) => other.worth - one.worth);
}

/** Below this, letters lie too far apart to be meant. */
const LEAST_WORTH = 0.02;
