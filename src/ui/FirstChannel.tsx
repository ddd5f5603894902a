'use client';

import Link from 'next/link';
import { useShell } from './shell';

/** Says that a brand has no channels yet, and leads to where it gets its first; nothing where it has one. */
export function FirstChannel({ whatFor }: { whatFor: string }) {
  const { brand, channels } = useShell();
  if (channels.length > 0) return null;
  return (
    <p className="first-step">
      <b>{brand.name} has no channels yet.</b> {whatFor}{' '}
      <Link className="btn btn-primary btn-sm" href={`/${brand.slug}/begin?step=channels`} prefetch={false}>
        Add the first channel
      </Link>
    </p>
  );
}
