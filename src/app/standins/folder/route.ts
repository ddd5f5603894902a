import { openDoor } from '@/app/server/door';
import { done, nothingThere } from '@/app/server/request';
import { closeBimlo } from '@/runtime/bimlo';
import { isMovable } from '@/runtime/clock';

/**
 * Closes the data folder, so that another can be put in its place, which the next request opens. Where the clock runs there is no such
 * address.
 */
export const DELETE = openDoor(async (_request, _context, { app }) => {
  if (!isMovable(app.clock)) return nothingThere('address');
  const answer = await done({});
  await closeBimlo();
  return answer;
});
