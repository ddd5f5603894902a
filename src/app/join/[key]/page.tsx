import type { Metadata } from 'next';
import { connection } from 'next/server';
import { bimlo } from '@/runtime/bimlo';
import { lookAtEntryLink } from '@/usecases/signIn/entry';
import { JoinForm } from './JoinForm';

export const metadata: Metadata = { title: 'Your password' };

/** Where a link of an invitation, or for a new password, leads. */
export default async function JoinPage({ params }: { params: Promise<{ key: string }> }) {
  await connection();
  const { db, clock } = await bimlo();
  const { key } = await params;
  const link = await lookAtEntryLink(db, key, clock.now());
  return (
    <main className="place-body who-page">
      <p className="begin-mark">Bimlo</p>
      {link ? (
        <JoinForm linkKey={key} name={link.name} signInName={link.slug} isInvitation={link.purpose === 'invitation'} />
      ) : (
        <>
          <h1>This link holds no longer</h1>
          <p>It was used already, or is too old, or another was made since. Ask a manager for a new one.</p>
        </>
      )}
    </main>
  );
}
