import type { Metadata } from 'next';
import { NotForYou } from '../NotForYou';
import { brandOfPage } from '@/app/server/brand';
import { listRuleSheets, listSettingVersions } from '@/usecases/brands/reading';
import { ChannelSettings } from './ChannelSettings';

export const metadata: Metadata = { title: 'Channels' };

/** The channels of a brand. */
export default async function ChannelsPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, channels, may } = await brandOfPage((await params).brand);
  if (!may('manageBrand')) return <NotForYou deed="manageBrand" />;
  const [sheets, versions] = await Promise.all([
    listRuleSheets(db),
    listSettingVersions(
      db,
      'channel',
      channels.map(({ id }) => id),
    ),
  ]);
  return (
    <ChannelSettings
      channels={channels.map(
        ({ id, name, callSign, color, account, aimDays, leadMinutes, distanceMinutes, ruleSheetId, sheet }) => ({
          id,
          name,
          callSign,
          color,
          account,
          aimDays,
          leadMinutes,
          distanceMinutes,
          ruleSheetId,
          sends: sheet.automatic,
          version: versions.get(id) ?? 0,
        }),
      )}
      sheets={sheets.map(({ id, name }) => ({ id, name }))}
    />
  );
}
