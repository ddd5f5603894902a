import { cache } from 'react';
import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { brandOfPage } from '@/app/server/brand';
import { loadFresh } from '@/usecases/notices/notices';
import { countDueByHand, countInTrouble, existsOpenRestore } from '@/usecases/delivery/reading';
import { ConnectionBar } from '@/ui/ConnectionBar';
import { FocusKeeper } from '@/ui/FocusKeeper';
import { MessagesProvider } from '@/ui/messages';
import { RestoredBar } from '@/ui/RestoredBar';
import { ShellProvider } from '@/ui/shell';
import { UndoProvider } from '@/ui/undo';
import { DraftSaver } from './DraftSaver';
import { Rail } from './Rail';

/** The title of a page names what is seen, then whose it is; before that how many posts wait for a person. */
export async function generateMetadata({ params }: { params: Promise<{ brand: string }> }): Promise<Metadata> {
  const { brand: slug } = await params;
  const [{ brand }, due, trouble] = await Promise.all([brandOfPage(slug), dueByHand(slug), inTroubleOf(slug)]);
  const lead = due + trouble > 0 ? `(${due + trouble}) ` : '';
  return { title: { template: `${lead}%s – ${brand.name} · Bimlo`, default: `${lead}${brand.name} · Bimlo` } };
}

/** How many posts wait to be posted by hand now; read once per request. */
const dueByHand = cache(async (slug: string): Promise<number> => {
  const { db, brand, now } = await brandOfPage(slug);
  return countDueByHand(db, brand.id, now);
});

/** How many posts were not sent on their day, or need to be looked at; read once per request. */
const inTroubleOf = cache(async (slug: string): Promise<number> => {
  const { db, brand, today } = await brandOfPage(slug);
  return countInTrouble(db, brand.id, today);
});

/** The frame of a brand's screens: the rail on the left, messages, and what was typed and not saved yet. */
export default async function BrandLayout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ brand: string }>;
}) {
  const { brand: slug } = await params;
  const [{ brand, brands, channels, people, pillars, campaigns, me, entry, now, today, db }, due] = await Promise.all([
    brandOfPage(slug),
    dueByHand(slug),
  ]);
  const [isRestored, inTrouble, fresh] = await Promise.all([
    existsOpenRestore(db, brand.id),
    inTroubleOf(slug),
    loadFresh(db, me.id),
  ]);
  return (
    <ShellProvider
      shell={{
        brand,
        brands: brands.map(({ slug, name }) => ({ slug, name })),
        people,
        me,
        entry,
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
        <UndoProvider>
          <DraftSaver />
          <ConnectionBar />
          <FocusKeeper />
          <a className="skip-link" href="#place">
            Skip to the content
          </a>
          <div className="shell">
            <Rail dueByHand={due} inTrouble={inTrouble} fresh={fresh} />
            <main className="place" id="place" tabIndex={-1}>
              {isRestored && <RestoredBar />}
              {children}
            </main>
          </div>
        </UndoProvider>
      </MessagesProvider>
    </ShellProvider>
  );
}
