import { redirect } from 'next/navigation';
import { connection } from 'next/server';
import { listBrands } from '@/data/brands';
import { bimlo } from '@/runtime/bimlo';

/** Opens the calendar of the first brand. */
export default async function Home() {
  await connection();
  const { db } = await bimlo();
  const first = (await listBrands(db))[0];
  if (first) redirect(`/${first.slug}/calendar`);
  return (
    <main className="place-body">
      <h1>Nothing here yet</h1>
      <p>This data folder holds no brand. Start Bimlo with “npm run demo” to look around with made-up data.</p>
    </main>
  );
}
