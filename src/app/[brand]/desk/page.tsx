import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { addDays } from '@/core/time/days';
import { loadHold } from '@/usecases/delivery/holdAll';
import { listBatchDays } from '@/usecases/prep/reading';
import { loadProposals } from '@/usecases/proposals/proposals';
import { loadDesk } from '@/usecases/desk/loadDesk';
import { loadDeskSteps } from '@/usecases/desk/loadDeskSteps';
import { DeskScreen } from './DeskScreen';

/** Days ahead that batch days are listed. */
const BATCH_AHEAD_DAYS = 28;

export const metadata: Metadata = { title: 'Desk' };

/** The desk of the person one is, or of `?of=`: their steps, what leaves, what is not ready though near, and the gaps ahead. */
export default async function DeskPage({
  params,
  searchParams,
}: {
  params: Promise<{ brand: string }>;
  searchParams: Promise<{ of?: string }>;
}) {
  const { db, brand, channels, people, me, today, now, may } = await brandOfPage((await params).brand);
  const { of } = await searchParams;
  const person = (may('lookAtOthersDesk') && people.find(({ slug }) => slug === of)) || me;
  const [desk, steps, batchDays, proposals, hold] = await Promise.all([
    loadDesk(db, brand, channels, now),
    loadDeskSteps(db, person, brand.id, today),
    listBatchDays(db, [brand.id], today, addDays(today, BATCH_AHEAD_DAYS)),
    loadProposals(db, person.id, brand.id, now),
    loadHold(db, brand.id, now),
  ]);
  return (
    <DeskScreen
      desk={desk}
      steps={steps}
      batchDays={batchDays}
      proposals={proposals}
      personId={person.id}
      today={today}
      hold={hold}
      aims={Object.fromEntries(channels.map(({ id, aimDays }) => [id, aimDays]))}
    />
  );
}
