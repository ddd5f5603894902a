import type { ReactNode } from 'react';
import { brandOfPage } from '@/app/server/brand';
import { MessagesProvider } from '@/ui/messages';
import { ShellProvider } from '@/ui/shell';
import { DraftSaver } from './DraftSaver';
import { Rail } from './Rail';

/** The frame of a brand's screens: the rail on the left, messages, and what was typed and not saved yet. */
export default async function BrandLayout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ brand: string }>;
}) {
  const { brand, brands, channels, people, pillars, campaigns, me, now, today } = await brandOfPage(
    (await params).brand,
  );
  return (
    <ShellProvider
      shell={{
        brand,
        brands: brands.map(({ slug, name }) => ({ slug, name })),
        people,
        me,
        channels: channels.map(({ id, brandId, name, callSign, color, sheet }) => ({
          id,
          brandId,
          name,
          callSign,
          color,
          sheet,
        })),
        pillars: pillars.map(({ id, name, color }) => ({ id, name, color })),
        campaigns: campaigns.map(({ id, name, color }) => ({ id, name, color })),
        now,
        today,
      }}
    >
      <MessagesProvider>
        <DraftSaver />
        <div className="shell">
          <Rail />
          <main className="place">{children}</main>
        </div>
      </MessagesProvider>
    </ShellProvider>
  );
}
