import type { Result } from '@/core/refusal';
import { readServiceAddress } from '@/core/writing/form';
import type { Queryable } from '@/data/database/db';
import { deleteWritingService, maybeWritingService, saveWritingService } from '@/data/writing/writingServices';
import { takeSetting } from '../brands/takeSetting';
import { mustMay } from '../rights/mustMay';
import { undoably } from '../undo/undoably';
import { doing, must, mustFit, refused, type Work } from '../useCase';

/** Characters of a key, at most. */
const KEY_LIMIT = 1_000;

/** The writing service of a brand, for pages: its key is told to nobody. */
export interface ShownService {
  address: string;
  hasKey: boolean;
}

/** The writing service of a brand; null while it has none. */
export async function loadWritingService(db: Queryable, brandId: string): Promise<ShownService | null> {
  const service = await maybeWritingService(db, brandId);
  return service ? { address: service.address, hasKey: service.key !== '' } : null;
}

/**
 * Allows one address as the writing service of a brand.
 *
 * @param key sent with each request; null to keep the one that is there, as long as the address stays the same
 */
export function setWritingService(
  work: Work,
  brandId: string,
  { address: typed, key }: { address: string; key: string | null },
): Promise<Result<true>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    const address = must(readServiceAddress(typed));
    mustFit(key ?? '', KEY_LIMIT, 'Key', 'key');
    if (!/^[\x21-\x7E]*$/.test(key?.trim() ?? ''))
      refused({
        code: 'badKey',
        field: 'key',
        message: 'A key is of letters without accents, digits and signs, without blanks.',
      });
    await takeSetting(act, 'writing service', brandId);
    const present = await maybeWritingService(act.tx, brandId);
    // A key belongs to the address that it was given for.
    const kept = present?.address === address ? present.key : '';
    const label = 'Set the writing service';
    await undoably(act, { brandId, label, final: FINAL }, () =>
      saveWritingService(act.tx, brandId, { address, key: key?.trim() ?? kept }),
    );
    await act.note({ brandId, subject: 'brand', subjectId: brandId, deed: 'writing service set', detail: { address } });
    return true as const;
  });
}

const FINAL = 'It is changed in the settings, where its key is given again.';

/** Switches the writing service of a brand off. */
export function switchWritingServiceOff(work: Work, brandId: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    await takeSetting(act, 'writing service', brandId);
    await undoably(act, { brandId, label: 'Switched the writing service off', final: FINAL }, () =>
      deleteWritingService(act.tx, brandId),
    );
    await act.note({ brandId, subject: 'brand', subjectId: brandId, deed: 'writing service switched off' });
    return true as const;
  });
}
