'use client';

import { useState } from 'react';
import type { PossibleEncoding } from '@/core/text/decode';
import type { SourceLook } from '@/usecases/extracts/lookAtSource';
import { call, problemOf } from '@/ui/api';

/** What a text is that a piece is to be begun with. */
interface LookedAt {
  look: SourceLook | null;
  /** Ways in which it may be written, where that cannot be told. */
  encodings: readonly PossibleEncoding[];
  /** The one that was chosen. */
  encoding: string | null;
  problem: string | null;
}

const NOTHING: LookedAt = { look: null, encodings: [], encoding: null, problem: null };

/** Has a text read for a brand before there is a piece of it. */
export function useSourceLook(brandId: string) {
  const [looked, setLooked] = useState<LookedAt>(NOTHING);
  const [isReading, setReading] = useState(false);

  async function ask(file: File, encoding: string | null = null): Promise<LookedAt> {
    setReading(true);
    const chosen = encoding === null ? '' : `&encoding=${encodeURIComponent(encoding)}`;
    const path = `/api/pieces/read?brand=${brandId}${chosen}`;
    const answer = await call<SourceLook | { encodings: PossibleEncoding[] }>('POST', path, file);
    setReading(false);
    const found: LookedAt = { ...NOTHING, encoding, problem: problemOf(answer) };
    if (answer.kind === 'done')
      if ('encodings' in answer.value) found.encodings = answer.value.encodings;
      else found.look = answer.value;
    setLooked(found);
    return found;
  }

  return { ...looked, isReading, ask, forget: () => setLooked(NOTHING) };
}
