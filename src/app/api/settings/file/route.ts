import { door } from '@/app/server/door';
import { BRAND_FILE_LIMIT_BYTES, readBrandFileText } from '@/app/server/brandFileFields';
import { answer, askedFor, isId, nothingThere, refusal } from '@/app/server/request';
import { readUpload } from '@/app/server/upload';
import { maybeBrandById, maybeBrandBySlug } from '@/usecases/brands/reading';
import { bringBrandFile, previewBrandFile, readBrandFile } from '@/usecases/exchange/brandFile';
import { noteExchange } from '@/usecases/exchange/noteExchange';

/** The settings of `?brand=` as one JSON file. */
export const GET = door('manageBrand', async (request, _context, { app, work }) => {
  const brand = await maybeBrandBySlug(app.db, askedFor(request, 'brand'));
  if (!brand) return nothingThere('brand');
  const file = await readBrandFile(work, brand.id);
  if (!file.ok) return refusal(file.refusal);
  const name = `${brand.slug}-settings-${app.clock.now().slice(0, 10)}.json`;
  await noteExchange(app.db, work, 'exported', brand.id, name);
  return new Response(`${JSON.stringify(file.value, null, 2)}\n`, {
    headers: {
      'content-type': 'application/json; charset=utf-8',
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    },
  });
});

/** Brings a JSON file of settings in: `file` and `brandId`. With `apply` empty it only shows what would come. */
export const POST = door('manageBrand', async (request, _context, { app, work }) => {
  const upload = await readUpload(request, BRAND_FILE_LIMIT_BYTES);
  if (!upload.ok) return refusal(upload.refusal);
  const { bytes, fileName, field } = upload.value;
  const brandId = field('brandId');
  if (!isId(brandId) || !(await maybeBrandById(app.db, brandId))) return nothingThere('brand');
  const file = readBrandFileText(new TextDecoder().decode(bytes));
  if (!file.ok) return refusal(file.refusal);
  if (field('apply') === '') return answer(await previewBrandFile(work, brandId, file.value));
  const told = await bringBrandFile(work, brandId, file.value);
  if (told.ok) await noteExchange(app.db, work, 'imported', brandId, fileName);
  return answer(told);
});
