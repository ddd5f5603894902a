import { existsUseOfFile } from '@/data/media/library';
import { refused, type Acting } from '../useCase';

/** Refuses to take a file from its library while a post or piece uses it. */
export async function mustBeUnused({ tx }: Pick<Acting, 'tx'>, brandId: string, sha256: string): Promise<void> {
  if (await existsUseOfFile(tx, brandId, sha256))
    refused({ code: 'inUse', message: 'A post uses this file. Take it from the post first.' });
}
