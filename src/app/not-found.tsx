import Link from 'next/link';

/** An address that belongs to no brand. */
export default function NotFound() {
  return (
    <main className="place-body">
      <h1>There is no such page</h1>
      <p>The address may be old or incomplete.</p>
      <Link className="btn btn-outline" href="/">
        To the calendar
      </Link>
    </main>
  );
}
