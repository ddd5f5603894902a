import type { PGlite } from '@electric-sql/pglite';

export function openOnDisk(folder: string): Promise<PGlite>;
