/** A number from 0 up to, not including, 1 that the same words always give (FNV-1a, 32 bits). */
export function chanceOf(seed: number, ...words: readonly (string | number)[]): number {
  let hash = 0x811c9dc5 ^ seed;
  for (const letter of words.join('\u0000')) hash = Math.imul(hash ^ letter.codePointAt(0)!, 0x01000193);
  hash ^= hash >>> 15;
  return (Math.imul(hash, 0x2c1b3c6d) >>> 0) / 2 ** 32;
}

/** One of a list, the same for the same words; undefined of an empty one. */
export const oneOf = <T>(list: readonly T[], seed: number, ...words: readonly (string | number)[]): T | undefined =>
  list[Math.floor(chanceOf(seed, ...words) * list.length)];
