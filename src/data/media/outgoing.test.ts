import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { NotFitToLeave } from '@/core/delivery/network';
import { LostFileError } from './mediaPaths';
import { originalFrom, outgoingFrom } from './outgoing';

it('a picture or video whose file is lost is told from whatever else goes wrong', async () => {
  const folder = await mkdtemp(join(tmpdir(), 'bimlo-out-'));
  const sha256 = 'a'.repeat(64);
  const video = { sha256, mime: 'video/mp4', alt: '', fileName: 'ring.mp4', bytes: 9, durationMs: 1000 };
  await expect(originalFrom(folder, sha256)).rejects.toBeInstanceOf(LostFileError);
  await expect(outgoingFrom(folder)(video)).rejects.toBeInstanceOf(NotFitToLeave);
  await rm(folder, { recursive: true });
});
