import { redirect } from 'next/navigation';
import { connection } from 'next/server';
import { listBrands } from '@/usecases/brands/reading';
import { bimlo } from '@/runtime/bimlo';
import { whoAsks } from './server/who';

/** Opens the calendar of the first brand one works for. */
export default async function Home() {
  await connection();
  const { db } = await bimlo();
  const brands = await listBrands(db);
  const who = await whoAsks(db);
  if (brands.length > 0 && !who) redirect('/who');
  const first = brands.find(({ id }) => who?.actor.brandIds.includes(id));
  if (first) redirect(`/${first.slug}/calendar`);
  return (
    <main className="place-body">
      <h1>Nothing here yet</h1>
      <p>This data folder holds no brand. Start Bimlo with “npm run demo” to look around with made-up data.</p>
    </main>
  );
}
