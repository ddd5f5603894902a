import { door } from '@/app/server/door';
import { string } from 'yup';
import { archiveThemeOf, keepCampaign, keepPillar } from '@/usecases/brands/themes';
import { date, fields, id, text } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';

const kind = string()
  .oneOf(['pillars', 'campaigns'] as const, 'Pillars or campaigns?')
  .required();
const saved = fields({
  kind,
  brandId: id('Brand'),
  id: string().uuid().nullable().defined(),
  name: text('Name'),
  color: text('Colour'),
  from: date.optional(),
  to: date.optional(),
});
const archived = fields({ kind, brandId: id('Brand'), id: id('Theme') });

/** Makes or changes a pillar or a campaign. */
export const POST = door('manageBrand', async (request, _context, { work }) => {
  const body = await readBody(request, saved);
  if (!body.ok) return refusal(body.refusal);
  const { kind: table, brandId, id: themeId, name, color, from, to } = body.value;
  return answer(
    table === 'pillars'
      ? await keepPillar(work, brandId, themeId, { name, color })
      : await keepCampaign(work, brandId, themeId, { name, color, from: from ?? null, to: to ?? null }),
  );
});

/** Archives a pillar or a campaign. */
export const DELETE = door('manageBrand', async (request, _context, { work }) => {
  const body = await readBody(request, archived);
  if (!body.ok) return refusal(body.refusal);
  return answer(await archiveThemeOf(work, body.value.brandId, body.value.kind, body.value.id));
});
