import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { brandOfPage } from '@/app/server/brand';
import { FocusKeeper } from '@/ui/FocusKeeper';
import { MessagesProvider } from '@/ui/messages';
import { ShellProvider } from '@/ui/shell';
import { DraftSaver } from './DraftSaver';
import { Rail } from './Rail';

/** The title of a page names what is seen, then whose it is. */
export async function generateMetadata({ params }: { params: Promise<{ brand: string }> }): Promise<Metadata> {
  const { brand } = await brandOfPage((await params).brand);
  return { title: { template: `%s – ${brand.name} · Bimlo`, default: `${brand.name} · Bimlo` } };
}

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
        <FocusKeeper />
        <a className="skip-link" href="#place">
          Skip to the content
        </a>
        <div className="shell">
          <Rail />
          <main className="place" id="place" tabIndex={-1}>
            {children}
          </main>
        </div>
      </MessagesProvider>
    </ShellProvider>
  );
}
