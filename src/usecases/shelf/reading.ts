/** The shelf as pages read it. Plain queries, handed on as they are. */

export { listNames } from '@/data/shelf/shelf';
