/** Wrong passwords that are answered at once: for a name, and from an address. */
export const WRONG_AT_ONCE = { name: 10, address: 30 } as const;

/**
 * The longest that is waited after a wrong password, in milliseconds.
 *
 * @internal
 */
export const LONGEST_WAIT_MS = 15 * 60_000;

/** How long after the last wrong password the count begins anew, in milliseconds. */
export const FORGOTTEN_AFTER_MS = 24 * 60 * 60_000;

/**
 * How long has to be waited after the last of so many wrong passwords, in milliseconds: nothing at first, then one second, and
 * twice as long each time.
 *
 * @param wrong how many there were, 0 or more
 * @param atOnce how many of them are answered at once
 * @example waitAfterMs(9, 10) // 0
 * @example waitAfterMs(10, 10) // 1_000
 * @example waitAfterMs(13, 10) // 8_000
 */
export function waitAfterMs(wrong: number, atOnce: number): number {
  if (wrong < atOnce) return 0;
  return Math.min(LONGEST_WAIT_MS, 1_000 * 2 ** (wrong - atOnce));
}

/** A time to wait, in words. */
export function waitWords(ms: number): string {
  const seconds = Math.ceil(ms / 1_000);
  if (seconds < 60) return seconds === 1 ? '1 second' : `${seconds} seconds`;
  const minutes = Math.ceil(seconds / 60);
  return minutes === 1 ? '1 minute' : `${minutes} minutes`;
}
