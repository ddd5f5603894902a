import { redirect } from 'next/navigation';
import { connection } from 'next/server';
import { isEmpty } from '@/usecases/begin/begin';
import { listBrands } from '@/usecases/brands/reading';
import { bimlo } from '@/runtime/bimlo';
import { isDemo, whoAsks } from './server/who';

/** Opens the calendar of the first brand one works for; in an empty data folder, the first steps. */
export default async function Home() {
  await connection();
  const app = await bimlo();
  if (await isEmpty(app.db)) redirect('/begin');
  const who = await whoAsks(app);
  if (!who) redirect(isDemo() ? '/who' : '/sign-in');
  const first = (await listBrands(app.db)).find(({ id }) => who.actor.brandIds.includes(id));
  redirect(first ? `/${first.slug}/calendar` : '/begin');
}
