'use client';

import { useEffect } from 'react';
import { useSearchParams } from 'next/navigation';
import { call } from '@/ui/api';
import { dropDraft, listDrafts } from '@/ui/drafts';

/** How often texts that could not be saved are tried again, in milliseconds. */
const TRY_EVERY_MS = 5_000;

/**
 * Saves what was typed on sheets that are not open any more. The open sheet saves its own; a text whose post was changed
 * elsewhere is left for the sheet to show both.
 */
export function DraftSaver() {
  const openPost = useSearchParams().get('post');
  useEffect(() => {
    async function saveAll() {
      for (const { postId, field, text, version } of listDrafts()) {
        if (postId === openPost) continue;
        const answer = await call('PATCH', `/api/posts/${postId}`, { version, [field]: text });
        if (answer.kind === 'unreachable') return;
        if (answer.kind === 'done') dropDraft(postId, field);
      }
    }
    void saveAll();
    const timer = setInterval(() => void saveAll(), TRY_EVERY_MS);
    return () => clearInterval(timer);
  }, [openPost]);
  return null;
}
