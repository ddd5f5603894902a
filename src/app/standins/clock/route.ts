import { openDoor } from '@/app/server/door';
import { string } from 'yup';
import type { Instant } from '@/core/time/plan';
import { isMovable } from '@/runtime/clock';
import { log } from '@/runtime/log';
import { fields } from '@/app/server/fields';
import { done, nothingThere, readBody, refusal } from '@/app/server/request';

const schema = fields({ now: string().required('now is missing.') });

/** Moves a clock that stands still (`BIMLO_NOW`) delivers what became due and runs the jobs whose time came. Where the clock runs there is no such address. */
export const POST = openDoor(async (request, _context, { app }) => {
  const { clock, worker, jobs } = app;
  if (!isMovable(clock)) return nothingThere('address');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const at = Date.parse(body.value.now);
  if (Number.isNaN(at))
    return refusal({
      code: 'badInstant',
      field: 'now',
      message: 'now is no instant. Write it like 2026-11-23T14:30:00Z.',
    });
  clock.moveTo(new Date(at).toISOString());
  await moveNetworks(app.networkUrl, clock.now());
  await worker.look();
  await worker.idle();
  await jobs.look();
  return done({ now: clock.now() });
});

/** Moves the clock of the made-up networks too, if they are there and theirs stands still. */
async function moveNetworks(url: string, now: Instant): Promise<void> {
  const moved = fetch(`${url}/clock`, { method: 'PUT', body: JSON.stringify({ now }) });
  await moved.catch((error: unknown) => log.warn({ err: error }, 'the clock of the networks was not moved'));
}
