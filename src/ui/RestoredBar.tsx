'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import Alert from 'react-bootstrap/Alert';
import { useShell } from './shell';

/** On every place but Departures, which says more: that nothing is sent by itself since the data folder was restored. */
export function RestoredBar() {
  const { brand } = useShell();
  const departures = `/${brand.slug}/departures`;
  if (usePathname() === departures) return null;
  return (
    <Alert variant="warning" className="notice restored-bar">
      Bimlo’s data was restored, so nothing is sent by itself.{' '}
      <Link href={departures}>See what waits and release it</Link>
    </Alert>
  );
}
