import type { Queryable } from '../database/db';
import { COLUMNS, type Delivery } from './deliveries';

/** All deliveries of a post, the oldest first. */
export function listDeliveriesOfPost(db: Queryable, postId: string): Promise<Delivery[]> {
  return db.rows<Delivery>(`select ${COLUMNS} from deliveries d where d.post_id = $1 order by d.created_at, d.id`, [
    postId,
  ]);
}
