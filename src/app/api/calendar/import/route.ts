import { door } from '@/app/server/door';
import { mixed, number, object, string, ValidationError } from 'yup';
import { CSV_LIMIT_BYTES } from '@/core/exchange/csvText';
import { readCsvFile } from '@/usecases/exchange/files';
import { COLUMNS } from '@/core/exchange/columns';
import type { ImportMapping } from '@/core/exchange/planImport';
import { ALL_STAGES } from '@/core/stages/stages';
import { refuse, type Result } from '@/core/refusal';
import { bringIn, type ImportFile } from '@/usecases/exchange/importPosts';
import { IMPORT_JOB, SLICE_ROWS, startImport } from '@/usecases/exchange/longImport';
import { previewImport } from '@/usecases/exchange/previewImport';
import { mayRead } from '@/usecases/rights/mustMay';
import { maybeBrandById } from '@/usecases/brands/reading';
import { accepted, answer, isId, nothingThere, refusal } from '@/app/server/request';
import { readUpload } from '@/app/server/upload';

const mapping = object({
  columns: object(Object.fromEntries(COLUMNS.map((column) => [column, number().integer().min(0).optional()])))
    .noUnknown()
    .required(),
  channels: mixed<Record<string, string | null>>().required(),
  stages: mixed<Record<string, string>>()
    .test('stages', 'There is no such stage.', (value) =>
      Object.values(value ?? {}).every((stage) => (ALL_STAGES as readonly string[]).includes(stage)),
    )
    .required(),
  dateOrder: string().oneOf(['ymd', 'dmy', 'mdy']).nullable().defined(),
  past: string().oneOf(['publishedElsewhere', 'setAside']).nullable().defined(),
}).noUnknown();

/**
 * Brings a CSV file of posts in: `file`, `brandId`, and `mapping` as JSON. With `apply` empty it only shows what would come;
 * `apply` is `whole` or `good`. A long file is brought in by a job, and the answer is how that stands: 202 with `running`.
 */
export const POST = door('exchange', async (request, _context, { app, work }) => {
  const upload = await readUpload(request, CSV_LIMIT_BYTES);
  if (!upload.ok) return refusal(upload.refusal);
  const { bytes, fileName, field } = upload.value;
  const brandId = field('brandId');
  if (!isId(brandId) || !(await maybeBrandById(app.db, brandId))) return nothingThere('brand');
  const allowed = await mayRead(work, 'exchange', brandId);
  if (!allowed.ok) return refusal(allowed.refusal);
  const table = await readCsvFile(bytes);
  if (!table.ok) return refusal(table.refusal);
  const tried = readMapping(field('mapping'));
  if (!tried.ok) return refusal(tried.refusal);
  const extent = field('apply');
  if (extent === '')
    return answer(await previewImport(app.db, brandId, app.clock.now(), table.value, fileName, tried.value));
  if (extent !== 'whole' && extent !== 'good')
    return refusal({ code: 'badField', field: 'apply', message: 'Whole, or only the good rows?' });
  if (!tried.value) return refusal({ code: 'badField', field: 'mapping', message: 'The mapping is missing.' });
  const sent: ImportFile = { brandId, table: table.value, fileName, mapping: tried.value, extent };
  if (table.value.rows.length <= SLICE_ROWS) return answer(await bringIn(work, sent));
  const started = await startImport(work, sent);
  if (!started.ok) return refusal(started.refusal);
  await app.jobs.runSoon(IMPORT_JOB);
  return accepted({ running: started.value });
});

function readMapping(text: string): Result<ImportMapping | null> {
  if (text === '') return { ok: true, value: null };
  try {
    return { ok: true, value: mapping.validateSync(JSON.parse(text), { strict: true }) as ImportMapping };
  } catch (error) {
    if (error instanceof ValidationError) return refuse('badField', error.message, `mapping.${error.path ?? ''}`);
    if (error instanceof SyntaxError) return refuse('badField', 'The mapping is not JSON.', 'mapping');
    throw error;
  }
}
