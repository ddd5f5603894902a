import type { CardFont } from '@/core/cards/compose';

/** Fonts of a brand for its cards, by their content hash. */
export type CardFonts = Partial<Record<CardFont, { sha256: string; bytes: Uint8Array }>>;
