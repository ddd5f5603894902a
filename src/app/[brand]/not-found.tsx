'use client';

import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { useShell } from '@/ui/shell';

/** What was looked for, by the places that have single things; any other address is a page. */
const THINGS: Record<string, string> = { pieces: 'piece', batch: 'batch day' };

/** Says inside the shell what is not there, and where to go on. */
export default function NotFound() {
  const { brand } = useShell();
  const [, , place = '', thing] = usePathname().split('/');
  const what = thing === undefined ? undefined : THINGS[place];
  return (
    <>
      <header className="place-head">
        <h1>{what ? `That ${what} is not there` : 'There is no such page'}</h1>
      </header>
      <div className="place-body">
        <p>
          {what
            ? 'It may have been deleted, or its address is incomplete.'
            : 'The address may be old or incomplete. What you are looking for may be elsewhere: press Ctrl+K to find it.'}
        </p>
        <div className="deeds">
          {what && (
            <Link
              className="btn btn-outline"
              href={`/${brand.slug}/${place === 'batch' ? 'desk' : place}`}
              prefetch={false}
            >
              {place === 'batch' ? 'Desk' : 'All pieces'}
            </Link>
          )}
          <Link className="btn btn-outline" href={`/${brand.slug}/calendar`} prefetch={false}>
            Calendar
          </Link>
        </div>
      </div>
    </>
  );
}
