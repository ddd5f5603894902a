import { door } from '@/app/server/door';
import { accept, refuse } from '@/core/refusal';
import { ASSET_KINDS } from '@/core/shelf/shelf';
import { takeFont, takeMedia } from '@/usecases/media/files';
import { dropAsset, keepAsset } from '@/usecases/shelf/shelf';
import { fields, id } from '@/app/server/fields';
import { answer, isId, nothingThere, readAtMost, readBody, refusal } from '@/app/server/request';
import { fileNameOf } from '@/app/server/upload';

const dropped = fields({ brandId: id('Brand'), id: id('Part of the brand sheet') });

/**
 * Puts something on a brand's sheet (`?brand=&kind=&name=&value=`); the body of a logo or portrait is its file, named in
 * `x-file-name`; a font may have one. Answers with the whole sheet.
 */
export const POST = door('keepShelf', async (request, _context, { app, work }) => {
  const query = new URL(request.url).searchParams;
  const brandId = query.get('brand') ?? '';
  const kind = ASSET_KINDS.find((one) => one === query.get('kind'));
  if (!isId(brandId)) return nothingThere('brand');
  if (!kind) return answer(refuse('badKind', 'A brand sheet has colours, fonts, logos and portraits.', 'kind'));
  const fileName = fileNameOf(request);
  const file =
    fileName === null || !request.body
      ? accept(null)
      : kind === 'font'
        ? await takeFontOf(request, app.folder.media, fileName)
        : await takeMedia(app.folder.media, request.body, fileName);
  if (!file.ok) return answer(file);
  const asset = { kind, name: query.get('name') ?? '', value: query.get('value') ?? '' };
  return answer(await keepAsset(work, brandId, asset, file.value));
});

/** Bytes of a font's file, read whole: it is tried before it is kept. */
const FONT_BODY_BYTES = 11_000_000;

async function takeFontOf(request: Request, folder: string, fileName: string) {
  const bytes = await readAtMost(request, FONT_BODY_BYTES);
  return bytes === null
    ? refuse('tooBig', 'That file is larger than Bimlo takes as a font (10 MB).', 'file')
    : takeFont(folder, bytes, fileName);
}

/** Takes something from a brand's sheet; answers with the rest. */
export const DELETE = door('keepShelf', async (request, _context, { work }) => {
  const body = await readBody(request, dropped);
  return body.ok ? answer(await dropAsset(work, body.value.brandId, body.value.id)) : refusal(body.refusal);
});
