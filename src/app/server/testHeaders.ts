/** What stands in for Next's `next/headers` in unit tests: the cookies of the request that is being answered. */
export const cookieJar = new Map<string, string>();

/** The cookies, as far as Bimlo reads and sets them. */
export async function cookies() {
  return {
    get: (name: string) => (cookieJar.has(name) ? { value: cookieJar.get(name)! } : undefined),
    set: (name: string, value: string) => void cookieJar.set(name, value),
  };
}
