import type { Queryable } from '@/data/database/db';
import { writeAudit } from '@/data/signIn/audit';
import type { Clock } from '@/core/clock';

/** Notes on the audit list that somebody took a file out of a brand, or brought one in. */
export const noteExchange = (
  db: Queryable,
  { clock, actorId }: { clock: Clock; actorId: string },
  kind: 'exported' | 'imported',
  brandId: string,
  fileName: string,
): Promise<void> => writeAudit(db, { at: clock.now(), kind, actorId, brandId, detail: fileName });
