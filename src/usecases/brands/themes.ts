import { readHex } from '@/core/brands/colours';
import { quoted } from '@/core/calendar/change';
import { readTitle } from '@/core/pieces/piece';
import type { Result } from '@/core/refusal';
import { readDate, type LocalDate } from '@/core/time/plan';
import { databaseError, SQLSTATE } from '@/data/database/db';
import { archiveTheme, existsTheme, saveCampaign, savePillar } from '@/data/brands/themes';
import { mustMay } from '../rights/mustMay';
import { undoably } from '../undo/undoably';
import { takeSetting } from './takeSetting';
import { attempt, doing, must, notFound, refused, type Doing, type Work } from '../useCase';

/** Makes or changes a pillar. */
export function keepPillar(
  work: Work,
  brandId: string,
  id: string | null,
  input: { name: string; color: string },
): Promise<Result<{ id: string }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    const pillar = {
      id: id ?? act.ids(),
      brandId,
      name: must(readTitle(input.name, 'name')),
      color: must(readHex(input.color)),
    };
    if (id !== null) await takeTheme(act, 'pillars', brandId, id);
    const label = `${id === null ? 'Made' : 'Changed'} the pillar ${quoted(pillar.name)}`;
    await undoably(act, { brandId, label, things: [{ name: 'pillar', id: pillar.id }] }, async () => {
      must(await attempt(() => tellSameName(pillar.name, () => savePillar(act.tx, pillar))));
    });
    return { id: pillar.id };
  });
}

/** Makes or changes a campaign. */
export function keepCampaign(
  work: Work,
  brandId: string,
  id: string | null,
  input: { name: string; color: string; from: LocalDate | null; to: LocalDate | null },
): Promise<Result<{ id: string }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    for (const [field, date] of [
      ['from', input.from],
      ['to', input.to],
    ] as const)
      if (date !== null) must(readDate(date, field));
    if (input.from && input.to && input.to < input.from)
      refused({ code: 'backwards', field: 'to', message: 'The campaign ends before it begins.' });
    const { from, to } = input;
    const campaign = {
      id: id ?? act.ids(),
      brandId,
      name: must(readTitle(input.name, 'name')),
      color: must(readHex(input.color)),
      from,
      to,
    };
    if (id !== null) await takeTheme(act, 'campaigns', brandId, id);
    const label = `${id === null ? 'Made' : 'Changed'} the campaign ${quoted(campaign.name)}`;
    await undoably(act, { brandId, label, things: [{ name: 'campaign', id: campaign.id }] }, async () => {
      must(await attempt(() => tellSameName(campaign.name, () => saveCampaign(act.tx, campaign))));
    });
    return { id: campaign.id };
  });
}

const ONE = { pillars: 'pillar', campaigns: 'campaign' } as const;

/** Takes a pillar or campaign of that brand to be changed; another brand's is not touched, nor its version. */
async function takeTheme(act: Doing, table: keyof typeof ONE, brandId: string, id: string): Promise<void> {
  if (!(await existsTheme(act.tx, table, brandId, id))) refused(notFound(ONE[table]));
  await takeSetting(act, ONE[table], id);
}

async function tellSameName<T>(name: string, write: () => Promise<T>): Promise<T> {
  try {
    return await write();
  } catch (error) {
    if (databaseError(error)?.code !== SQLSTATE.uniqueViolation) throw error;
    return refused({ code: 'sameName', field: 'name', message: `“${name}” is there already. Take another name.` });
  }
}

/** Archives a pillar or campaign: posts keep it, it is offered no more. */
export function archiveThemeOf(
  work: Work,
  brandId: string,
  table: 'pillars' | 'campaigns',
  id: string,
): Promise<Result<true>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    const name = ONE[table];
    await undoably(act, { brandId, label: `Archived a ${name}`, things: [{ name, id }] }, async () => {
      if (!(await archiveTheme(act.tx, table, brandId, id, act.now))) refused(notFound(name));
    });
    return true as const;
  });
}
