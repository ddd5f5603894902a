'use client';

import Button from 'react-bootstrap/Button';

/** A page that broke while it was made or drawn: the screen below what still stands, or the whole of it. */
export default function ErrorPage() {
  return (
    <main className="place-body">
      <h1>This page could not be shown</h1>
      <p>Bimlo had an error of its own. Its log says more. What was saved before is kept.</p>
      <Button variant="outline" onClick={() => location.reload()}>
        Try again
      </Button>
    </main>
  );
}
