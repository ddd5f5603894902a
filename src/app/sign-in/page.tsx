import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { connection } from 'next/server';
import { bimlo } from '@/runtime/bimlo';
import { isEmpty } from '@/usecases/begin/begin';
import { existsPassword } from '@/usecases/signIn/reading';
import { ownPath } from '../server/path';
import { isDemo, whoAsks } from '../server/who';
import { SignInForm } from './SignInForm';

export const metadata: Metadata = { title: 'Sign in' };

/** Asks for name and password, and goes on to `?to=`, a path of ours. */
export default async function SignInPage({ searchParams }: { searchParams: Promise<{ to?: string | string[] }> }) {
  await connection();
  const app = await bimlo();
  const to = ownPath((await searchParams).to);
  if (isDemo()) redirect('/who');
  if (await isEmpty(app.db)) redirect('/begin');
  if (await whoAsks(app)) redirect(to);
  return <SignInForm to={to} canAnybody={await existsPassword(app.db)} />;
}
