import type { Metadata } from 'next';
import { brandOfPage } from '@/app/server/brand';
import { ThemeSettings } from './ThemeSettings';

export const metadata: Metadata = { title: 'Pillars and campaigns' };

/** The pillars and campaigns of a brand as bare lists. */
export default async function ThemesPage({ params }: { params: Promise<{ brand: string }> }) {
  const { pillars, campaigns } = await brandOfPage((await params).brand);
  return (
    <div className="two-columns">
      <ThemeSettings
        kind="pillars"
        title="Pillars"
        about="The themes of the brand. A post belongs to one."
        themes={pillars.map(({ id, name, color }) => ({ id, name, color, from: null, to: null }))}
      />
      <ThemeSettings
        kind="campaigns"
        title="Campaigns"
        about="What the brand pushes for a while."
        themes={campaigns.map(({ id, name, color, from, to }) => ({ id, name, color, from, to }))}
      />
    </div>
  );
}
