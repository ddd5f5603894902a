import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { COVERAGE_BY, COVERAGE_ORDERS, type CoverageBy, type CoverageOrder } from '@/core/coverage/coverage';
import { loadCoverage } from '@/usecases/coverage/loadCoverage';
import { CoverageScreen } from './CoverageScreen';

export const metadata: Metadata = { title: 'Pieces' };

const oneOf = <T extends string>(known: readonly T[], given: string | string[] | undefined): T =>
  known.find((value) => value === given) ?? known[0]!;

/** What a brand has said or is about to say: its pieces, and where each was used. */
export default async function PiecesPage({
  params,
  searchParams,
}: {
  params: Promise<{ brand: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { db, brand } = await brandOfPage((await params).brand);
  const asked = await searchParams;
  const order = oneOf<CoverageOrder>(COVERAGE_ORDERS, asked.order);
  const by = oneOf<CoverageBy>(COVERAGE_BY, asked.by);
  const after = typeof asked.after === 'string' ? asked.after : null;
  const coverage = await loadCoverage(db, brand.id, { order, by, after });
  return <CoverageScreen coverage={coverage} order={order} by={by} isFirst={after === null} />;
}
