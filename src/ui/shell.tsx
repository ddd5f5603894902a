'use client';

import { allowsOf, may, type Deed, type MakersRules, type Role } from '@/core/rights/may';
import { createContext, useCallback, useContext, type ReactNode } from 'react';
import type { RuleSheet } from '@/core/rulesheets/types';
import type { Instant, LocalDate, Zone } from '@/core/time/plan';
import { drawnFor } from './personOnScreen';

/** What every screen of a brand knows. */
export interface Shell {
  brand: {
    id: string;
    slug: string;
    name: string;
    zone: Zone;
    weekStart: number;
    wordsPerMinute: number;
  } & MakersRules;
  brands: { slug: string; name: string }[];
  people: { id: string; slug: string; name: string; role: Role }[];
  me: { id: string; slug: string; name: string; role: Role };
  /** How one is who one is: chosen in a demo, signed in, or alone on this machine without a password. */
  entry: 'chosen' | 'signedIn' | 'alone';
  channels: { id: string; brandId: string; name: string; callSign: string; color: string; sheet: RuleSheet }[];
  pillars: { id: string; name: string; color: string }[];
  campaigns: { id: string; name: string; color: string }[];
  /** The server's now when the page was drawn, and that day in the brand's zone. */
  now: Instant;
  today: LocalDate;
}

const Context = createContext<Shell | null>(null);

/** Hands a brand's facts to the screens below. */
export function ShellProvider({ shell, children }: { shell: Shell; children: ReactNode }) {
  // Before anything below reads what is kept.
  drawnFor(shell.me.id);
  return <Context value={shell}>{children}</Context>;
}

/** The facts of the brand on screen. */
export function useShell(): Shell {
  const shell = useContext(Context);
  if (!shell) throw new Error('useShell outside a brand');
  return shell;
}

/** Tells whether whoever looks may do something of the brand on screen: what would be refused is not offered. */
export function useMay(): (deed: Deed) => boolean {
  const { me, brand } = useShell();
  return useCallback(
    (deed) => may({ role: me.role, brandIds: [brand.id] }, deed, { brandId: brand.id, allows: allowsOf(brand) }).ok,
    [me.role, brand],
  );
}

/** Shows what it holds to those who may do that of the brand on screen. */
export const Only = ({ deed, children }: { deed: Deed; children: ReactNode }): ReactNode =>
  useMay()(deed) ? children : null;

/** Turns off what is typed and chosen in it for those who may not do that; what is pressed is out of sight then. */
export const OnlyTyped = ({ deed, children }: { deed: Deed; children: ReactNode }): ReactNode => (
  <fieldset className="only-typed" disabled={!useMay()(deed)}>
    {children}
  </fieldset>
);
