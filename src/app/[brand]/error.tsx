'use client';

import Link from 'next/link';
import Button from 'react-bootstrap/Button';
import { useShell } from '@/ui/shell';

/** Says inside the shell that a screen broke, and where to go on. */
export default function ErrorScreen() {
  const { brand } = useShell();
  return (
    <>
      <header className="place-head">
        <h1>This page could not be shown</h1>
      </header>
      <div className="place-body">
        <p>Bimlo had an error of its own. Its log says more. What was saved before is kept.</p>
        <div className="deeds">
          <Button variant="outline" onClick={() => location.reload()}>
            Try again
          </Button>
          <Link className="btn btn-outline" href={`/${brand.slug}/calendar`} prefetch={false}>
            Calendar
          </Link>
        </div>
      </div>
    </>
  );
}
