import type { ReactNode } from 'react';
import { brandOfPage } from '@/app/server/brand';
import { LeaveGuard } from '@/ui/LeaveGuard';
import { SettingsNav } from './SettingsNav';

/** The settings of a brand: one page for each subject. */
export default async function SettingsLayout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ brand: string }>;
}) {
  const { brand } = await brandOfPage((await params).brand);
  return (
    <>
      <header className="place-head">
        <h1>Settings</h1>
        <span className="soft">{brand.name}</span>
      </header>
      <SettingsNav slug={brand.slug} />
      <LeaveGuard>
        <div className="place-body settings">{children}</div>
      </LeaveGuard>
    </>
  );
}
