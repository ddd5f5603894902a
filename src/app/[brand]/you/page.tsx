import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { brandOfPage } from '@/app/server/brand';
import { isDemo, whoAsks } from '@/app/server/who';
import { maybePasswordHash, signInsOf } from '@/usecases/signIn/reading';
import { YouScreen } from './YouScreen';

export const metadata: Metadata = { title: 'You' };

/** What is one’s own: the password, and where one is signed in. */
export default async function YouPage({ params }: { params: Promise<{ brand: string }> }) {
  const { app, db, me, now } = await brandOfPage((await params).brand);
  const who = isDemo() ? null : await whoAsks(app);
  if (!who) notFound();
  const [hash, signIns] = await Promise.all([maybePasswordHash(db, me.id), signInsOf(db, me.id, now)]);
  return (
    <YouScreen
      signInName={me.slug}
      hasPassword={hash !== null}
      signIns={signIns.map(({ id, begunAt, lastAt, address, agent }) => ({
        ...{ id, begunAt, lastAt, address, agent },
        isThis: id === who.signInId,
      }))}
    />
  );
}
