'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';

const PAGES = [
  { path: '', label: 'Brand' },
  { path: '/people', label: 'People' },
  { path: '/channels', label: 'Channels' },
  { path: '/rhythm', label: 'Rhythm' },
  { path: '/series', label: 'Series' },
  { path: '/themes', label: 'Pillars and campaigns' },
  { path: '/prep', label: 'Prep sheets' },
  { path: '/fan-outs', label: 'Fan-outs' },
  { path: '/sheets', label: 'Rule sheets' },
  { path: '/dates', label: 'Known dates' },
  { path: '/exchange', label: 'Import and export' },
  { path: '/deleted', label: 'Deleted posts' },
];

/** The pages of the settings. */
export function SettingsNav({ slug }: { slug: string }) {
  const pathname = usePathname();
  return (
    <nav className="settings-nav" aria-label="Settings">
      {PAGES.map(({ path, label }) => {
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
