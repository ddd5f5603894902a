import type { PGliteOptions } from '@electric-sql/pglite';

export const PARSERS: PGliteOptions['parsers'];
