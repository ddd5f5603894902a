'use client';

import Modal from 'react-bootstrap/Modal';
import { LibraryGrid } from '../library/LibraryGrid';

/** The brand's library, to take a picture or video for a post from. */
export function LibraryDialog({ onPick, onClose }: { onPick: (sha256: string) => void; onClose: () => void }) {
  return (
    <Modal show onHide={onClose} animation={false} size="xl" scrollable aria-label="From the library">
      <Modal.Header closeButton>
        <Modal.Title as="h2">From the library</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <LibraryGrid first={null} onPick={onPick} />
      </Modal.Body>
    </Modal>
  );
}
