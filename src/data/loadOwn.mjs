import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

/**
 * Loads what a thread or process of its own runs: as the build bundled it, which takes a moment; where nothing is built, as in tests
 * and during work on Bimlo, from its sources, which takes a second or two.
 *
 * @param {string} name of the bundle
 * @param {() => Promise<object>} fromSources loads the same from its sources
 */
export async function loadOwn(name, fromSources) {
  if (process.env.NODE_ENV === 'production')
    return import(pathToFileURL(join(process.cwd(), '.next/threads', `${name}.mjs`)).href);
  const { register } = await import('tsx/esm/api');
  register();
  return fromSources();
}
