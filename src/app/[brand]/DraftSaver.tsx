'use client';

import { useEffect } from 'react';
import { call } from '@/ui/api';
import { dropDraft, editOf, isClaimed, listDrafts } from '@/ui/drafts';

/** How often texts that could not be saved are tried again, in milliseconds. */
const TRY_EVERY_MS = 5_000;

/**
 * Saves what was typed on sheets and pieces that are not open any more. Those on screen save their own; a text whose post
 * or piece was changed elsewhere is left for its editor to show both.
 */
export function DraftSaver() {
  useEffect(() => {
    const refused = new Set<string>();
    async function saveAll() {
      for (const { at, field, text, version } of listDrafts()) {
        const said = `${at} ${field} ${version} ${text}`;
        if (isClaimed(at) || refused.has(said)) continue;
        const answer = await call('PATCH', at, { version, ...editOf({ [field]: text }) });
        if (answer.kind === 'unreachable') return;
        if (answer.kind === 'done') dropDraft(at, field);
        // It is kept for its editor to show; asked again it would be refused again.
        else refused.add(said);
      }
    }
    void saveAll();
    const timer = setInterval(() => void saveAll(), TRY_EVERY_MS);
    return () => clearInterval(timer);
  }, []);
  return null;
}
