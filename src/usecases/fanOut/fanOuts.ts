import { quoted } from '@/core/calendar/change';
import { readFanOut, type BrandFanOut, type FanOut } from '@/core/fanOut/fanOut';
import { SHIPPED_FAN_OUTS } from '@/core/fanOut/shipped';
import type { Result } from '@/core/refusal';
import { fanOutKey } from '@/data/brands/settingVersions';
import type { Queryable } from '@/data/database/db';
import { deleteOwnFanOut, listOwnFanOuts, saveOwnFanOut } from '@/data/fanOut/fanOuts';
import { passOverPresent } from '@/data/proposals/proposals';
import { freeSlug } from '../brands/freeSlug';
import { takeSetting } from '../brands/takeSetting';
import { undoably } from '../undo/undoably';
import { mustMay } from '../rights/mustMay';
import { doing, must, notFound, refused, type Work } from '../useCase';

/** Whether a fan-out of that slug ships. */
export const isShipped = (slug: string): boolean => SHIPPED_FAN_OUTS.some((shipped) => shipped.slug === slug);

/** The fan-outs of a brand: the shipped ones, each as the brand set it where it did, then its own. */
export async function listFanOuts(db: Queryable, brandId: string): Promise<BrandFanOut[]> {
  const own = (await listOwnFanOuts(db, brandId)).map((one) => ({
    ...one,
    isOwn: true,
    isShipped: isShipped(one.slug),
  }));
  return [
    ...SHIPPED_FAN_OUTS.map(
      (shipped) =>
        own.find(({ slug }) => slug === shipped.slug) ?? {
          ...shipped,
          ...{ isOwn: false, isShipped: true, isStanding: false },
        },
    ),
    ...own.filter((one) => !one.isShipped),
  ];
}

/** What can be set of a fan-out. */
export type FanOutInput = Pick<FanOut, 'name' | 'for' | 'rows'> & { isStanding: boolean };

/** Sets a fan-out of a brand: a new one, one of its own, or a shipped one as the brand wants it. */
export function setFanOut(
  work: Work,
  brandId: string,
  slug: string | null,
  input: FanOutInput,
): Promise<Result<{ slug: string }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    const read = must(readFanOut(input));
    if (read.isStanding && read.for === null)
      refused({
        code: 'noKind',
        field: 'for',
        message: 'To be drawn up by itself, it has to be for one kind of piece.',
      });
    const own = await listOwnFanOuts(act.tx, brandId);
    const isTaken = async (name: string) => isShipped(name) || own.some((one) => one.slug === name);
    if (slug !== null && !(await isTaken(slug))) refused(notFound('fan-out'));
    const named = slug ?? (await freeSlug(read.name, 'fan-out', isTaken));
    await takeSetting(act, 'fan-out', fanOutKey(brandId, named));
    const other = own.find((one) => one.isStanding && one.for === read.for && one.slug !== named);
    if (read.isStanding && other)
      refused({
        code: 'standsAlready',
        field: 'isStanding',
        message: `“${other.name}” is drawn up for that kind of piece already. Switch it off there first.`,
      });
    await undoably(act, watchedOf(brandId, named, `Set the fan-out ${quoted(read.name)}`), () =>
      saveOwnFanOut(act.tx, brandId, { ...read, slug: named }),
    );
    const wasStanding = own.some((one) => one.slug === named && one.isStanding && one.for === read.for);
    if (read.isStanding && !wasStanding) await passOverPresent(act.tx, brandId, named, act.now);
    await act.note({ brandId, subject: 'brand', subjectId: brandId, deed: 'fan-out set', detail: { of: named } });
    return { slug: named };
  });
}

const watchedOf = (brandId: string, slug: string, label: string) => ({
  ...{ brandId, label, things: [{ name: 'fanOut' as const, id: fanOutKey(brandId, slug) }] },
});

/** Takes a fan-out of a brand away; of a shipped one, what ships holds again. */
export function forgetFanOut(work: Work, brandId: string, slug: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    await takeSetting(act, 'fan-out', fanOutKey(brandId, slug));
    await undoably(act, watchedOf(brandId, slug, 'Took a fan-out away'), async () => {
      if (!(await deleteOwnFanOut(act.tx, brandId, slug))) refused(notFound('fan-out'));
    });
    await act.note({ brandId, subject: 'brand', subjectId: brandId, deed: 'fan-out taken away', detail: { of: slug } });
    return true as const;
  });
}
