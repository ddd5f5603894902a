import { string } from 'yup';
import { fields } from '@/app/server/fields';
import { door } from '@/app/server/door';
import { fileNameOf } from '@/app/server/upload';
import { done, isId, nothingThere, readAtMost, readBody, refusal } from '@/app/server/request';
import { READ_AS, type ReadAs } from '@/core/reading/readAs';
import { SETTLE_CORRECTIONS_JOB } from '@/usecases/corrections/settleCorrections';
import { DRAW_UP_JOB } from '@/usecases/proposals/drawUp';
import { bringSource, readSourceFile, SOURCE_LIMIT_BYTES, SOURCE_TOO_BIG } from '@/usecases/extracts/bringSource';
import { readOtherwise, type OtherReading } from '@/usecases/extracts/readOtherwise';
import { answerPiece } from '../../answer';

const NO_VERSION = { code: 'noVersion', message: 'Say which version of the piece this replaces the text of.' };

/**
 * Makes a file, named in `x-file-name`, the source text of a piece, at the version of the piece that `If-Match` names. Where it
 * cannot be told how the file is written, nothing is done, and the encodings it may have are answered: `?encoding=` chooses one.
 */
export const POST = door<{ id: string }>('changePieces', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  if (work.seen === undefined) return refusal(NO_VERSION);
  const bytes = await readAtMost(request, SOURCE_LIMIT_BYTES);
  if (bytes === null) return refusal(SOURCE_TOO_BIG);
  const encoding = new URL(request.url).searchParams.get('encoding');
  const file = await readSourceFile(bytes, fileNameOf(request) ?? '', encoding);
  if ('encodings' in file) return done(file);
  if (!file.read.ok) return refusal(file.read.refusal);
  const brought = await bringSource(work, id, work.seen, file.read.value);
  if (brought.ok) {
    await app.jobs.runSoon(DRAW_UP_JOB);
    await app.jobs.runSoon(SETTLE_CORRECTIONS_JOB);
  }
  return answerPiece(app, id, brought);
});

const name = string().max(80);
const otherReading = fields({ as: string<ReadAs>().oneOf(READ_AS), takeIn: name, leaveOut: name }).test(
  'one',
  'Say one thing that is to be read otherwise.',
  (said) => Object.keys(said).length === 1,
);

/** Reads the text of a piece otherwise, at the version of the piece that `If-Match` names. */
export const PATCH = door<{ id: string }>('changePieces', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  if (work.seen === undefined) return refusal(NO_VERSION);
  const body = await readBody(request, otherReading);
  if (!body.ok) return refusal(body.refusal);
  return answerPiece(app, id, await readOtherwise(work, id, work.seen, body.value as OtherReading));
});
