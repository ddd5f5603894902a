/** How far the database has got, for answers to say so. */
export { readReached } from '@/data/database/asOf';
