'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { CallSign } from '@/ui/CallSign';
import { useShell } from '@/ui/shell';

/** From all files of the brand to the strip of each channel. */
export function LibraryNav() {
  const { brand, channels } = useShell();
  const pathname = usePathname();
  const all = `/${brand.slug}/library`;
  return (
    <nav className="files-nav" aria-label="Library">
      <Link href={all} aria-current={pathname === all ? 'page' : undefined}>
        All files
      </Link>
      <span className="soft">by channel</span>
      {channels.map(({ id, callSign, color, name }) => (
        <Link
          key={id}
          href={`${all}/${callSign}`}
          aria-current={pathname === `${all}/${callSign}` ? 'page' : undefined}
          aria-label={`Pictures of ${name}`}
          prefetch={false}
        >
          <CallSign sign={callSign} color={color} />
        </Link>
      ))}
    </nav>
  );
}
