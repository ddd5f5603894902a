import { string } from 'yup';
import { PIECE_KINDS } from '@/core/pieces/kinds';
import { ABOUT_FIELDS, pieceText } from '@/core/pieces/texts';
import { door } from '@/app/server/door';
import { catchIdea } from '@/usecases/pieces/pieces';
import { fields, id, ids, maybeText, text } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';

const schema = fields({
  brandId: id('Brand'),
  ...Object.fromEntries(ABOUT_FIELDS.map((name) => [name, maybeText(pieceText(name).label)])),
  title: text('Title'),
  channelIds: ids('Channels').optional(),
  kind: string()
    .oneOf([...PIECE_KINDS], 'A piece is of one of the kinds of the list.')
    .optional(),
});

/** Catches an idea. */
export const POST = door('catchIdeas', async (request, _context, { work }) => {
  const body = await readBody(request, schema);
  return body.ok ? answer(await catchIdea(work, body.value)) : refusal(body.refusal);
});
