'use client';

import { Dialog } from '@/ui/Dialog';
import { LibraryGrid } from '../library/LibraryGrid';

/** The brand's library, to take a picture or video for a post from. */
export function LibraryDialog({ onPick, onClose }: { onPick: (sha256: string) => void; onClose: () => void }) {
  return (
    <Dialog title="From the library" onClose={onClose} size="xl">
      <LibraryGrid first={null} onPick={onPick} />
    </Dialog>
  );
}
