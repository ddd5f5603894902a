import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { brandOfPage } from '@/app/server/brand';
import { isId } from '@/app/server/request';
import { listPieceMedia } from '@/usecases/media/reading';
import { listFamily } from '@/usecases/encores/reading';
import { listFanOuts } from '@/usecases/fanOut/fanOuts';
import { loadText } from '@/usecases/extracts/reading';
import { maybePiece } from '@/usecases/pieces/reading';
import { listPostsOfPiece } from '@/usecases/posts/reading';
import { listStepsOf } from '@/usecases/prep/reading';
import { sheetStep, slipsOf } from '@/usecases/posts/loadPosts';
import { loadWritingService } from '@/usecases/writing/service';
import { PieceScreen } from './PieceScreen';

export const metadata: Metadata = { title: 'Piece' };

/** A piece: what it says, and the posts made from it. */
export default async function PiecePage({ params }: { params: Promise<{ brand: string; piece: string }> }) {
  const { brand: slug, piece: id } = await params;
  const { db, brand, channels, today } = await brandOfPage(slug);
  const piece = isId(id) ? await maybePiece(db, id) : undefined;
  if (!piece || piece.deletedAt || piece.brandId !== brand.id) notFound();
  const [posts, steps, reading, fanOuts, family, media, service] = await Promise.all([
    listPostsOfPiece(db, id),
    listStepsOf(db, [id]),
    loadText(db, id),
    listFanOuts(db, brand.id),
    listFamily(db, id),
    listPieceMedia(db, id),
    loadWritingService(db, brand.id),
  ]);
  return (
    <PieceScreen
      key={piece.id}
      piece={piece}
      slips={slipsOf(posts, channels)}
      steps={steps.map(sheetStep)}
      today={today}
      reading={reading}
      fanOuts={fanOuts}
      family={family}
      media={media}
      hasWriter={service !== null}
    />
  );
}
