export { readReached } from '@/data/database/asOf';
