import { NotFitToLeave, type ReadPicture } from '@/core/delivery/network';
import { measuresOf } from '@/core/delivery/parcel';
import { blocksOf } from '@/core/posts/readiness';
import type { Channel } from '@/data/brands/channels';
import type { Delivery } from '@/data/delivery/deliveries';
import { blocksOfCopy } from '../posts/checkWrites';

/** Why a copy must not leave as its channel and rules are by now, as a sentence; null when it may. */
export function whyHeld({ parcel }: Pick<Delivery, 'parcel'>, channel: Channel): string | null {
  const { sheet, name, archived } = channel;
  if (archived) return `${name} is archived.`;
  if (sheet.slug !== parcel.network)
    return `${name} goes by the rule sheet of ${sheet.name} now, and this was scheduled for another network. Schedule it again.`;
  if (!sheet.automatic)
    return `Posts on ${sheet.name} are posted by hand now. Schedule it again, then post it by hand.`;
  return blocksOfCopy({ parcel }, channel)[0]?.message ?? null;
}

/**
 * Reads pictures as they leave, and holds each as it really is against the rules of its channel: what is checked is what
 * is sent.
 *
 * @throws NotFitToLeave when one is not what the network takes
 */
export function checkedPictures(
  { parcel }: Pick<Delivery, 'parcel'>,
  { sheet }: Channel,
  readPicture: ReadPicture,
): ReadPicture {
  const pictures = parcel.pictures.map(measuresOf);
  return async (stored) => {
    const made = await readPicture(stored);
    const place = parcel.pictures.indexOf(stored);
    if (place >= 0) pictures[place] = { ...measuresOf(made.picture), id: pictures[place]!.id };
    const [block] = blocksOf({ ...parcel.words, format: parcel.format, pictures }, sheet).filter(
      ({ field }) => field === 'pictures',
    );
    if (block) throw new NotFitToLeave(block.message);
    return made;
  };
}
