import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { brandOfPage } from '@/app/server/brand';
import { isId } from '@/app/server/request';
import { maybePiece } from '@/usecases/pieces/reading';
import { listNames } from '@/usecases/shelf/reading';
import { loadSiblings } from '@/usecases/captions/siblings';
import { SiblingsScreen } from './SiblingsScreen';

export const metadata: Metadata = { title: 'Words of a piece' };

/** The posts of a piece that are being made, their words side by side. */
export default async function WordsPage({ params }: { params: Promise<{ brand: string; piece: string }> }) {
  const { brand: slug, piece: pieceId } = await params;
  const { db, brand } = await brandOfPage(slug);
  const piece = isId(pieceId) ? await maybePiece(db, pieceId) : undefined;
  if (!piece || piece.brandId !== brand.id) notFound();
  const [siblings, names] = await Promise.all([loadSiblings(db, piece.id), listNames(db, brand.id)]);
  return <SiblingsScreen key={piece.id} piece={piece} siblings={siblings} names={names} />;
}
