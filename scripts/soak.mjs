/** Runs the long test of delivery against the built application, doing before whatever is still to be done. */
import { ensureBuilt, ensureInstalled, run, tool } from './lib/project.mjs';

ensureInstalled();
ensureBuilt();
run(tool('tsx'), ['bench/soak.ts', ...process.argv.slice(2)]);
