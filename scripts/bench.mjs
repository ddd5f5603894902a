/** Runs the benchmarks against the built application, doing before whatever is still to be done. */
import { ensureChromium } from './lib/chromium.mjs';
import { ensureBuilt, ensureInstalled, run, tool } from './lib/project.mjs';

ensureInstalled();
ensureChromium();
ensureBuilt();
run(tool('tsx'), ['bench/run.ts', ...process.argv.slice(2)]);
