/** What stands in for Next's `next/headers` in unit tests: the cookies of the request that is being answered. */
export const cookieJar = new Map<string, string>();

/** How cookies were set, by name. */
export const cookieOptions = new Map<string, object>();

/** The cookies, as far as Bimlo and what seals them read and set them. */
export async function cookies() {
  return {
    get: (name: string) => (cookieJar.has(name) ? { name, value: cookieJar.get(name)! } : undefined),
    set: (name: string, value: string, options: { maxAge?: number } = {}) => {
      cookieOptions.set(name, options);
      if (options.maxAge === 0) cookieJar.delete(name);
      else cookieJar.set(name, value);
    },
  };
}

/** The headers of the request; none is told to pages in unit tests. */
export const headers = async () => new Headers();
