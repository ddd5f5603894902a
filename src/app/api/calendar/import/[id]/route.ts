import { door } from '@/app/server/door';
import { answer, isId, nothingThere } from '@/app/server/request';
import { readImport, stopImport } from '@/usecases/exchange/longImport';

type Params = { id: string };

/** How a long import stands. */
export const GET = door<Params>('exchange', async (_request, { params }, { work }) => {
  const { id } = await params;
  return isId(id) ? answer(await readImport(work, id)) : nothingThere('import');
});

/** Ends a long import after the rows it is at: what is in stays. */
export const DELETE = door<Params>('exchange', async (_request, { params }, { work }) => {
  const { id } = await params;
  return isId(id) ? answer(await stopImport(work, id)) : nothingThere('import');
});
