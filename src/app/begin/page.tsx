import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { connection } from 'next/server';
import { isEmpty } from '@/usecases/begin/begin';
import { bimlo } from '@/runtime/bimlo';
import { isOnlyHere } from '../server/reach';
import { isDemo, whoAsks } from '../server/who';
import { BeginForm } from './BeginForm';

export const metadata: Metadata = { title: 'A new brand' };

/** The first of four steps to a new brand; in an empty data folder it makes its first person, too. */
export default async function BeginPage() {
  await connection();
  const app = await bimlo();
  const isFirst = await isEmpty(app.db);
  const who = isFirst ? null : await whoAsks(app);
  if (!isFirst && !who) redirect(isDemo() ? '/who' : '/sign-in');
  return (
    <main className="begin">
      <BeginForm isFirst={isFirst} isOnlyHere={isOnlyHere()} mayMake={isFirst || who?.actor.role === 'manager'} />
    </main>
  );
}
