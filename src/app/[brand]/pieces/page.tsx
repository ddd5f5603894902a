import type { Metadata } from 'next';
import Link from 'next/link';
import { brandOfPage } from '@/app/server/brand';
import { noWork, progressOf } from '@/core/prep/progress';
import { listPieces } from '@/usecases/pieces/reading';
import { countWorkOfPieces } from '@/usecases/prep/reading';
import { Progress, progressWords } from '@/ui/Progress';
import Table from 'react-bootstrap/Table';
import { TermHint } from '@/ui/TermHint';

export const metadata: Metadata = { title: 'Pieces' };

/** Pieces shown at once, newest first. */
const SHOWN = 300;

/** What a brand has said or is about to say: its pieces with their posts. */
export default async function PiecesPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand } = await brandOfPage((await params).brand);
  const listed = await listPieces(db, brand.id, SHOWN);
  const work = await countWorkOfPieces(
    db,
    listed.map(({ id }) => id),
  );
  const pieces = listed.map((piece) => ({ ...piece, work: work.get(piece.id) ?? noWork() }));
  return (
    <>
      <header className="place-head">
        <h1>
          <TermHint term="piece">Pieces</TermHint>
        </h1>
        <span className="soft">
          {pieces.length === SHOWN ? `the newest ${SHOWN}` : `${pieces.length}, newest first`}
        </span>
      </header>
      <div className="place-body">
        {pieces.length === 0 ? (
          <div className="empty">
            <h2>No pieces yet</h2>
            <p>An idea becomes a piece when it gets a post or a text of its own.</p>
          </div>
        ) : (
          <Table bsPrefix="timetable">
            <thead>
              <tr>
                <th scope="col">Piece</th>
                <th scope="col">Posts</th>
                <th scope="col">Work on those to come</th>
              </tr>
            </thead>
            <tbody>
              {pieces.map((piece) => (
                <tr key={piece.id}>
                  <td>
                    <Link href={`/${brand.slug}/pieces/${piece.id}`} prefetch={false}>
                      {piece.title}
                    </Link>
                    {piece.note && <div className="soft small-text clip">{piece.note}</div>}
                  </td>
                  <td className="figures">{piece.livePosts}</td>
                  <td className="piece-progress">
                    <Progress progress={progressOf(piece.work)} />
                    <span className="soft small-text">{progressWords(progressOf(piece.work))}</span>
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        )}
      </div>
    </>
  );
}
