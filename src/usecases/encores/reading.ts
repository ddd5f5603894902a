/** Encores as pages read them. Plain queries, handed on as they are. */

export { listFamily } from '@/data/encores/encores';
