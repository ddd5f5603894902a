export { readCsvFile } from '@/data/pool/readFiles';
