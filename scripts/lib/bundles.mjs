import { mkdirSync } from 'node:fs';
import { build } from 'esbuild';

/** What threads and processes of their own load, bundled: read as it is, it takes each of them a second and a half, and 60 MB more. */
const ENTRIES = {
  tasks: 'src/data/pool/tasks.ts',
  deeds: 'src/data/native/deeds.ts',
  networks: 'src/standins/network/program.ts',
};

/**
 * Bundles what threads and processes load. Packages with native code are loaded as they are.
 *
 * @param {string} folder inside the project's, where packages are found
 */
export async function bundleThreads(folder = '.next/threads') {
  mkdirSync(folder, { recursive: true });
  await build({
    entryPoints: ENTRIES,
    outdir: folder,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    alias: { '@': './src' },
    external: ['sharp', '@napi-rs/canvas'],
    // Packages that are written for `require` find it.
    banner: { js: "import { createRequire } from 'node:module';\nconst require = createRequire(import.meta.url);" },
    logLevel: 'warning',
  });
}
