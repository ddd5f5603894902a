import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

/**
 * Loads what a thread or process of its own runs: as the build bundled it, or whoever set `BIMLO_BUNDLES`, a folder, which takes a
 * moment; where nothing is bundled, as during work on Bimlo, from its sources, which takes a second or two.
 *
 * @param {string} name of the bundle
 * @param {() => Promise<object>} fromSources loads the same from its sources
 */
export async function loadOwn(name, fromSources) {
  const bundles = process.env.BIMLO_BUNDLES ?? (process.env.NODE_ENV === 'production' ? '.next/threads' : undefined);
  if (bundles !== undefined) return import(pathToFileURL(join(process.cwd(), bundles, `${name}.mjs`)).href);
  const { register } = await import('tsx/esm/api');
  register();
  return fromSources();
}
