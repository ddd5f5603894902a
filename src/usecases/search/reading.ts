/** Searching, as routes ask for it. Plain queries, handed on as they are. */

export { type Found, findByWords } from '@/data/search/find';
