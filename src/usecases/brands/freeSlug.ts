import { slugOf } from '@/core/text/slug';

/** A short name for addresses, made from a name: the first that is not taken of `name`, `name-2`, `name-3` … */
export async function freeSlug(
  name: string,
  usual: string,
  isTaken: (slug: string) => Promise<boolean>,
): Promise<string> {
  const plain = slugOf(name) || usual;
  for (let number = 1; ; number++) {
    const slug = number === 1 ? plain : `${plain}-${number}`;
    if (!(await isTaken(slug))) return slug;
  }
}
