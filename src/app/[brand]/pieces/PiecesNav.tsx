'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { useShell } from '@/ui/shell';

/** The two ways to look at what was said already: where each piece was used, and what is worth doing again. */
export function PiecesNav() {
  const { brand } = useShell();
  const pathname = usePathname();
  const views = [
    { href: `/${brand.slug}/pieces`, label: 'Coverage' },
    { href: `/${brand.slug}/pieces/encores`, label: 'Encores' },
  ];
  return (
    <nav aria-label="Views of pieces" className="pieces-nav">
      {views.map(({ href, label }) => (
        <Link key={href} href={href} aria-current={pathname === href ? 'page' : undefined} prefetch={false}>
          {label}
        </Link>
      ))}
    </nav>
  );
}
