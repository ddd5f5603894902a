import type { Metadata } from 'next';
import { NotForYou } from '../NotForYou';
import { brandOfPage } from '@/app/server/brand';
import { listSettingVersions } from '@/usecases/brands/reading';
import { ThemeSettings } from './ThemeSettings';

export const metadata: Metadata = { title: 'Pillars and campaigns' };

/** The pillars and campaigns of a brand as bare lists. */
export default async function ThemesPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, pillars, campaigns, may } = await brandOfPage((await params).brand);
  if (!may('manageBrand')) return <NotForYou deed="manageBrand" />;
  const [ofPillars, ofCampaigns] = await Promise.all([
    listSettingVersions(
      db,
      'pillar',
      pillars.map(({ id }) => id),
    ),
    listSettingVersions(
      db,
      'campaign',
      campaigns.map(({ id }) => id),
    ),
  ]);
  return (
    <div className="two-columns">
      <ThemeSettings
        kind="pillars"
        title="Pillars"
        about="The themes of the brand. A post belongs to one."
        themes={pillars.map(({ id, name, color }) => ({
          id,
          name,
          color,
          from: null,
          to: null,
          version: ofPillars.get(id) ?? 0,
        }))}
      />
      <ThemeSettings
        kind="campaigns"
        title="Campaigns"
        about="What the brand pushes for a while."
        themes={campaigns.map(({ id, name, color, from, to }) => ({
          id,
          name,
          color,
          from,
          to,
          version: ofCampaigns.get(id) ?? 0,
        }))}
      />
    </div>
  );
}
