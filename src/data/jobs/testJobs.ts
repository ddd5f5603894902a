import type { Queryable } from '../database/db';
import { COLUMNS, type Job } from './jobs';

/** All jobs, as they stand. */
export function listJobs(db: Queryable): Promise<Job[]> {
  return db.rows<Job>(`select ${COLUMNS} from jobs j order by j.kind, j.subject`);
}
