import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { AUDIT_PAGE_LINES, loadAudit } from '@/usecases/signIn/loadAudit';
import { NotForYou } from '../NotForYou';
import { AuditList } from './AuditList';

export const metadata: Metadata = { title: 'Audit list' };

/** Who signed in, was invited, exported and got another role; `?before=` the line with that number. */
export default async function AuditPage({
  params,
  searchParams,
}: {
  params: Promise<{ brand: string }>;
  searchParams: Promise<{ before?: string | string[] }>;
}) {
  const { db, brands, may } = await brandOfPage((await params).brand);
  if (!may('manageHouse')) return <NotForYou deed="manageHouse" />;
  const { before } = await searchParams;
  const lines = await loadAudit(
    db,
    brands.map(({ id }) => id),
    typeof before === 'string' ? before : null,
  );
  return <AuditList lines={lines} next={lines.length === AUDIT_PAGE_LINES ? lines.at(-1)!.id : null} />;
}
