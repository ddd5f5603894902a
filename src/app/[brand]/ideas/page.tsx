import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { listIdeas } from '@/usecases/pieces/reading';
import { IdeaList } from './IdeaList';

export const metadata: Metadata = { title: 'Ideas' };

/** Ideas shown at once; older ones come into sight as these are planned or set aside. */
const SHOWN = 300;

/** The ideas of a brand, and those set aside. */
export default async function IdeasPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand, today } = await brandOfPage((await params).brand);
  const [ideas, aside] = await Promise.all([listIdeas(db, [brand.id], SHOWN), listIdeas(db, [brand.id], SHOWN, true)]);
  return <IdeaList ideas={ideas} aside={aside} today={today} />;
}
