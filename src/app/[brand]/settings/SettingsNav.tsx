'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import type { Deed } from '@/core/rights/may';
import { useMay } from '@/ui/shell';

/** The pages, each for those who may do what it is about. */
const SETTINGS_PAGES: readonly { path: string; label: string; deed: Deed }[] = [
  { path: '', label: 'Brand', deed: 'manageBrand' },
  { path: '/people', label: 'People', deed: 'look' },
  { path: '/channels', label: 'Channels', deed: 'manageBrand' },
  { path: '/rhythm', label: 'Rhythm', deed: 'setRhythm' },
  { path: '/repeats', label: 'Repeats', deed: 'runRepeats' },
  { path: '/themes', label: 'Pillars and campaigns', deed: 'manageBrand' },
  { path: '/prep', label: 'Prep sheets', deed: 'manageBrand' },
  { path: '/fan-outs', label: 'Fan-outs', deed: 'manageBrand' },
  { path: '/writing', label: 'Writing service', deed: 'manageBrand' },
  { path: '/sheets', label: 'Rule sheets', deed: 'manageHouse' },
  { path: '/dates', label: 'Known dates', deed: 'keepKnownDates' },
  { path: '/exchange', label: 'Import and export', deed: 'exchange' },
  { path: '/deleted', label: 'Deleted posts', deed: 'changePosts' },
  { path: '/audit', label: 'Audit list', deed: 'manageHouse' },
];

/** The pages of the settings. */
export function SettingsNav({ slug }: { slug: string }) {
  const may = useMay();
  const pathname = usePathname();
  return (
    <nav className="settings-nav" aria-label="Settings">
      {SETTINGS_PAGES.filter(({ deed }) => may(deed)).map(({ path, label }) => {
        const href = `/${slug}/settings${path}`;
        return (
          <Link key={path} href={href} aria-current={pathname === href ? 'page' : undefined} prefetch={false}>
            {label}
          </Link>
        );
      })}
    </nav>
  );
}
