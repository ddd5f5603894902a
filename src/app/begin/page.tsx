import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { connection } from 'next/server';
import { isEmpty } from '@/usecases/begin/begin';
import { bimlo } from '@/runtime/bimlo';
import { whoAsks } from '../server/who';
import { BeginForm } from './BeginForm';

export const metadata: Metadata = { title: 'A new brand' };

/** The first of four steps to a new brand; in an empty data folder it makes its first person, too. */
export default async function BeginPage() {
  await connection();
  const { db } = await bimlo();
  const isFirst = await isEmpty(db);
  const who = isFirst ? null : await whoAsks(db);
  if (!isFirst && !who) redirect('/who');
  return (
    <main className="begin">
      <BeginForm isFirst={isFirst} mayMake={isFirst || who?.actor.role === 'manager'} />
    </main>
  );
}
